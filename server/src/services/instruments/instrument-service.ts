import { createHash, randomBytes, timingSafeEqual } from 'node:crypto';
import type {
  Instrument,
  NewInstrument,
  Reading,
  ReadingWindow,
  Samples,
  Taken,
} from '@wick/contract/run/instrument';
import { faultOfValue, readReadingLines } from '@wick/plan/run/reading-lines';
import type { InstrumentRepo, StoredInstrument } from '../../repo/instrument-repo.ts';
import { ProblemError } from '../problem.ts';
import { createPace } from './pace.ts';
import { Overrun, type ReadingService } from './reading-service.ts';

export type InstrumentService = ReturnType<typeof createInstrumentService>;

/** Requests of one device: plenty for batches, and too few to keep the server from its work. */
const PACE = { perSecond: 20, atOnce: 60 };
/** A clock that has moved by less is as it was, s. */
const SAME_CLOCK = 1;
/** A typed reading may lie so far ahead, ms. */
const AHEAD = 60_000;

const hashOf = (word: string) => createHash('sha256').update(word).digest('hex');
const isSame = (a: string, b: string) =>
  a.length === b.length && timingSafeEqual(Buffer.from(a), Buffer.from(b));
const newWord = (id: string) => {
  const secret = randomBytes(32).toString('base64url');
  return { word: `${id}.${secret}`, wordHash: hashOf(secret) };
};

