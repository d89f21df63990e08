import { computed, onBeforeUnmount, ref, watchEffect } from 'vue';
import { papers } from './paper.ts';

/** The sheet that a page is printed on; the page is told its size while it is open. */
export function usePaper() {
  const paperName = ref('A4');
  const paper = computed(() => papers.find(({ name }) => name === paperName.value)!);
  // The size of a printed page can only be set by a style sheet of its own.
  const style = document.createElement('style');
  document.head.append(style);
  watchEffect(() => {
    style.textContent = `@page { size: ${paper.value.width}mm ${paper.value.height}mm; margin: 0; }`;
  });
  onBeforeUnmount(() => style.remove());
  return { paperName, paper };
}
