import type { Corner } from '@wick/core/geometry/arcs';
import { boundsOf, distance, type Point } from '@wick/core/geometry/polygon';
import { rectangle } from '@wick/core/geometry/shapes';
import { snap, type Snapped } from '@wick/core/geometry/snap';
import { newId } from '@wick/plan/job/ids';
import {
  addHole,
  bendEdgeTo,
  isSameRing,
  moveCorner,
  moveRing,
  ringAt,
  ringRefs,
  ringUnder,
  withOutline,
  type RingRef,
} from '@wick/plan/part/edits';
import { addFeature, moveFeaturePoint } from '@wick/plan/part/features';
import { addZone, splitRing } from '@wick/plan/part/zones';
import { computed, ref, shallowRef } from 'vue';
import type { Figure } from '../../board/scene.ts';
import type { BoardEvent, Tool } from '../../board/tool.ts';
import type { OpenSession } from '../../compute/use-desk.ts';
import { partScene } from './part-scene.ts';
import type { PartTool } from './part-tools.ts';

/** Pointer travel below which a press is a click, m on the plan per unit of reach. */
const CLICK = 0.5;
/** Edges shorter than so many reaches have no handle in their middle. */
const LEAST_MIDDLE = 3.4;

/** What the board tells beside its pointer: how far a snap pulls, m; the grid, m; whether handles of rises are shown. */
interface Surroundings {
  reach(): number;
  grid(): number | null;
  showsFeatures(): boolean;
}

