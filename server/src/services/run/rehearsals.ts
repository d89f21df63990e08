import type { Entry, Run } from '@wick/contract/run/run';
import type { Job } from '@wick/contract/job/job';
import type { Mould } from '@wick/contract/mould';
import type { Shop } from '@wick/contract/shop';
import { laidOut } from '@wick/plan/job/laid';
import { REHEARSAL_LAG, runTime } from '@wick/plan/run/clock';
import { leakPlacesOf } from '@wick/plan/vacuum/places';
import { createRehearsal, spacingAt } from '@wick/plan/run/rehearsal';
import { simulatedInstruments } from '@wick/plan/run/simulated';
import type { StoredInstrument } from '../../repo/instrument-repo.ts';
import type { InstrumentService } from '../instruments/instrument-service.ts';
import type { ReadingService } from '../instruments/reading-service.ts';
import type { RunService } from './run-service.ts';

export type Rehearsals = ReturnType<typeof createRehearsals>;

/** How often simulated instruments are read, ms. */
const EVERY = 250;
/** A rehearsal in which nobody says anything any more ends by itself, after so many readings of each instrument. */
const LEFT_ALONE = 5000;
/** ms on the wall, by the readings that come in it. */
const leftAlone = ({ speed }: Run) => (LEFT_ALONE * 1000 * spacingAt(speed)) / speed;
/** What was written so lately is what wakes it, ms. */
const JUST_NOW = 5000;

/** Going on at once at most: the one left alone longest ends. */
const MOST_GOING = 4;

interface Going {
  readonly run: Run;
  readonly world: ReturnType<typeof createRehearsal>;
  readonly instruments: ReadonlyMap<string, StoredInstrument>;
  readonly entries: Entry[];
  touchedAt: number;
}

/** Rehearsals that are going on: each a bag in this process, whose instruments post as real ones do. */
export function createRehearsals(parts: {
  readonly runs: Pick<RunService, 'entriesOf' | 'onEntries' | 'say' | 'end' | 'openRehearsals'>;
  readonly instruments: Pick<InstrumentService, 'addSimulated'>;
  readonly readings: Pick<ReadingService, 'append'>;
  /** What a run is made by. */
  readonly about: (runId: string) => Promise<{ job: Job; shop: Shop; mould: Mould | null }>;
  readonly onFault: (error: unknown) => void;
  readonly now?: () => number;
}) {
  const { runs, instruments, readings, about, onFault, now = Date.now } = parts;
  const going = new Map<string, Going>();
  const starting = new Map<string, Promise<void>>();
  let timer: ReturnType<typeof setInterval> | undefined;
  let isPassing = false;

  /** Begun anew from its log after a restart: readings that are known by their id stay as they are. */
  async function begin(run: Run): Promise<void> {
    const written = (await runs.entriesOf(run.id)).map(({ writtenAt }) => Date.parse(writtenAt));
    const last = Math.max(Date.parse(run.startedAt), ...written.filter((at) => now() - at > JUST_NOW));
    if (now() - last > leftAlone(run)) return end(run);
    const { job, shop, mould } = await about(run.id);
    const laid = laidOut(job);
    const world = createRehearsal(laid, shop, run, leakPlacesOf(laid, shop, mould));
    const own = new Map<string, StoredInstrument>();
    for (const { place, ...instrument } of simulatedInstruments(run)) {
      own.set(instrument.id, await instruments.addSimulated({ ...instrument, runId: run.id }));
      if (place)
        await runs.say(
          run,
          Date.parse(run.startedAt),
          { kind: 'attach', instrumentId: instrument.id, place },
          `hangs-${instrument.id.slice(run.id.length + 1)}`,
        );
    }
    const one: Going = { ...{ run, world, entries: [] }, instruments: own, touchedAt: now() };
    going.set(run.id, one);
    one.entries.push(...(await runs.entriesOf(run.id)));
    const startOf = ({ run: own }: Going) => Date.parse(own.startedAt);
    const latestFirst = [...going.values()].sort(
      (a, b) => b.touchedAt - a.touchedAt || startOf(b) - startOf(a),
    );
    for (const old of latestFirst.slice(MOST_GOING)) await end(old.run);
  }

  /** Nobody is called for it any more either. */
  async function end(run: Run): Promise<void> {
    going.delete(run.id);
    await runs.say(run, runTime(run, now()), { kind: 'watchEnds' }, 'ended');
    await runs.end(run.id);
  }

  function start(run: Run): Promise<void> {
    if (going.has(run.id) || run.endedAt !== null) return Promise.resolve();
    const own = starting.get(run.id) ?? begin(run).finally(() => starting.delete(run.id));
    starting.set(run.id, own);
    return own;
  }

  const stopListening = runs.onEntries((run, added) => {
    const known = going.get(run.id);
    if (known) {
      known.touchedAt = now();
      known.entries.push(...added);
    } else if (run.kind === 'rehearsal' && added.some(({ device }) => device !== 'server'))
      start(run).catch(onFault);
  });

  async function passOne({ run, world, entries, instruments: own }: Going): Promise<void> {
    const shown = world.pass(runTime(run, now() - REHEARSAL_LAG), entries);
    // All at once: what comes while the first is written is written together.
    await Promise.all(
      [...own].map(([instrumentId, instrument]) =>
        readings.append(
          instrument,
          shown.filter((reading) => reading.instrumentId === instrumentId),
        ),
      ),
    );
  }

  /** Takes every rehearsal to now. */
  async function pass(): Promise<void> {
    if (isPassing) return;
    isPassing = true;
    try {
      for (const [id, one] of [...going])
        await (now() - one.touchedAt > leftAlone(one.run) ? end(one.run) : passOne(one)).catch(
          (error: unknown) => {
            // Its job may be gone, and with it the run.
            going.delete(id);
            onFault(error);
          },
        );
    } finally {
      isPassing = false;
    }
  }

  return {
    start,
    pass,
    /** Takes up those that were going on before this server started. */
    async run(): Promise<void> {
      going.clear();
      for (const run of await runs.openRehearsals()) await start(run).catch(onFault);
      clearInterval(timer);
      timer = setInterval(() => void pass().catch(onFault), EVERY);
      timer.unref();
    },
    stop(): void {
      clearInterval(timer);
      going.clear();
      stopListening();
    },
  };
}