/** Instruments, and what they send. */
export function createInstrumentService(
  repo: InstrumentRepo,
  readings: ReadingService,
  clock: { readonly now: () => number; readonly steady: () => number } = {
    now: Date.now,
    steady: () => performance.now(),
  },
) {
  const known = new Map<string, StoredInstrument>();
  /** Rises when a word changes: what was read from the database before that is not believed. */
  let generation = 0;
  const isInPace = createPace(PACE, clock.steady);
  const keep = (instrument: StoredInstrument) => (known.set(instrument.id, instrument), instrument);

  async function lookUp(id: string): Promise<StoredInstrument | null> {
    const found = known.get(id);
    if (found) return found;
    const asked = generation;
    const instrument = await repo.find(id);
    if (instrument && asked === generation) keep(instrument);
    return instrument;
  }

  /** @throws ProblemError NOT_FOUND */
  async function find(id: string): Promise<StoredInstrument> {
    const instrument = await lookUp(id);
    if (!instrument) throw new ProblemError('NOT_FOUND', 'This instrument is not in the list.');
    return instrument;
  }

  function shown(instrument: StoredInstrument): Instrument {
    const { id, name, measures, unit, resolution, noise, kind, runId, clockOffset } = instrument;
    const last = readings.lastOf(id);
    return {
      ...{ id, name, measures, unit, resolution, noise, kind, runId, clockOffset },
      addedAt: instrument.addedAt.toISOString(),
      revokedAt: instrument.revokedAt?.toISOString() ?? null,
      last: last && { at: new Date(last.at).toISOString(), value: last.value },
    };
  }

  /** Which instrument a word is of. @throws ProblemError BAD_WORD */
  async function bearerOf(word: string): Promise<StoredInstrument> {
    const [id = '', secret = ''] = word.split('.');
    const instrument = /^[A-Za-z0-9_-]{1,40}$/.test(id) ? await lookUp(id) : null;
    if (instrument?.wordHash && isSame(hashOf(secret), instrument.wordHash)) return instrument;
    throw new ProblemError(
      'BAD_WORD',
      'No instrument here has this word, or it is no longer good. Give the device a new one under Vacuum, Gauges.',
    );
  }

  async function append(instrument: StoredInstrument, sent: readonly Reading[]): Promise<number> {
    try {
      return await readings.append(instrument, sent);
    } catch (error) {
      if (!(error instanceof Overrun)) throw error;
      throw new ProblemError(
        'TOO_OFTEN',
        'More readings wait to be written than can be taken. Keep yours and send them again in a few seconds.',
      );
    }
  }

  return {
    find,
    list: async (): Promise<Instrument[]> => (await repo.list()).map(shown),

    /** What there was read before this server started. */
    remember: async () => readings.remember(await repo.list()),
    /** Another database may lie under it now. */
    forget(): void {
      generation += 1;
      known.clear();
    },

    /** @returns the word of a device, shown this once. @throws ProblemError IN_USE */
    async add(instrument: NewInstrument): Promise<{ instrument: Instrument; word: string | null }> {
      const made = instrument.kind === 'device' ? newWord(instrument.id) : { word: null, wordHash: null };
      const added = await repo.add({ ...instrument, wordHash: made.wordHash });
      if (!added)
        throw new ProblemError(
          'IN_USE',
          `“${instrument.id}” is the id of another instrument. Choose one of its own.`,
        );
      return { instrument: shown(keep(added)), word: made.word };
    },

    /** A simulated one of a rehearsal. */
    async addSimulated(
      instrument: Omit<NewInstrument, 'kind'> & { runId: string },
    ): Promise<StoredInstrument> {
      const added = await repo.add({ ...instrument, kind: 'simulated', wordHash: null });
      return added ? keep(added) : find(instrument.id);
    },

    async renewWord(id: string): Promise<{ instrument: Instrument; word: string | null }> {
      const made = newWord(id);
      const changed = await repo.changeWord(id, made.wordHash);
      if (!changed) throw new ProblemError('NOT_FOUND', 'No device of that id is in the list.');
      generation += 1;
      return { instrument: shown(keep(changed)), word: made.word };
    },

    async revoke(id: string): Promise<void> {
      const isRevoked = await repo.revoke(id);
      generation += 1;
      known.delete(id);
      if (!isRevoked) throw new ProblemError('NOT_FOUND', 'This instrument was already put away.');
    },

    /** What a device posts. @throws ProblemError BAD_WORD, TOO_OFTEN, BAD_READING where no line can be taken */
    async post(word: string, text: string): Promise<Taken> {
      const instrument = await bearerOf(word);
      if (!isInPace(instrument.id))
        throw new ProblemError(
          'TOO_OFTEN',
          `This device asks more than ${PACE.perSecond} times a second. Send its readings in batches, all of a second or more in one.`,
        );
      const read = readReadingLines(text, instrument, clock.now());
      const [firstFault] = read.refused;
      if (read.readings.length === 0 && firstFault)
        throw new ProblemError('BAD_READING', `Nothing was kept. Line ${firstFault.line}: ${firstFault.why}`);
      const kept = await append(instrument, read.readings);
      const { clockOffset } = read;
      if (
        clockOffset !== null &&
        !(Math.abs(clockOffset - (instrument.clockOffset ?? Infinity)) < SAME_CLOCK)
      ) {
        const asked = generation;
        await repo.keepClock(instrument.number, clockOffset);
        if (asked === generation) keep({ ...instrument, clockOffset });
      }
      return { kept, known: read.readings.length - kept, refused: read.refused, clockOffset };
    },

    /** Read by eye and typed; the same id again is known. @throws ProblemError BAD_READING, NOT_FOUND */
    async type(id: string, { at, ...reading }: { id: string; at: string; value: number }): Promise<Taken> {
      const instrument = await find(id);
      const when = Date.parse(at);
      const fault =
        faultOfValue(reading.value, instrument.measures) ??
        (instrument.kind === 'hand'
          ? null
          : `${instrument.name} is read by a device: add one that is read by eye.`) ??
        (when > clock.now() + AHEAD ? 'The time lies ahead. Check the clock of this screen.' : null);
      if (fault) throw new ProblemError('BAD_READING', fault);
      const kept = await append(instrument, [{ ...reading, at: when }]);
      return { kept, known: 1 - kept, refused: [], clockOffset: null };
    },

    async window(id: string, from: number, to: number, places: number): Promise<ReadingWindow> {
      return readings.window((await find(id)).number, from, to, places);
    },
    async samples(id: string, from: number, to: number, most: number): Promise<Samples> {
      return readings.samples((await find(id)).number, from, to, most);
    },
  };
}
