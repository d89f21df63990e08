import type { Point } from '@wick/core/geometry/polygon';
import type { Edit } from '@wick/plan/job/edits';
import { bendLine, moveLine, moveLinePoint, removeLine } from '@wick/plan/layout/edits';
import { moveFitting, removeFitting } from '@wick/plan/layout/fittings';
import { moveMark, removeMark } from '@wick/plan/layout/marks';
import type { Ref } from 'vue';
import type { Figure, Role, Scene } from '../../board/scene.ts';
import { arrowOf, type BoardEvent, type Tool } from '../../board/tool.ts';
import type { Probe } from '../../compute/probes.ts';
import type { OpenSession } from '../../compute/use-desk.ts';
import type { LineHand } from './line-hand.ts';

/** Pins that belong to the screen, not to the job. */
export interface Pins {
  readonly probes: readonly Probe[];
  pin(at: Point): void;
  unpin(id: string): void;
  move(id: string, to: Point): void;
}

/** What moves a thing by a way on the plan, and what takes it away. */
const handling: Partial<
  Record<Role, { move: (id: string, by: Point) => Edit; remove: (id: string) => Edit; name: string }>
> = {
  line: { move: moveLine, remove: removeLine, name: 'line' },
  mark: { move: moveMark, remove: removeMark, name: 'mark' },
  fitting: { move: moveFitting, remove: removeFitting, name: 'fitting' },
};

/** The tool that takes hold of what is there. */
export function selectTool(
  job: OpenSession,
  selected: Ref<string | null>,
  { pointer, snapped }: LineHand,
  pins: Pins,
): Tool {
  let held: { readonly figure: Figure; readonly from: Point } | null = null;

  function drag({ figure, from }: NonNullable<typeof held>, event: BoardEvent) {
    const { role, id, index } = figure;
    const { at } = event;
    if (role === 'probe') return pins.move(id, at);
    if (role === 'lineEnd') {
      pointer.value = snapped(event, id);
      return job.preview(moveLinePoint(id, index!, pointer.value.point));
    }
    const edit = handling[role]?.move(id, { x: at.x - from.x, y: at.y - from.y });
    if (edit) job.preview(edit);
  }

  return {
    press({ at, target }) {
      selected.value = target?.id ?? null;
      held = target && { figure: target, from: at };
    },
    move(event) {
      pointer.value = null;
      if (held) drag(held, event);
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
}

/** Arrows and Delete on what is selected. @returns whether the key was one of these */
export function handleByKey(
  event: Pick<KeyboardEvent, 'key' | 'shiftKey'>,
  {
    job,
    scene,
    selected,
    pins,
  }: { job: OpenSession; scene: Scene; selected: Ref<string | null>; pins: Pins },
): boolean {
  const figure = scene.find(({ id, role }) => id === selected.value && role !== 'lineEnd');
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