/** Everything a pointer does on the plan of the part, one undo step a gesture. */
export function usePartGestures(job: OpenSession, { reach, grid, showsFeatures }: Surroundings) {
  const tool = ref<PartTool>('select');
  const selected = shallowRef<RingRef>({ kind: 'outline' });
  const corner = ref<number | null>(null);
  /** Corners set so far of what is being drawn. */
  const drawn = shallowRef<readonly Point[]>([]);
  const pointer = shallowRef<Snapped | null>(null);
  /** Box, cut or measuring line while the button is down, or the last measure taken. */
  const stretch = shallowRef<readonly [Point, Point] | null>(null);
  let pressedAt: Point | null = null;
  let held: { readonly figure: Figure | null; readonly from: Point } | null = null;

  const closesRing = computed(() => ['outline', 'hole', 'zone'].includes(tool.value));
  const scene = computed(() =>
    tool.value === 'select'
      ? partScene(
          ringAt(job.document, selected.value),
          showsFeatures() ? job.document.part.features : [],
          LEAST_MIDDLE * reach(),
        )
      : [],
  );

  /** What pulls; of the ring in hand only its resting corners. */
  function targets(without: RingRef | null, index: number | null) {
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
  const free = (point: Point): Snapped => ({ point, kind: 'free', guides: [] });
  const snapped = (at: Point) => snap(at, targets(null, null)).point;
  const hover = ({ at, isFree }: BoardEvent) =>
    void (pointer.value = isFree ? free(at) : snap(at, targets(null, null)));
  const isDrag = (line: readonly [Point, Point] | null) =>
    line !== null && distance(line[0], line[1]) > CLICK * reach();

  const select: Tool = {
    press({ at, target }) {
      held = { figure: target, from: at };
      if (target?.role === 'corner') corner.value = target.index!;
      if (target) return;
      const under = ringUnder(job.document, at);
      selected.value = under ?? { kind: 'outline' };
      corner.value = null;
      if (!under || under.kind === 'outline') held = null;
    },
    move(event) {
      if (held) job.preview(dragged(held, event));
    },
    release() {
      const role = held?.figure?.role;
      held = null;
      pointer.value = null;
      job.endGesture(true, role === 'corner' ? 'move of a corner' : role === 'edgeMiddle' ? 'bend' : 'move');
    },
  };

  function dragged({ figure, from }: NonNullable<typeof held>, { at, isFree }: BoardEvent) {
    const ref = selected.value;
    if (!figure) return moveRing(ref, { x: at.x - from.x, y: at.y - from.y });
    const index = figure.index!;
    if (figure.role === 'edgeMiddle') return bendEdgeTo(ref, index, at);
    if (figure.role === 'featurePoint') {
      // Its own points would hold it where it is.
      const to = isFree ? at : snap(at, { ...targets(null, null), lines: [] }).point;
      return moveFeaturePoint(figure.id, index, to);
    }
    pointer.value = isFree ? free(at) : snap(at, targets(ref, index));
    return moveCorner(ref, index, pointer.value.point);
  }

  /** Corner after corner, or a box in one drag. */
  const drawRing: Tool = {
    press: ({ at }) => void (pressedAt = at),
    move(event) {
      hover(event);
      if (!pressedAt) return;
      if (stretch.value) stretch.value = [stretch.value[0], pointer.value!.point];
      else if (drawn.value.length === 0 && distance(event.at, pressedAt) > CLICK * reach())
        stretch.value = [snapped(pressedAt), pointer.value!.point];
    },
    release({ at }) {
      const line = stretch.value;
      const wasPressed = pressedAt !== null;
      pressedAt = stretch.value = null;
      if (!wasPressed) pointer.value = null;
      else if (line && isDrag(line) && drawn.value.length === 0) drawBox(line);
      else addCorner(snapped(at));
    },
  };

  const drawFeature: Tool = { ...drawRing, move: hover };

  /** A line from press to release. */
  const pull = (finish: (line: readonly [Point, Point]) => void): Tool => ({
    press({ at }) {
      pressedAt = at;
      stretch.value = [snapped(at), snapped(at)];
    },
    move(event) {
      hover(event);
      if (pressedAt && stretch.value) stretch.value = [stretch.value[0], pointer.value!.point];
    },
    release() {
      const wasPressed = pressedAt !== null;
      pressedAt = null;
      if (wasPressed && stretch.value) finish(stretch.value);
      else pointer.value = null;
    },
  });

  const tools: Record<PartTool, Tool> = {
    select,
    outline: drawRing,
    hole: drawRing,
    zone: drawRing,
    feature: drawFeature,
    split: pull((line) => {
      stretch.value = null;
      if (isDrag(line)) job.apply(splitRing(selected.value, line[0], line[1]), 'split');
      tool.value = 'select';
    }),
    measure: pull(() => undefined),
  };

  function drawBox([a, b]: readonly [Point, Point]) {
    const { minX, minY, maxX, maxY } = boundsOf([a, b]);
    if (maxX - minX < 1e-3 || maxY - minY < 1e-3) return;
    const box = rectangle({ length: maxX - minX, width: maxY - minY });
    finish(box.map((p) => ({ x: p.x + minX, y: p.y + minY })));
  }

  function addCorner(at: Point) {
    const [first] = drawn.value;
    if (closesRing.value && first && drawn.value.length > 2 && distance(first, at) <= reach()) return close();
    const last = drawn.value.at(-1);
    if (!last || distance(last, at) > 1e-4) drawn.value = [...drawn.value, at];
  }

  /** Ends what is being drawn, if there is enough of it. */
  function close() {
    if (closesRing.value && drawn.value.length > 2) finish(drawn.value);
    else if (tool.value === 'feature' && drawn.value.length > 1) {
      job.apply(addFeature(drawn.value), 'rise');
      drawn.value = [];
      tool.value = 'select';
    }
  }

  function finish(ring: readonly Corner[]) {
    const what = tool.value;
    const id = newId();
    if (what === 'outline') {
      job.apply(withOutline(ring), 'outline');
      selected.value = { kind: 'outline' };
    } else if (what === 'hole') {
      job.apply(addHole(ring, id), 'hole');
      selected.value = { kind: 'hole', id };
    } else {
      job.apply(addZone(ring, {}, id), 'zone');
      selected.value = { kind: 'zone', id };
    }
    drawn.value = [];
    corner.value = null;
    tool.value = 'select';
  }

  function abandon() {
    job.endGesture(false);
    held = pressedAt = null;
    drawn.value = [];
    stretch.value = null;
    pointer.value = null;
  }

  return {
    tool,
    selected,
    corner,
    drawn,
    pointer,
    stretch,
    closesRing,
    scene,
    choose(next: PartTool) {
      abandon();
      tool.value = next;
    },
    press: (event: BoardEvent) => tools[tool.value].press?.(event),
    move: (event: BoardEvent) => tools[tool.value].move?.(event),
    release: (event: BoardEvent) => tools[tool.value].release?.(event),
    addCorner,
    close,
    abandon,
    select(ref: RingRef, index: number | null = null) {
      selected.value = ref;
      corner.value = index;
    },
  };
}
