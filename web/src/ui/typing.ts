/** True while someone types, so that single letters are text and not commands; a list that is only chosen from is not typed in. */
export const isTyping = (event: KeyboardEvent) =>
  event.target instanceof HTMLElement &&
  (event.target.isContentEditable || /^(INPUT|TEXTAREA|SELECT)$/.test(event.target.tagName)) &&
  !(event.target instanceof HTMLInputElement && event.target.readOnly);
