import { ref, type Ref } from 'vue';

const USUAL_HEIGHT = 34;

/** What a sheet does with a row that is dragged; places count down the screen. */
interface RowDrag {
  readonly count: () => number;
  /** Over another place, while the hand moves. */
  readonly onMove?: (from: number, to: number) => void;
  readonly onDrop: (from: number, to: number) => void;
}

/** Rows of a sheet dragged by a grip to another place. */
export function useRowDrag(body: Ref<HTMLElement | null>, { count, onMove, onDrop }: RowDrag) {
  const dragged = ref<number | null>(null);
  const over = ref<number | null>(null);
  let grabbedAt = 0;

  return {
    /** Place that the row in hand came from, and the one it is over. */
    dragged,
    over,
    grab(row: number, event: PointerEvent) {
      (event.currentTarget as Element).setPointerCapture(event.pointerId);
      dragged.value = over.value = row;
      grabbedAt = event.clientY;
    },
    drag({ clientY }: PointerEvent) {
      if (dragged.value === null) return;
      const height = body.value?.querySelector('tr')?.getBoundingClientRect().height || USUAL_HEIGHT;
      const to = dragged.value + Math.round((clientY - grabbedAt) / height);
      const place = Math.max(0, Math.min(count() - 1, to));
      if (place === over.value) return;
      over.value = place;
      onMove?.(dragged.value, place);
    },
    drop() {
      const [from, to] = [dragged.value, over.value];
      dragged.value = over.value = null;
      if (from !== null && to !== null) onDrop(from, to);
    },
  };
}
