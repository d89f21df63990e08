import { addMark, moveMark, removeMark } from '@wick/plan/layout/marks';
import type { Edit } from '@wick/plan/job/edits';
import type { OpenSession } from '../../compute/use-desk.ts';
import { polygonOf } from '@wick/core/geometry/arcs';
import { nearestOnLine } from '@wick/core/geometry/along';
import { boundsOf, type Point } from '@wick/core/geometry/polygon';
import { rectangle } from '@wick/core/geometry/shapes';
import { sideAtOffset, sidesOf } from '@wick/core/geometry/sides';
import { snap, type Snapped } from '@wick/core/geometry/snap';
import type { JobLine } from '@wick/contract/job/job';
import { ref, shallowRef, type Ref } from 'vue';
import { moveLine, moveLinePoint, addLine, newLine, removeLine, bendLine } from '@wick/plan/layout/edits';
import {
  addFitting,
  addMeshArea,
  moveFitting,
  removeFitting,
  type FittingKind,
} from '@wick/plan/layout/fittings';
import { addZone } from '@wick/plan/part/zones';

export const lineTools = [
  {
    id: 'select',
    key: 'S',
    name: 'Move',
    hint: 'Drag a line or its ends; double-click a line to bend it; point to read the front.',
  },
  { id: 'feed', key: 'F', name: 'Feed', hint: 'Drag to draw a feed line, or click for a feed point.' },
  { id: 'vent', key: 'V', name: 'Vent', hint: 'Drag to draw a vent line, or click for a vent point.' },
  { id: 'race', key: 'E', name: 'Race', hint: 'Drag along an edge where resin runs ahead in a gap.' },
  { id: 'mesh', key: 'X', name: 'Mesh', hint: 'Drag a box: flow mesh then lies only where such areas are.' },
  {
    id: 'brake',
    key: 'B',
    name: 'Brake',
    hint: 'Drag a box: a strip without mesh that slows the resin before a vent.',
  },
  { id: 'fitting', key: 'T', name: 'Fitting', hint: 'Click where pot, pump or tee stands; hoses run to it.' },
  { id: 'mark', key: 'M', name: 'Mark', hint: 'Click where the front is to be timed.' },
  { id: 'probe', key: 'P', name: 'Probe', hint: 'Click to pin a place: its history stands under Probes.' },
] as const;
export type LineTool = (typeof lineTools)[number]['id'];
type Drawn = 'feed' | 'vent' | 'race';

const isLineTool = (tool: LineTool): tool is Drawn => tool === 'feed' || tool === 'vent' || tool === 'race';
const isBoxTool = (tool: LineTool) => tool === 'mesh' || tool === 'brake';

/** Shorter than this a drawn line is a point, m. */
const POINT = 0.012;

