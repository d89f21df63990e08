import { refuse, type Read } from './read.ts';

/** No document here is nested nearly so deep. */
const DEEPEST = 40;

/**
 * Reads a text as JSON: what every document that comes from outside passes first. Characters that no database keeps (NUL, halves
 * of a pair) are taken out of its texts, so that a pasted one costs nobody his work.
 */
export function readJson(text: string, what = 'The file'): Read<unknown> {
  const plain = text.replace(/^\uFEFF/, '');
  if (plain.trim() === '') return refuse('NOT_JSON', `${what} is empty. Export it again.`);
  if (depthOf(plain) > DEEPEST)
    return refuse(
      'NOT_JSON',
      `${what} is nested more than ${DEEPEST} deep; nothing that is written here is.`,
    );
  try {
    const value = JSON.parse(plain) as unknown;
    return {
      ok: true,
      value: /\\u(0000|d[89a-f])/i.test(plain) || !plain.isWellFormed() ? cleaned(value) : value,
    };
  } catch {
    return refuse(
      'NOT_JSON',
      `${what} is not complete JSON. It may have been cut off, or written by another program; export it again.`,
    );
  }
}

/** Deepest nesting of brackets outside strings; a text that is no JSON has one too. */
function depthOf(text: string): number {
  let [depth, deepest, isInString] = [0, 0, false];
  for (let i = 0; i < text.length; i++) {
    const code = text.charCodeAt(i);
    if (isInString) {
      if (code === BACKSLASH) i += 1;
      else if (code === QUOTE) isInString = false;
    } else if (code === QUOTE) isInString = true;
    else if (code === OPEN_LIST || code === OPEN_RECORD) deepest = Math.max(deepest, ++depth);
    else if (code === CLOSE_LIST || code === CLOSE_RECORD) depth -= 1;
  }
  return deepest;
}
const [QUOTE, BACKSLASH, OPEN_LIST, CLOSE_LIST, OPEN_RECORD, CLOSE_RECORD] = Array.from('"\\[]{}', (sign) =>
  sign.charCodeAt(0),
);

/** A text without what no database keeps. */
export const cleanText = (text: string): string => text.replaceAll('\0', '').toWellFormed();

function cleaned(value: unknown): unknown {
  if (typeof value === 'string') return cleanText(value);
  if (Array.isArray(value)) return value.map(cleaned);
  if (typeof value !== 'object' || value === null) return value;
  return Object.fromEntries(Object.entries(value).map(([key, own]) => [cleanText(key), cleaned(own)]));
}
