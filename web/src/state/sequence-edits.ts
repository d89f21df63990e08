import type { Job, JobAction, JobTrigger } from '@wick/contract/job';
import { updateLine, type Edit } from './job-edits.ts';

/** One action of one line, as a row of the sequence. */
export interface Turn {
  readonly lineId: string;
  readonly action: number;
}

const actionOf = (job: Job, { lineId, action }: Turn): JobAction =>
  job.lines.find(({ id }) => id === lineId)!.actions[action]!;

/**
 * A line takes another turn: what each turn waits for stays where it is in the order, and who acts then moves.
 * @param turns rows in the order in which they are shown
 */
export const moveTurn =
  (turns: readonly Turn[], from: number, to: number): Edit =>
  (job) => {
    if (from === to || !turns[from] || !turns[to]) return job;
    const actions = turns.map((turn) => actionOf(job, turn));
    const who = turns.map(({ lineId }, i) => ({ lineId, opening: actions[i]!.opening }));
    const [moved] = who.splice(from, 1);
    who.splice(to, 0, moved!);
    const shown = new Set(turns.map(({ lineId, action }) => `${lineId} ${action}`));
    return {
      ...job,
      lines: job.lines.map((line) => {
        const others = line.actions.filter((_, i) => !shown.has(`${line.id} ${i}`));
        const own = who.flatMap(({ lineId, opening }, i): JobAction[] =>
          lineId === line.id
            ? [{ opening, when: notItself(actions[i]!.when, line.id, turns[i]!.lineId) }]
            : [],
        );
        return { ...line, actions: [...others, ...own] };
      }),
    };
  };

/** A line cannot wait for its own opening: it then waits for that of the line whose turn it took. */
const notItself = (when: JobTrigger, lineId: string, before: string): JobTrigger =>
  when.kind === 'opened' && when.what === lineId ? { ...when, what: before } : when;

/** Later or sooner by so many seconds: a typed time moves, anything else gets a longer or shorter delay. */
export const shiftTurn =
  (turn: Turn, by: number): Edit =>
  (job) => {
    const action = actionOf(job, turn);
    const { when } = action;
    const round = (time: number) => Math.max(0, Math.round(time / 15) * 15);
    const moved: JobTrigger =
      when.kind === 'time'
        ? { ...when, time: round(when.time + by) }
        : { ...when, delay: round(when.delay + by) };
    const line = job.lines.find(({ id }) => id === turn.lineId)!;
    return updateLine(turn.lineId, {
      actions: line.actions.map((old, i) => (i === turn.action ? { ...action, when: moved } : old)),
    })(job);
  };
