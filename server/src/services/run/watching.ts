import { randomUUID } from 'node:crypto';
import type { Entry, Run } from '@wick/contract/run/run';
import { REHEARSAL_LAG, runTime } from '@wick/plan/run/clock';
import { runStateOf, type RunState } from '@wick/plan/run/state';
import { alarmsDue, type Last } from '@wick/plan/run/watch';
import type { StoredInstrument } from '../../repo/instrument-repo.ts';
import type { RunService } from './run-service.ts';

export type Watching = ReturnType<typeof createWatching>;

/** How often it is looked whether a gauge has fallen silent, ms. */
const LOOK_EVERY = 1000;

interface Watched {
  readonly run: Run;
  entries: Entry[];
  state: RunState;
}

/** Looks after every run that has a watch, on its readings as they come and on those that do not. */
export function createWatching(parts: {
  readonly runs: Pick<RunService, 'openWith' | 'entriesOf' | 'onEntries' | 'say'>;
  readonly instrumentOf: (id: string) => Promise<Pick<StoredInstrument, 'measures' | 'resolution'>>;
  readonly lastOf: (instrumentId: string) => Last | null;
  readonly ambient: () => Promise<number>;
  readonly onFault: (error: unknown) => void;
  readonly now?: () => number;
}) {
  const { runs, instrumentOf, lastOf, ambient, onFault, now = Date.now } = parts;
  const watched = new Map<string, Watched>();
  let timer: ReturnType<typeof setInterval> | undefined;
  let isLooking = false;

  async function take(run: Run): Promise<void> {
    const entries = await runs.entriesOf(run.id);
    const state = runStateOf(entries);
    if (state.watch) watched.set(run.id, { run, entries, state });
    else watched.delete(run.id);
  }

  const stop = runs.onEntries((run, added) => {
    const known = watched.get(run.id);
    if (known) {
      known.entries = [...known.entries, ...added];
      known.state = runStateOf(known.entries);
      if (!known.state.watch) watched.delete(run.id);
    } else if (added.some(({ body }) => body.kind === 'watch')) take(run).catch(onFault);
  });

  /** @returns how many alarms it gave */
  async function look(): Promise<number> {
    if (isLooking) return 0;
    isLooking = true;
    let given = 0;
    try {
      for (const { run, state } of [...watched.values()]) {
        const ids = [...state.attached.keys()];
        const instruments = new Map<string, Pick<StoredInstrument, 'measures' | 'resolution'>>();
        for (const id of ids) instruments.set(id, await instrumentOf(id));
        const last = new Map(ids.flatMap((id) => (lastOf(id) ? [[id, lastOf(id)!] as const] : [])));
        const at = runTime(run, now() - (run.kind === 'rehearsal' ? REHEARSAL_LAG : 0));
        const due = alarmsDue(state, {
          now: at,
          speed: run.speed,
          ambientPressure: await ambient(),
          instruments,
          last,
        });
        for (const alarm of due) {
          await runs.say(run, at, alarm, randomUUID());
          given += 1;
        }
      }
    } finally {
      isLooking = false;
    }
    return given;
  }

  return {
    look,
    /** Runs that are watched now, with all that was said in them. */
    list: (): { run: Run; entries: Entry[] }[] =>
      [...watched.values()].map(({ run, entries }) => ({ run, entries: [...entries] })),
    /** Takes up the watches that were kept before this server started. */
    async start(): Promise<void> {
      watched.clear();
      for (const run of await runs.openWith('watch')) await take(run);
      clearInterval(timer);
      timer = setInterval(() => void look().catch(onFault), LOOK_EVERY);
      timer.unref();
    },
    stop(): void {
      clearInterval(timer);
      stop();
    },
  };
}
