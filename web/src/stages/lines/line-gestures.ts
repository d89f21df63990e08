import { nearestOnLine } from '@wick/core/geometry/along';
import { polygonOf } from '@wick/core/geometry/arcs';
import { boundsOf, type Point } from '@wick/core/geometry/polygon';
import { rectangle } from '@wick/core/geometry/shapes';
import { sideAtOffset, sidesOf } from '@wick/core/geometry/sides';
import { snap, type Snapped } from '@wick/core/geometry/snap';
import type { Edit } from '@wick/plan/job/edits';
import { addLine, bendLine, moveLine, moveLinePoint, newLine, removeLine } from '@wick/plan/layout/edits';
import {
  addFitting,
  addMeshArea,
  moveFitting,
  removeFitting,
  type FittingKind,
} from '@wick/plan/layout/fittings';
import { addMark, moveMark, removeMark } from '@wick/plan/layout/marks';
import { addZone } from '@wick/plan/part/zones';
import { computed, ref, shallowRef, type Ref } from 'vue';
import type { Figure, Role } from '../../board/scene.ts';
import { arrowOf, POINT, type BoardEvent, type Tool } from '../../board/tool.ts';
import type { Probe } from '../../compute/probes.ts';
import type { OpenSession } from '../../compute/use-desk.ts';
import { lineScene } from './line-scene.ts';
import type { LineTool } from './line-tools.ts';

/** Pins that belong to the screen, not to the job. */
interface Pins {
  readonly probes: readonly Probe[];
  pin(at: Point): void;
  unpin(id: string): void;
  move(id: string, to: Point): void;
}

type Drawn = 'feed' | 'vent' | 'race';
type Boxed = 'mesh' | 'brake';

/** What moves a thing by a way on the plan, and what takes it away. */
const handling: Partial<
  Record<Role, { move: (id: string, by: Point) => Edit; remove: (id: string) => Edit; name: string }>
> = {
  line: { move: moveLine, remove: removeLine, name: 'line' },
  mark: { move: moveMark, remove: removeMark, name: 'mark' },
  fitting: { move: moveFitting, remove: removeFitting, name: 'fitting' },
};

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
  const draft = shallowRef<Point[] | null>(null);
  const pointer = shallowRef<Snapped | null>(null);
  const scene = computed(() => lineScene(job.laid, pins.probes));
  let held: { readonly figure: Figure; readonly from: Point } | null = null;

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

  const select: Tool = {
    press({ at, target }) {
      selected.value = target?.id ?? null;
      held = target && { figure: target, from: at };
    },
    move(event) {
      pointer.value = null;
      if (!held) return;
      const { figure, from } = held;
      const { role, id, index } = figure;
      const { at } = event;
      if (role === 'probe') return pins.move(id, at);
      if (role === 'lineEnd') {
        pointer.value = snapped(event, id);
        return job.preview(moveLinePoint(id, index!, pointer.value.point));
      }
      const edit = handling[role]?.move(id, { x: at.x - from.x, y: at.y - from.y });
      if (edit) job.preview(edit);
    },
    release() {
      const role = held?.figure.role;
      held = null;
      pointer.value = null;
      job.endGesture(true, `move of a ${(role && handling[role]?.name) ?? 'line'}`);
    },
    twice({ at, target }) {
      if (target && (target.role === 'line' || target.role === 'lineEnd'))
        job.apply(bendLine(target.id, at), 'bend of a line');
    },
    abandon() {
      held = null;
      job.endGesture(false);
    },
  };

  const hover = (event: BoardEvent) => void (pointer.value = snapped(event));

  /** A drag between two places, kept as a draft until the button is let go. */
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

  function drawLine(kind: Drawn): Tool {
    const free = stretch((a, b) => lay(kind, Math.hypot(b.x - a.x, b.y - a.y) < POINT ? [a] : [a, b]));
    return {
      ...free,
      press(event) {
        if (edgeOffset.value === null) return free.press!(event);
        const path = alongEdge(event.at);
        if (path) lay(kind, path);
      },
    };
  }

  const drawBox = (kind: Boxed): Tool =>
    stretch((a, b) => {
      const { minX, minY, maxX, maxY } = boundsOf([a, b]);
      if (maxX - minX < POINT || maxY - minY < POINT) return;
      const box = rectangle({ length: maxX - minX, width: maxY - minY }).map(({ x, y }) => ({
        x: x + minX,
        y: y + minY,
      }));
      once(kind === 'mesh' ? addMeshArea(box) : addZone(box, { purpose: 'brake' }), kind);
    });

  const tools: Record<LineTool, Tool> = {
    select,
    feed: drawLine('feed'),
    vent: drawLine('vent'),
    race: drawLine('race'),
    mesh: drawBox('mesh'),
    brake: drawBox('brake'),
    fitting: { press: ({ at }) => once(addFitting(fitting.value, at), fitting.value), move: hover },
    mark: { press: (event) => once(addMark(snapped(event).point), 'mark'), move: hover },
    probe: { press: ({ at }) => pins.pin(at), move: () => void (pointer.value = null) },
  };

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

  /** The side of the outline nearest to a place, drawn in by the offset. */
  function alongEdge(at: Point): Point[] | null {
    const outline = polygonOf(job.laid.part.outline);
    const nearest = [...sidesOf(outline)].sort(
      (a, b) => nearestOnLine(at, a).distance - nearestOnLine(at, b).distance,
    )[0];
    return sideAtOffset(outline, nearest ?? [...outline, outline[0]!], edgeOffset.value ?? 0);
  }

  /** Esc, or a second finger: what is under way is given up. */
  function abandon() {
    tools[tool.value].abandon?.();
    pointer.value = null;
    tool.value = 'select';
  }

  /** Arrows and Delete on what is selected. @returns whether the key was one of these */
  function onKey(event: Pick<KeyboardEvent, 'key' | 'shiftKey'>): boolean {
    const figure = scene.value.find(({ id, role }) => id === selected.value && role !== 'lineEnd');
    const by = arrowOf(event);
    const isRemoval = event.key === 'Delete' || event.key === 'Backspace';
    if (!figure || (!by && !isRemoval)) return false;
    const { role, id, points } = figure;
    if (isRemoval) selected.value = null;
    if (role === 'probe') {
      if (by) pins.move(id, { x: points[0]!.x + by.x, y: points[0]!.y + by.y });
      else pins.unpin(id);
      return true;
    }
    const { move, remove, name } = handling[role]!;
    job.apply(by ? move(id, by) : remove(id), by ? `move of a ${name}` : `deletion of a ${name}`);
    return true;
  }

  return {
    tool,
    fitting,
    edgeOffset,
    draft,
    pointer,
    scene,
    isBox: computed(() => tool.value === 'mesh' || tool.value === 'brake'),
    press: (event: BoardEvent) => tools[tool.value].press?.(event),
    move: (event: BoardEvent) => tools[tool.value].move?.(event),
    release: (event: BoardEvent) => tools[tool.value].release?.(event),
    twice: (event: BoardEvent) => tools[tool.value].twice?.(event),
    abandon,
    onKey,
  };
}

/** The end moved onto the nearer of horizontal and vertical. */
function straight(from: Point, to: Point): Point {
  return Math.abs(to.x - from.x) > Math.abs(to.y - from.y) ? { x: to.x, y: from.y } : { x: from.x, y: to.y };
}