/** Pointer and keys on the board become edits in metres, one undo step a gesture. Reach is how far a snap pulls, m. */
export function useLineGestures(
  job: OpenSession,
  selected: Ref<string | null>,
  reach: () => number,
  probes: { pin(at: Point): void; unpin(id: string): void; move(id: string, to: Point): void },
) {
  const tool = ref<LineTool>('select');
  /** What the fitting tool puts down. */
  const fitting = ref<FittingKind>('pot');
  /** Lines are laid along the nearest edge at this offset, m; null draws them freely. */
  const edgeOffset = ref<number | null>(null);
  const draft = shallowRef<Point[] | null>(null);
  const pointer = shallowRef<Snapped | null>(null);
  let held: {
    id: string;
    kind: 'line' | 'end' | 'mark' | 'fitting' | 'probe';
    corner: number;
    from: Point;
  } | null = null;

  function snapped(at: Point, event: PointerEvent, without: string | null): Snapped {
    if (event.altKey) return { point: at, kind: 'free', guides: [] };
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

  function press(at: Point, event: PointerEvent) {
    const to = snapped(at, event, null);
    if (tool.value === 'mark') return once(addMark(to.point));
    if (tool.value === 'fitting') return once(addFitting(fitting.value, at));
    if (tool.value === 'probe') {
      probes.pin(at);
      return;
    }
    if (isLineTool(tool.value) && edgeOffset.value !== null) {
      const path = alongEdge(at);
      if (path) lay(tool.value, path);
      return;
    }
    if (tool.value !== 'select') {
      pointer.value = to;
      draft.value = [to.point, to.point];
      return;
    }
    const target = event.target as Element;
    const hit = (name: string) => target.closest(`[data-${name}]`)?.getAttribute(`data-${name}`) ?? null;
    for (const kind of ['probe', 'mark', 'fitting'] as const) {
      const id = hit(kind);
      if (id === null) continue;
      selected.value = id;
      held = { id, kind, corner: 0, from: at };
      return;
    }
    const [id, corner] = [hit('line'), hit('end')];
    selected.value = id;
    held = id ? { id, kind: corner === null ? 'line' : 'end', corner: Number(corner ?? 0), from: at } : null;
  }

  function move(at: Point, event: PointerEvent) {
    if (draft.value) {
      const to = snapped(at, event, null);
      pointer.value = to;
      const from = draft.value[0]!;
      draft.value = [from, event.shiftKey ? straight(from, to.point) : to.point];
      return;
    }
    if (!held) {
      pointer.value = tool.value === 'select' || tool.value === 'probe' ? null : snapped(at, event, null);
      return;
    }
    const { id, kind, corner, from } = held;
    const by = { x: at.x - from.x, y: at.y - from.y };
    if (kind === 'end') {
      const to = snapped(at, event, id);
      pointer.value = to;
      job.preview(moveLinePoint(id, corner, to.point));
    } else if (kind === 'line') job.preview(moveLine(id, by));
    else if (kind === 'mark') job.preview(moveMark(id, by));
    else if (kind === 'fitting') job.preview(moveFitting(id, by));
    else probes.move(id, at);
  }

  function release() {
    held = null;
    job.endGesture();
    const drawn = draft.value;
    draft.value = null;
    pointer.value = null;
    if (!drawn) return;
    const [a, b] = [drawn[0]!, drawn[1]!];
    if (isLineTool(tool.value))
      return lay(tool.value, Math.hypot(b.x - a.x, b.y - a.y) < POINT ? [a] : [a, b]);
    const { minX, minY, maxX, maxY } = boundsOf([a, b]);
    if (maxX - minX < POINT || maxY - minY < POINT) return;
    const box = rectangle({ length: maxX - minX, width: maxY - minY }).map((p) => ({
      x: p.x + minX,
      y: p.y + minY,
    }));
    once(tool.value === 'mesh' ? addMeshArea(box) : addZone(box, { purpose: 'brake' }));
  }

  function lay(kind: Drawn, points: readonly Point[]) {
    const line = newLine(job.document, kind, points);
    job.apply(addLine(line), line.name);
    selected.value = line.id;
    tool.value = 'select';
  }

  function once(edit: Edit) {
    job.apply(edit);
    tool.value = 'select';
  }

  /** The side of the outline nearest to a place, drawn in by the offset. */
  function alongEdge(at: Point): Point[] | null {
    const outline = polygonOf(job.laid.part.outline);
    const nearest = [...sidesOf(outline)].sort(
      (a, b) => nearestOnLine(at, a).distance - nearestOnLine(at, b).distance,
    )[0];
    const side = nearest ?? [...outline, outline[0]!];
    return sideAtOffset(outline, side, edgeOffset.value ?? 0);
  }

  function bend(at: Point, under: Element | null) {
    const id = under?.closest('[data-line]')?.getAttribute('data-line');
    if (id && tool.value === 'select') job.apply(bendLine(id, at));
  }

  function abandon() {
    held = null;
    draft.value = null;
    pointer.value = null;
    job.endGesture(false);
    tool.value = 'select';
  }

  /** Arrows and Delete on what is selected; false when the key is not for it. */
  function nudge(event: KeyboardEvent): boolean {
    const id = selected.value;
    const target = event.target as Element;
    if (!id || !target.closest?.('[data-line], [data-mark], [data-fitting], [data-probe], body'))
      return false;
    if (target.closest('[role="slider"]')) return false;
    const size = event.shiftKey ? 0.001 : 0.01;
    const by = {
      ArrowLeft: { x: -size, y: 0 },
      ArrowRight: { x: size, y: 0 },
      ArrowUp: { x: 0, y: size },
      ArrowDown: { x: 0, y: -size },
    }[event.key];
    const kind = kindOf(id);
    if (by) job.apply({ mark: moveMark, line: moveLine, fitting: moveFitting }[kind](id, by));
    else if (event.key === 'Delete' || event.key === 'Backspace') {
      selected.value = null;
      probes.unpin(id);
      job.apply({ mark: removeMark, line: removeLine, fitting: removeFitting }[kind](id));
    } else return false;
    return true;
  }

  function kindOf(id: string): 'mark' | 'line' | 'fitting' {
    if (job.laid.marks.some((mark) => mark.id === id)) return 'mark';
    return job.laid.lines.some((line: JobLine) => line.id === id) ? 'line' : 'fitting';
  }

  return {
    tool,
    fitting,
    edgeOffset,
    draft,
    pointer,
    isBox: () => isBoxTool(tool.value),
    press,
    move,
    release,
    bend,
    abandon,
    nudge,
  };
}

/** The end moved onto the nearer of horizontal and vertical. */
function straight(from: Point, to: Point): Point {
  return Math.abs(to.x - from.x) > Math.abs(to.y - from.y) ? { x: to.x, y: from.y } : { x: from.x, y: to.y };
}
