import type { Entry, EntryBody, NewEntry, NewRun, Run } from '@wick/contract/run/run';
import { serverKinds } from '@wick/contract/run/card-bodies';
import { runTime } from '@wick/plan/run/clock';
import type { RunRepo } from '../../repo/run-repo.ts';
import { ProblemError } from '../problem.ts';
import type { Hub, Position, StreamEvent } from './hub.ts';

export type RunService = ReturnType<typeof createRunService>;

/** Entries that a screen is told again at most when it comes back. */
const MOST_TOLD = 1000;
/** An entry may lie so far ahead of the run's clock, ms. */
const MOST_AHEAD = 3_600_000;

/** Runs of jobs, and what is said in them. */
export function createRunService(
  repo: RunRepo,
  jobs: { readonly has: (id: string) => Promise<boolean> },
  hub: Hub,
) {
  const listeners = new Set<(run: Run, added: readonly Entry[]) => void>();
  let before: Promise<unknown> = Promise.resolve();

  /** @throws ProblemError NOT_FOUND */
  async function find(id: string): Promise<Run> {
    const run = await repo.find(id);
    if (!run) throw new ProblemError('NOT_FOUND', 'This run is not here. Go back to its job.');
    return run;
  }

  /** One writing at a time, so that every screen is told in the order in which entries stand. */
  function inTurn<T>(work: () => Promise<T>): Promise<T> {
    const own = before.then(work);
    before = own.catch(() => undefined);
    return own;
  }

  function append(run: Run, device: string, sent: readonly NewEntry[]): Promise<Entry[]> {
    return inTurn(async () => {
      const { kept, added } = await repo.append(run.id, device, sent);
      for (const entry of added) hub.tell({ event: { kind: 'entry', data: entry }, order: entry.order });
      if (added.length > 0) for (const listener of listeners) listener(run, added);
      return kept;
    });
  }

  return {
    find,
    listOf: (jobId: string): Promise<Run[]> => repo.listOf(jobId),

    /** @throws ProblemError NOT_FOUND, IN_USE where the id is that of another job’s */
    async add(jobId: string, asked: NewRun): Promise<Run> {
      if (!(await jobs.has(jobId)))
        throw new ProblemError('NOT_FOUND', 'This job is not in the list. It may have been deleted.');
      const added = await inTurn(() => repo.add(jobId, asked));
      const run = added ?? (await find(asked.id));
      if (run.jobId !== jobId)
        throw new ProblemError('IN_USE', 'This id is that of another job’s run. Choose one of its own.');
      if (added) hub.tell({ event: { kind: 'run', data: run }, order: 0 });
      return run;
    },

    async entriesOf(id: string): Promise<Entry[]> {
      await find(id);
      return repo.entriesOf(id);
    },

    /** Those known by their id are answered as they are kept. @throws ProblemError NOT_FOUND, BAD_REQUEST */
    async append(id: string, device: string, sent: readonly NewEntry[]): Promise<Entry[]> {
      const run = await find(id);
      const limit = Date.now() + MOST_AHEAD;
      const ahead = run.kind === 'part' && sent.find(({ at }) => Date.parse(at) > limit);
      if (ahead)
        throw new ProblemError(
          'BAD_REQUEST',
          `The time ${ahead.at} lies ahead. Check the clock of this screen; nothing was written down.`,
        );
      const said = sent.find(({ body }) => serverKinds.includes(body.kind));
      if (said)
        throw new ProblemError(
          'BAD_REQUEST',
          `Entries of the kind “${said.body.kind}” are given by the server alone.`,
        );
      return append(run, device, sent);
    },

    /** What the server itself says. */
    say: (run: Run, at: number, body: EntryBody, id: string): Promise<Entry[]> =>
      append(run, 'server', [{ id, at: new Date(at).toISOString(), by: '', body }]),

    async end(id: string): Promise<void> {
      const ended = await inTurn(() => repo.end(id));
      if (ended) hub.tell({ event: { kind: 'run', data: ended }, order: 0 });
    },

    openRehearsals: (): Promise<Run[]> => repo.openRehearsals(),
    openWith: (...kinds: readonly string[]): Promise<Run[]> => repo.openWith(...kinds),
    /** By the clock of the run, ms since 1970. */
    now: (run: Run): number => runTime(run, Date.now()),

    /** @returns by which it is ended */
    onEntries(listener: (run: Run, added: readonly Entry[]) => void): () => void {
      listeners.add(listener);
      return () => void listeners.delete(listener);
    },

    lastOrder: () => repo.lastOrder(),

    /** What came in after a position; null where it is more than is told again. */
    async since({ entry }: Position): Promise<StreamEvent[] | null> {
      const missed = await repo.entriesAfter(entry, MOST_TOLD + 1);
      return missed.length > MOST_TOLD ? null : missed.map((data) => ({ kind: 'entry', data }));
    },
  };
}
