import { computed, onBeforeUnmount, ref, watchEffect } from 'vue';
import { papers } from './paper.ts';

/** What lists are printed on. */
export const listPapers = ['A4', 'Letter'].map((name) => ({ value: name, label: name }));

/** Round the text of a list that goes on over several pages, mm. */
const LIST_MARGIN = 12;

/**
 * The sheet that a page is printed on; the page is told its size while it is open.
 * @param isList text over as many pages as it takes, upright, in place of a drawing on one
 */
export function usePaper(isList = false) {
  const paperName = ref('A4');
  const paper = computed(() => {
    const own = papers.find(({ name }) => name === paperName.value)!;
    const [short, long] = [own.width, own.height].sort((a, b) => a - b) as [number, number];
    return isList ? { ...own, width: short, height: long } : own;
  });
  // The size of a printed page can only be set by a style sheet of its own.
  const style = document.createElement('style');
  document.head.append(style);
  watchEffect(() => {
    style.textContent = `@page { size: ${paper.value.width}mm ${paper.value.height}mm; margin: ${isList ? LIST_MARGIN : 0}mm; }`;
  });
  onBeforeUnmount(() => style.remove());
  return { paperName, paper };
}
