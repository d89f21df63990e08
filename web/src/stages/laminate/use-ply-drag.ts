import type { Book } from '@wick/plan/laminate/books';
import { useSession } from '../../compute/use-desk.ts';
import { ref, type Ref } from 'vue';
import { movePly } from '@wick/plan/laminate/edits';

/** A row follows the pointer by changing places with those it passes: one undo step a drag. */
export function usePlyDrag(table: {
  body: Ref<HTMLElement | null>;
  book: () => Book;
  choose: (index: number) => void;
}) {
  const job = useSession();
  const dragged = ref<number | null>(null);
  let start = 0;
  let before = 0;

  function grab(index: number, event: PointerEvent) {
    (event.currentTarget as Element).setPointerCapture(event.pointerId);
    dragged.value = index;
    start = event.clientY;
    before = index;
    table.choose(index);
  }

  function drag(event: PointerEvent) {
    if (dragged.value === null || !table.body.value) return;
    const height = table.body.value.querySelector('tr')?.getBoundingClientRect().height ?? 34;
    // The table shows the top ply first: down the screen is towards the mould.
    const last = table.book().laminate.plies.length - 1;
    const to = Math.max(0, Math.min(last, before - Math.round((event.clientY - start) / height)));
    if (to === dragged.value) return;
    dragged.value = to;
    job.preview(movePly(table.book().zoneId, before, to));
    table.choose(to);
  }

  function drop() {
    if (dragged.value === null) return;
    dragged.value = null;
    job.endGesture();
  }

  return { dragged, grab, drag, drop };
}
