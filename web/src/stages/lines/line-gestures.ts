import { nearestOnLine } from '@wick/core/geometry/along';
import { polygonOf, type Corner } from '@wick/core/geometry/arcs';
import type { Point } from '@wick/core/geometry/polygon';
import { sideAtOffset, sidesOf } from '@wick/core/geometry/sides';
import type { Edit } from '@wick/plan/job/edits';
import { addLine, newLine } from '@wick/plan/layout/edits';
import { addFitting, addMeshArea, type FittingKind } from '@wick/plan/layout/fittings';
import { addMark } from '@wick/plan/layout/marks';
import { addZone } from '@wick/plan/part/zones';
import { computed, ref, type Ref } from 'vue';
import { boxBetween, POINT, type BoardEvent, type Tool } from '../../board/tool.ts';
import type { OpenSession } from '../../compute/use-desk.ts';
import { createLineHand } from './line-hand.ts';
import { handleByKey, selectTool, type Pins } from './line-handling.ts';
import { lineScene } from './line-scene.ts';
import type { LineTool } from './line-tools.ts';

type Drawn = 'feed' | 'vent' | 'race';

/** Pointer and keys on the board become edits in metres, one undo step a gesture. Reach is how far a snap pulls, m. */
export function useLineGestures(
  job: OpenSession,
  selected: Ref<string | null>,
  reach: () => number,
  pins: Pins,
) {
  const tool = ref<LineTool>('select');
  /** What the fitting tool puts down. */
  const fitting = ref<FittingKind>('pot');
  /** Lines are laid along the nearest edge at this offset, m; null draws them freely. */
  const edgeOffset = ref<number | null>(null);
  const scene = computed(() => lineScene(job.laid, pins.probes));
  const hand = createLineHand(job, reach);

  function lay(kind: Drawn, points: readonly Point[]) {
    const line = newLine(job.document, kind, points);
    job.apply(addLine(line), line.name);
    selected.value = line.id;
    tool.value = 'select';
  }
  function once(edit: Edit, label: string) {
    job.apply(edit, label);
    tool.value = 'select';
  }
  function drawLine(kind: Drawn): Tool {
    const free = hand.stretch((a, b) => lay(kind, isPoint(a, b) ? [a] : [a, b]));
    return {
      ...free,
      press(event) {
        if (edgeOffset.value === null) return free.press!(event);
        const path = alongEdge(job.laid.part.outline, event.at, edgeOffset.value);
        if (path) lay(kind, path);
      },
    };
  }
  const drawBox = (label: string, edit: (box: Point[]) => Edit): Tool =>
    hand.stretch((a, b) => {
      const box = boxBetween(a, b, POINT);
      if (box) once(edit(box), label);
    });

  const tools: Record<LineTool, Tool> = {
    select: selectTool(job, selected, hand, pins),
    feed: drawLine('feed'),
    vent: drawLine('vent'),
    race: drawLine('race'),
    mesh: drawBox('mesh', (box) => addMeshArea(box)),
    brake: drawBox('brake', (box) => addZone(box, { purpose: 'brake' })),
    fitting: { press: ({ at }) => once(addFitting(fitting.value, at), fitting.value), move: hand.hover },
    mark: { press: (event) => once(addMark(hand.snapped(event).point), 'mark'), move: hand.hover },
    probe: { press: ({ at }) => pins.pin(at), move: () => void (hand.pointer.value = null) },
  };

  return {
    tool,
    fitting,
    edgeOffset,
    draft: hand.draft,
    pointer: hand.pointer,
    scene,
    isBox: computed(() => tool.value === 'mesh' || tool.value === 'brake'),
    press: (event: BoardEvent) => tools[tool.value].press?.(event),
    move: (event: BoardEvent) => tools[tool.value].move?.(event),
    release: (event: BoardEvent) => tools[tool.value].release?.(event),
    twice: (event: BoardEvent) => tools[tool.value].twice?.(event),
    /** Esc, or a second finger: what is under way is given up. */
    abandon() {
      tools[tool.value].abandon?.();
      hand.pointer.value = null;
      tool.value = 'select';
    },
    onKey: (event: Pick<KeyboardEvent, 'key' | 'shiftKey'>) =>
      handleByKey(event, { job, scene: scene.value, selected, pins }),
  };
}

const isPoint = (a: Point, b: Point) => Math.hypot(b.x - a.x, b.y - a.y) < POINT;

/** The side of an outline nearest to a place, drawn in by an offset. */
function alongEdge(ring: readonly Corner[], at: Point, offset: number): Point[] | null {
  const outline = polygonOf(ring);
  const nearest = [...sidesOf(outline)].sort(
    (a, b) => nearestOnLine(at, a).distance - nearestOnLine(at, b).distance,
  )[0];
  return sideAtOffset(outline, nearest ?? [...outline, outline[0]!], offset);
}
