import type { Point } from '@wick/core/geometry/polygon';
import { snap, type Snapped } from '@wick/core/geometry/snap';
import { shallowRef } from 'vue';
import type { BoardEvent, Tool } from '../../board/tool.ts';
import type { OpenSession } from '../../compute/use-desk.ts';

/** What a hand has hold of on the board of lines, whatever its tool: where it points, and what it is drawing. */
export function createLineHand(job: OpenSession, reach: () => number) {
  const draft = shallowRef<Point[] | null>(null);
  const pointer = shallowRef<Snapped | null>(null);

  function snapped({ at, isFree }: BoardEvent, without: string | null = null): Snapped {
    if (isFree) return { point: at, kind: 'free', guides: [] };
    const { part, zones, lines, marks } = job.laid;
    return snap(at, {
      rings: [part, ...part.holes, ...zones].map(({ outline }) => outline),
      lines: [
        ...lines.filter(({ id }) => id !== without).map((line) => line.points),
        ...part.features.map((feature) => feature.points),
        ...marks.filter(({ id }) => id !== without).map((mark) => [mark]),
      ],
      reach: reach(),
      grid: null,
    });
  }

  const hover = (event: BoardEvent) => void (pointer.value = snapped(event));

  /** A tool that drags between two places, kept as a draft until the button is let go. */
  const stretch = (finish: (a: Point, b: Point) => void): Tool => ({
    press(event) {
      pointer.value = snapped(event);
      draft.value = [pointer.value.point, pointer.value.point];
    },
    move(event) {
      hover(event);
      if (!draft.value) return;
      const [from, to] = [draft.value[0]!, pointer.value!.point];
      draft.value = [from, event.isStraight ? straight(from, to) : to];
    },
    release() {
      const drawn = draft.value;
      draft.value = pointer.value = null;
      if (drawn) finish(drawn[0]!, drawn[1]!);
    },
    abandon: () => void (draft.value = null),
  });

  return { draft, pointer, snapped, hover, stretch };
}
export type LineHand = ReturnType<typeof createLineHand>;

/** The end moved onto the nearer of horizontal and vertical. */
function straight(from: Point, to: Point): Point {
  return Math.abs(to.x - from.x) > Math.abs(to.y - from.y) ? { x: to.x, y: from.y } : { x: from.x, y: to.y };
}
