import { randomUUID } from 'node:crypto';
import type { Entry, EntryBody, Run } from '@wick/contract/run/run';
import { REHEARSAL_LAG, runTime } from '@wick/plan/run/clock';
import { duesOf, isTimed, timersOf } from '@wick/plan/card/timers';
import { warmthToTell } from '@wick/plan/card/warmth';
import { isCuring } from '@wick/plan/infusion/infusion';
import { runStateOf, type RunState } from '@wick/plan/run/state';
import { alarmsDue, type Last } from '@wick/plan/run/watch';
import type { StoredInstrument } from '../../repo/instrument-repo.ts';
import type { RunService } from './run-service.ts';

export type Watching = ReturnType<typeof createWatching>;

/** How often it is looked whether a gauge has fallen silent, ms. */
const LOOK_EVERY = 1000;
/** After so long without a look this machine slept or was busy, and so were those that post to it, ms. */
const ASLEEP = 5000;

const isLookedAfter = (run: Run, state: RunState, wall: number): boolean =>
  state.watch !== null ||
  isTimed(state.entries, runTime(run, wall)) ||
  isCuring(state.entries, runTime(run, wall));

/** A clock is called once, whatever becomes of this server meanwhile. */
const idOf = (body: EntryBody): string =>
  body.kind === 'due' ? `due-${body.what}-${body.timerId}`.slice(0, 40) : randomUUID();

interface Watched {
  readonly run: Run;
  entries: Entry[];
  state: RunState;
}

/** Entries after which a run is looked after. */
const BEGINS = ['watch', 'timer', 'mixed', 'contact'] as const;
const begins = ({ body }: Entry): boolean => (BEGINS as readonly string[]).includes(body.kind);

/** Looks after every run that has a watch or a clock, or resin that cures: on its readings as they come and on those that do not, and on what is due. */
export function createWatching(parts: {
  readonly runs: Pick<RunService, 'openWith' | 'entriesOf' | 'onEntries' | 'say'>;
  readonly instrumentOf: (id: string) => Promise<Pick<StoredInstrument, 'measures' | 'resolution'>>;
  readonly lastOf: (instrumentId: string) => Last | null;
  /** Of the workshop: pressure, Pa, and how warm it usually is, K. */
  readonly surroundings: () => Promise<{ ambientPressure: number; temperature: number }>;
  readonly onFault: (error: unknown) => void;
  readonly now?: () => number;
}) {
  const { runs, instrumentOf, lastOf, surroundings, onFault, now = Date.now } = parts;
  const watched = new Map<string, Watched>();
  let timer: ReturnType<typeof setInterval> | undefined;
  let isLooking = false;
  let lookedAt: number | null = null;
  let awakeSince: number | null = null;

  async function take(run: Run): Promise<void> {
    const entries = await runs.entriesOf(run.id);
    const state = runStateOf(entries);
    if (isLookedAfter(run, state, now())) watched.set(run.id, { run, entries, state });
    else watched.delete(run.id);
  }

  const stop = runs.onEntries((run, added) => {
    const known = watched.get(run.id);
    if (known) {
      known.entries = [...known.entries, ...added];
      known.state = runStateOf(known.entries);
      if (!isLookedAfter(run, known.state, now())) watched.delete(run.id);
    } else if (added.some(begins)) take(run).catch(onFault);
  });

  /** What there is to say of a run now, and by its clock when. */
  async function bodiesDue(
    { run, state }: Watched,
    { ambientPressure, temperature }: Awaited<ReturnType<typeof surroundings>>,
  ): Promise<{ at: number; bodies: EntryBody[] }> {
    const ids = [...state.attached.keys()];
    const instruments = new Map<string, Pick<StoredInstrument, 'measures' | 'resolution'>>();
    for (const id of ids) instruments.set(id, await instrumentOf(id));
    const last = new Map(ids.flatMap((id) => (lastOf(id) ? [[id, lastOf(id)!] as const] : [])));
    const at = runTime(run, now() - (run.kind === 'rehearsal' ? REHEARSAL_LAG : 0));
    const timers = timersOf(state.entries, at, temperature);
    const slides = timers.some((one) => one.slides) || isCuring(state.entries, at);
    const warmth = slides ? warmthToTell(state, instruments, last) : null;
    const alarms = alarmsDue(state, {
      ...{ now: at, speed: run.speed, ambientPressure, instruments, last },
      ...(awakeSince === null ? {} : { awakeSince: runTime(run, awakeSince) }),
    });
    return { at, bodies: [...alarms, ...duesOf(timers), ...(warmth ? [warmth] : [])] };
  }

  /** @returns how many entries it wrote: alarms, what is due, and how warm it is */
  async function look(): Promise<number> {
    if (isLooking) return 0;
    if (lookedAt !== null && now() - lookedAt > ASLEEP) awakeSince = now();
    lookedAt = now();
    if (watched.size === 0) return 0;
    isLooking = true;
    let given = 0;
    try {
      const around = await surroundings();
      for (const one of [...watched.values()]) {
        if (!isLookedAfter(one.run, one.state, now())) {
          watched.delete(one.run.id);
          continue;
        }
        const { at, bodies } = await bodiesDue(one, around);
        for (const body of bodies) await runs.say(one.run, at, body, idOf(body));
        given += bodies.length;
      }
    } finally {
      isLooking = false;
    }
    return given;
  }

  return {
    look,
    /** Runs that are looked after now, with all that was said in them. */
    list: (): { run: Run; entries: Entry[] }[] =>
      [...watched.values()].map(({ run, entries }) => ({ run, entries: [...entries] })),
    /** Takes up the watches that were kept before this server started. */
    async start(): Promise<void> {
      watched.clear();
      for (const run of await runs.openWith(...BEGINS)) await take(run);
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
