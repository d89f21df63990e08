import type { JobAction, JobLine, JobTrigger } from '@wick/contract/job/job';
import type { Edit } from '../job/edits.ts';
import { idsFrom, newId } from '../job/ids.ts';
import { onLayout, onLines } from './edits.ts';

/** One action of one line, as a row of the sequence. */
export interface Turn {
  readonly lineId: string;
  readonly actionId: string;
}

/** Changes one action of a line. */
export const updateAction = ({ lineId, actionId }: Turn, changes: Partial<JobAction>): Edit =>
  onActions(lineId, (actions) =>
    actions.map((action) => (action.id === actionId ? { ...action, ...changes } : action)),
  );

export const addAction = (lineId: string, action: JobAction): Edit =>
  onActions(lineId, (actions) => [...actions, action]);

export const removeAction = ({ lineId, actionId }: Turn): Edit =>
  onActions(lineId, (actions) => actions.filter(({ id }) => id !== actionId));

const onActions = (lineId: string, change: (actions: JobLine['actions']) => JobLine['actions']): Edit =>
  onLines((line) => (line.id === lineId ? { ...line, actions: change(line.actions) } : line));

/**
 * A line takes another turn: what each turn waits for stays where it is in the order, and who acts then moves.
 * @param turns rows in the order in which they are shown
 */
export const moveTurn =
  (turns: readonly Turn[], from: number, to: number): Edit =>
  (job) => {
    if (from === to || !turns[from] || !turns[to]) return job;
    const lines = job.layouts.flatMap((layout) => layout.lines);
    const actions = turns.map(({ lineId, actionId }) =>
      lines.find(({ id }) => id === lineId)!.actions.find(({ id }) => id === actionId)!,
    );
    const who = turns.map(({ lineId, actionId }, i) => ({ lineId, actionId, opening: actions[i]!.opening }));
    const [moved] = who.splice(from, 1);
    who.splice(to, 0, moved!);
    const shown = new Set(turns.map(({ actionId }) => actionId));
    return onLines((line) => {
      const others = line.actions.filter(({ id }) => !shown.has(id));
      const own = who.flatMap(({ lineId, actionId, opening }, i): JobAction[] =>
        lineId === line.id
          ? [{ id: actionId, opening, when: notItself(actions[i]!.when, line.id, turns[i]!.lineId) }]
          : [],
      );
      return { ...line, actions: [...others, ...own] };
    })(job);
  };

/** A line cannot wait for its own opening: it then waits for that of the line whose turn it took. */
const notItself = (when: JobTrigger, lineId: string, before: string): JobTrigger =>
  when.kind === 'opened' && when.what === lineId ? { ...when, what: before } : when;

/** Times are set to a quarter of a minute, s. */
const STEP = 15;

/** Both schools: with each feed shut as the next one opens, or left open. */
export const closePrevious = (close: boolean, seed: string = newId()): Edit =>
  onLayout(({ lines }) => {
    const nextId = idsFrom(seed);
    const feeds = lines.filter((line) => line.kind === 'feed');
    const isSchool = ({ opening, when }: JobAction) => opening === 0 && when.kind === 'opened';
    return {
      lines: lines.map((line) => {
        if (line.kind !== 'feed') return line;
        const next = feeds[feeds.indexOf(line) + 1];
        const others = line.actions.filter((action) => !isSchool(action));
        if (!close || !next) return { ...line, actions: others };
        const when: JobTrigger = { kind: 'opened', what: next.id, delay: 0 };
        return { ...line, actions: [...others, { id: nextId(), opening: 0, when }] };
      }),
    };
  });

/** Later or sooner by so many seconds: a typed time moves, anything else gets a longer or shorter delay. */
export const shiftTurn = ({ lineId, actionId }: Turn, by: number): Edit =>
  onActions(lineId, (actions) =>
    actions.map((action) =>
      action.id === actionId ? { ...action, when: shifted(action.when, by) } : action,
    ),
  );

function shifted(when: JobTrigger, by: number): JobTrigger {
  const round = (time: number) => Math.max(0, Math.round(time / STEP) * STEP);
  return when.kind === 'time'
    ? { ...when, time: round(when.time + by) }
    : { ...when, delay: round(when.delay + by) };
}
