import type { Corner } from '@wick/core/geometry/arcs';
import { distance, type Point } from '@wick/core/geometry/polygon';
import { newId } from '@wick/plan/job/ids';
import { addHole, ringAt, withOutline, type RingRef } from '@wick/plan/part/edits';
import { addFeature } from '@wick/plan/part/features';
import { addZone, splitRing } from '@wick/plan/part/zones';
import { computed, ref, shallowRef } from 'vue';
import { boxBetween, type BoardEvent, type Tool } from '../../board/tool.ts';
import type { OpenSession } from '../../compute/use-desk.ts';
import { createPartHand, type Surroundings } from './part-hand.ts';
import { selectTool } from './part-handling.ts';
import { partScene } from './part-scene.ts';
import type { PartTool } from './part-tools.ts';

/** Edges shorter than so many reaches have no handle in their middle. */
const LEAST_MIDDLE = 3.4;
/** Side of the smallest box that is one, m. */
const LEAST_BOX = 1e-3;
const ringTools: readonly PartTool[] = ['outline', 'hole', 'zone'];

/** Everything a pointer does on the plan of the part, one undo step a gesture. */
export function usePartGestures(job: OpenSession, around: Surroundings) {
  const tool = ref<PartTool>('select');
  const selected = shallowRef<RingRef>({ kind: 'outline' });
  const corner = ref<number | null>(null);
  const hand = createPartHand(job, around);
  const { drawn, stretch } = hand;
  const closesRing = computed(() => ringTools.includes(tool.value));
  const scene = computed(() =>
    tool.value === 'select'
      ? partScene(
          ringAt(job.document, selected.value),
          around.showsFeatures() ? job.document.part.features : [],
          LEAST_MIDDLE * around.reach(),
        )
      : [],
  );

  const drawRing = hand.drawRing({ box: drawBox, corner: addCorner });
  const tools: Record<PartTool, Tool> = {
    select: selectTool(job, { selected, corner }, hand),
    outline: drawRing,
    hole: drawRing,
    zone: drawRing,
    feature: { ...drawRing, move: hand.hover },
    split: hand.pull((line, isDrag) => {
      stretch.value = null;
      if (isDrag) job.apply(splitRing(selected.value, ...line), 'split');
      tool.value = 'select';
    }),
    measure: hand.pull(() => undefined),
  };

  function drawBox(a: Point, b: Point) {
    const box = boxBetween(a, b, LEAST_BOX);
    if (box) finish(box);
  }
  function addCorner(at: Point) {
    const [first] = drawn.value;
    const isBack = first && drawn.value.length > 2 && distance(first, at) <= around.reach();
    if (closesRing.value && isBack) return close();
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
    const made = addRing(job, tool.value, ring);
    drawn.value = [];
    select(made);
    tool.value = 'select';
  }
  function abandon() {
    tools.select.abandon!();
    hand.drop();
  }
  function select(ref: RingRef, index: number | null = null) {
    selected.value = ref;
    corner.value = index;
  }

  return {
    ...{ tool, selected, corner, drawn, stretch, closesRing, scene, pointer: hand.pointer },
    choose(next: PartTool) {
      abandon();
      tool.value = next;
    },
    press: (event: BoardEvent) => tools[tool.value].press?.(event),
    move: (event: BoardEvent) => tools[tool.value].move?.(event),
    release: (event: BoardEvent) => tools[tool.value].release?.(event),
    ...{ addCorner, close, abandon, select },
  };
}

/** The outline anew, or a further hole or zone. @returns which ring that is */
function addRing(job: OpenSession, what: PartTool, ring: readonly Corner[]): RingRef {
  const id = newId();
  if (what === 'outline') {
    job.apply(withOutline(ring), 'outline');
    return { kind: 'outline' };
  }
  const isHole = what === 'hole';
  job.apply(isHole ? addHole(ring, id) : addZone(ring, {}, id), what);
  return { kind: isHole ? 'hole' : 'zone', id };
}
