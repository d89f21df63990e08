import type { Reading, ReadingWindow, Samples } from '@wick/contract/run/instrument';
import type { StoredInstrument } from '../../repo/instrument-repo.ts';
import type { NumberedReading, ReadingRepo } from '../../repo/reading-repo.ts';
import type { Hub, Position, StreamEvent } from '../run/hub.ts';

export type ReadingService = ReturnType<typeof createReadingService>;

/** Readings that are written at once at most. */
const MOST_AT_ONCE = 20_000;
/** Readings that wait at most: a server that cannot write takes no more. */
const MOST_WAITING = 200_000;

/** Readings that a screen is told again at most when it comes back. */
const MOST_TOLD = 4000;

/** Readings that are read at once where all are wanted. */
const PAGE = 5000;

interface Waiting {
  readonly readings: readonly NumberedReading[];
  readonly resolve: (kept: number) => void;
  readonly reject: (error: unknown) => void;
}

export class Overrun extends Error {}

/** Takes readings in, one writing at a time: what comes meanwhile is written together. */
export function createReadingService(repo: ReadingRepo, hub: Hub) {
  const ids = new Map<number, string>();
  const last = new Map<string, { at: number; value: number }>();
  const waiting: Waiting[] = [];
  let waitingCount = 0;
  let isWriting = false;

  async function write(): Promise<void> {
    if (isWriting) return;
    isWriting = true;
    while (waiting.length > 0) {
      const taken: Waiting[] = [];
      let count = 0;
      while (waiting.length > 0 && (count === 0 || count + waiting[0]!.readings.length <= MOST_AT_ONCE)) {
        const next = waiting.shift()!;
        taken.push(next);
        count += next.readings.length;
      }
      waitingCount -= count;
      await writeTogether(taken);
    }
    isWriting = false;
  }

  /** Each is told how many of its own were new. */
  async function writeTogether(taken: readonly Waiting[]): Promise<void> {
    try {
      const kept = await repo.append(taken.flatMap(({ readings }) => readings));
      const unclaimed = new Map(kept.map((one) => [`${one.instrument} ${one.id}`, one]));
      for (const { readings, resolve } of taken) {
        let own = 0;
        for (const { instrument, id } of readings) if (unclaimed.delete(`${instrument} ${id}`)) own += 1;
        resolve(own);
      }
      tell(kept);
    } catch (error) {
      for (const { reject } of taken) reject(error);
    }
  }

  function tell(kept: Awaited<ReturnType<ReadingRepo['append']>>): void {
    const byInstrument = new Map<number, typeof kept>();
    for (const one of kept)
      byInstrument.set(one.instrument, [...(byInstrument.get(one.instrument) ?? []), one]);
    for (const [number, own] of byInstrument) {
      const instrumentId = ids.get(number)!;
      for (const { at, value } of own)
        if (at >= (last.get(instrumentId)?.at ?? 0)) last.set(instrumentId, { at, value });
      const order = own.at(-1)!.order;
      hub.tell({
        event: { kind: 'readings', data: { instrumentId, points: own.map(({ at, value }) => [at, value]) } },
        order,
      });
    }
  }

  return {
    /** @returns how many were not known yet, once they are on the disk. @throws Overrun */
    append(
      { number, id }: Pick<StoredInstrument, 'number' | 'id'>,
      readings: readonly Reading[],
    ): Promise<number> {
      if (readings.length === 0) return Promise.resolve(0);
      if (waitingCount + readings.length > MOST_WAITING) return Promise.reject(new Overrun());
      ids.set(number, id);
      waitingCount += readings.length;
      return new Promise((resolve, reject) => {
        waiting.push({ readings: readings.map((one) => ({ ...one, instrument: number })), resolve, reject });
        void write();
      });
    },

    /** Read last since the start of this server. */
    lastOf: (instrumentId: string) => last.get(instrumentId) ?? null,
    last: last as ReadonlyMap<string, { at: number; value: number }>,

    /** Takes up what was read before. */
    async remember(instruments: readonly StoredInstrument[]): Promise<void> {
      const latest = await repo.latest();
      for (const { number, id } of instruments) {
        ids.set(number, id);
        const known = latest.get(number);
        if (known) last.set(id, known);
      }
    },

    lastOrder: () => repo.lastOrder(),

    /** What was read after a position, by instrument; null where it is more than is told again. */
    async since({ reading }: Position): Promise<{ events: StreamEvent[]; order: number } | null> {
      const missed = await repo.after(reading, MOST_TOLD + 1);
      if (missed.length > MOST_TOLD) return null;
      const points = new Map<string, [number, number][]>();
      for (const { instrumentId, at, value } of missed)
        points.set(instrumentId, [...(points.get(instrumentId) ?? []), [at, value]]);
      return {
        events: [...points].map(([instrumentId, own]) => ({
          kind: 'readings',
          data: { instrumentId, points: own },
        })),
        order: missed.at(-1)?.order ?? reading,
      };
    },

    /** All there are, in the order they came in. */
    async *pages() {
      for (let order = 0; ;) {
        const page = await repo.after(order, PAGE);
        if (page.length > 0) yield page;
        if (page.length < PAGE) return;
        order = page.at(-1)!.order;
      }
    },

    window: (number: number, from: number, to: number, places: number): Promise<ReadingWindow> =>
      repo.window(number, from, to, places),
    samples: (number: number, from: number, to: number, most: number): Promise<Samples> =>
      repo.samples(number, from, to, most),
  };
}
