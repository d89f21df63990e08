import { distance, type Point } from '@wick/core/geometry/polygon';
import { snap, type Snapped } from '@wick/core/geometry/snap';
import { isSameRing, ringAt, ringRefs, type RingRef } from '@wick/plan/part/edits';
import { shallowRef } from 'vue';
import type { BoardEvent, Tool } from '../../board/tool.ts';
import type { OpenSession } from '../../compute/use-desk.ts';

/** Pointer travel below which a press is a click, m on the plan per unit of reach. */
const CLICK = 0.5;

/** What the board tells beside its pointer: how far a snap pulls, m; the grid, m; whether handles of rises are shown. */
export interface Surroundings {
  reach(): number;
  grid(): number | null;
  showsFeatures(): boolean;
}

/** What a hand has hold of on the board of the part, whatever its tool: where it points, and what it is drawing. */
export function createPartHand(job: OpenSession, { reach, grid }: Surroundings) {
  /** Corners set so far of what is being drawn. */
  const drawn = shallowRef<readonly Point[]>([]);
  const pointer = shallowRef<Snapped | null>(null);
  /** Box, cut or measuring line while the button is down, or the last measure taken. */
  const stretch = shallowRef<readonly [Point, Point] | null>(null);
  let pressedAt: Point | null = null;

  /** A place where it snaps to; of the ring in hand only its resting corners pull. */
  function snapped({ at, isFree }: BoardEvent, without: RingRef | null = null, index: number | null = null) {
    if (isFree) return { point: at, kind: 'free', guides: [] } satisfies Snapped;
    return snap(at, targetsOf(without, index));
  }
  function targetsOf(without: RingRef | null, index: number | null) {
    const { document, laid } = job;
    const rings = ringRefs(document).map((ref) => {
      const ring = ringAt(document, ref);
      if (!without || !isSameRing(ref, without)) return ring;
      return index === null ? [] : ring.filter((_, i) => i !== index);
    });
    return {
      rings: without ? rings.filter((ring) => ring.length > 1) : rings,
      lines: [
        ...laid.lines.map((line) => line.points),
        ...document.part.features.map((feature) => feature.points),
        drawn.value,
      ],
      reach: reach(),
      grid: grid(),
    };
  }
  /** Where a place snaps to rings alone: points of a line would hold the line where it is. */
  const onRings = ({ at, isFree }: BoardEvent): Point =>
    isFree ? at : snap(at, { ...targetsOf(null, null), lines: [] }).point;
  const place = (at: Point) => snap(at, targetsOf(null, null)).point;
  const hover = (event: BoardEvent) => void (pointer.value = snapped(event));
  const isDrag = (line: readonly [Point, Point] | null) =>
    line !== null && distance(line[0], line[1]) > CLICK * reach();

  /** A tool that sets corner after corner, or takes a box in one drag. */
  const drawRing = (finish: { box(a: Point, b: Point): void; corner(at: Point): void }): Tool => ({
    press: ({ at }) => void (pressedAt = at),
    move(event) {
      hover(event);
      if (!pressedAt) return;
      if (stretch.value) stretch.value = [stretch.value[0], pointer.value!.point];
      else if (drawn.value.length === 0 && distance(event.at, pressedAt) > CLICK * reach())
        stretch.value = [place(pressedAt), pointer.value!.point];
    },
    release({ at }) {
      const line = stretch.value;
      const wasPressed = pressedAt !== null;
      pressedAt = stretch.value = null;
      if (!wasPressed) pointer.value = null;
      else if (line && isDrag(line) && drawn.value.length === 0) finish.box(...line);
      else finish.corner(place(at));
    },
  });

  /** A tool that draws one line from press to release. */
  const pull = (finish: (line: readonly [Point, Point], isDrag: boolean) => void): Tool => ({
    press({ at }) {
      pressedAt = at;
      stretch.value = [place(at), place(at)];
    },
    move(event) {
      hover(event);
      if (pressedAt && stretch.value) stretch.value = [stretch.value[0], pointer.value!.point];
    },
    release() {
      const wasPressed = pressedAt !== null;
      pressedAt = null;
      if (wasPressed && stretch.value) finish(stretch.value, isDrag(stretch.value));
      else pointer.value = null;
    },
  });

  /** Gives up what is being drawn. */
  function drop() {
    pressedAt = null;
    drawn.value = [];
    stretch.value = null;
    pointer.value = null;
  }

  return { drawn, pointer, stretch, snapped, onRings, hover, drawRing, pull, drop, reach };
}
export type PartHand = ReturnType<typeof createPartHand>;
