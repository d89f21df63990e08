import type { OpenSession } from '../../compute/use-desk.ts';
import type { Corner } from '@wick/core/geometry/arcs';
import { boundsOf, distance, type Point } from '@wick/core/geometry/polygon';
import { rectangle } from '@wick/core/geometry/shapes';
import { snap, type Snapped } from '@wick/core/geometry/snap';
import { computed, ref, shallowRef } from 'vue';
import { addFeature, moveFeaturePoint } from '@wick/plan/part/features';
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
import { newId } from '@wick/plan/job/ids';
import { addZone, splitRing } from '@wick/plan/part/zones';

export const partTools = [
  {
    id: 'select',
    key: 'S',
    name: 'Move',
    hint: 'Drag a corner, an edge’s middle to bend it, or a whole hole or zone.',
  },
  {
    id: 'outline',
    key: 'O',
    name: 'Outline',
    hint: 'Click corner after corner, or drag a box; the first corner or Enter closes.',
  },
  {
    id: 'hole',
    key: 'H',
    name: 'Hole',
    hint: 'Click corner after corner, or drag a box; the first corner or Enter closes.',
  },
  {
    id: 'zone',
    key: 'Z',
    name: 'Zone',
    hint: 'Click corner after corner, or drag a box: a place with plies of its own.',
  },
  {
    id: 'feature',
    key: 'R',
    name: 'Rise',
    hint: 'Click along a rise, step or inside corner; Enter ends the line.',
  },
  {
    id: 'split',
    key: 'X',
    name: 'Split',
    hint: 'Drag a line across the chosen zone, or across the part to cut it off.',
  },
  { id: 'measure', key: 'M', name: 'Measure', hint: 'Drag from point to point.' },
] as const;
export type PartTool = (typeof partTools)[number]['id'];

/** Pointer travel below which a press is a click, m on the plan per unit of reach. */
const CLICK = 0.5;

/** Everything a pointer does on the plan of the part, one undo step a gesture. Reach is how far a snap pulls, m. */
export function usePartGestures(job: OpenSession, reach: () => number, grid: () => number | null) {
  const tool = ref<PartTool>('select');
  const selected = shallowRef<RingRef>({ kind: 'outline' });
  const corner = ref<number | null>(null);
  /** Corners set so far of what is being drawn. */
  const drawn = shallowRef<readonly Point[]>([]);
  const pointer = shallowRef<Snapped | null>(null);
  /** Box, cut or measuring line while the button is down, or the last measure taken. */
  const stretch = shallowRef<readonly [Point, Point] | null>(null);
  let pressedAt: Point | null = null;
  let held: {
    kind: 'corner' | 'middle' | 'ring' | 'feature';
    index: number;
    from: Point;
    id?: string;
  } | null = null;

  const closesRing = computed(() => ['outline', 'hole', 'zone'].includes(tool.value));

  function targets(without: RingRef | null, index: number | null) {
    const { document, laid } = job;
    const rings = ringRefs(document).map((ref) => {
      const ring = ringAt(document, ref);
      if (!without || !isSameRing(ref, without)) return ring;
      // Of the ring in hand only its resting corners pull.
      return index === null ? [] : ring.filter((_, i) => i !== index);
    });
    return {
      rings: without ? rings.filter((ring) => ring.length > 1) : rings,
      lines: [
        ...laid.lines.map((line) => line.points),
        ...document.part.features.map((f) => f.points),
        drawn.value,
      ],
      reach: reach(),
      grid: grid(),
    };
  }

  function choose(next: PartTool) {
    abandon();
    tool.value = next;
    stretch.value = null;
  }

  function press(at: Point, event: PointerEvent) {
    pressedAt = at;
    if (tool.value !== 'select') {
      if (!closesRing.value && tool.value !== 'feature') stretch.value = [snapped(at), snapped(at)];
      return;
    }
    const target = event.target as Element;
    const hit = (name: string) => target.closest(`[data-${name}]`)?.getAttribute(`data-${name}`) ?? null;
    const [onCorner, onMiddle, onFeature] = [hit('corner'), hit('middle'), hit('feature')];
    if (onCorner !== null) {
      corner.value = Number(onCorner);
      held = { kind: 'corner', index: Number(onCorner), from: at };
    } else if (onFeature !== null)
      held = { kind: 'feature', id: onFeature, index: Number(hit('point')), from: at };
    else if (onMiddle !== null) held = { kind: 'middle', index: Number(onMiddle), from: at };
    else {
      const under = ringUnder(job.document, at);
      selected.value = under ?? { kind: 'outline' };
      corner.value = null;
      if (under && under.kind !== 'outline') held = { kind: 'ring', index: 0, from: at };
    }
  }

  function snapped(at: Point): Point {
    return snap(at, targets(null, null)).point;
  }

  function move(at: Point, event: PointerEvent) {
    if (tool.value !== 'select') {
      pointer.value = event.altKey ? { point: at, kind: 'free', guides: [] } : snap(at, targets(null, null));
      if (pressedAt && stretch.value) stretch.value = [stretch.value[0], pointer.value.point];
      else if (
        pressedAt &&
        closesRing.value &&
        drawn.value.length === 0 &&
        distance(at, pressedAt) > CLICK * reach()
      )
        stretch.value = [snapped(pressedAt), pointer.value.point];
      return;
    }
    if (!held) return;
    const ref = selected.value;
    if (held.kind === 'corner') {
      const to = event.altKey
        ? { point: at, kind: 'free' as const, guides: [] }
        : snap(at, targets(ref, held.index));
      pointer.value = to;
      job.preview(moveCorner(ref, held.index, to.point));
    } else if (held.kind === 'feature') {
      // Its own points would hold it where it is.
      const to = event.altKey ? at : snap(at, { ...targets(null, null), lines: [] }).point;
      job.preview(moveFeaturePoint(held.id!, held.index, to));
    } else if (held.kind === 'middle') job.preview(bendEdgeTo(ref, held.index, at));
    else {
      const by = { x: at.x - held.from.x, y: at.y - held.from.y };
      job.preview(moveRing(ref, by));
    }
  }

  function release(at: Point) {
    const wasPressed = pressedAt;
    pressedAt = null;
    held = null;
    job.endGesture();
    if (tool.value === 'select' || !wasPressed) {
      pointer.value = null;
      return;
    }
    const line = stretch.value;
    const isDrag = line !== null && distance(line[0], line[1]) > CLICK * reach();
    if (closesRing.value && drawn.value.length === 0 && isDrag) return drawBox(line);
    if (closesRing.value || tool.value === 'feature') {
      stretch.value = null;
      return addCorner(snapped(at));
    }
    if (tool.value === 'split') {
      stretch.value = null;
      if (isDrag) job.apply(splitRing(selected.value, line[0], line[1]));
      tool.value = 'select';
    }
  }

  function drawBox([a, b]: readonly [Point, Point]) {
    stretch.value = null;
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
      job.apply(addFeature(drawn.value));
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
    held = null;
    pressedAt = null;
    drawn.value = [];
    stretch.value = null;
    pointer.value = null;
  }

  function select(ref: RingRef, index: number | null = null) {
    selected.value = ref;
    corner.value = index;
  }

  return {
    tool,
    selected,
    corner,
    drawn,
    pointer,
    stretch,
    closesRing,
    choose,
    press,
    move,
    release,
    addCorner,
    close,
    abandon,
    select,
  };
}
