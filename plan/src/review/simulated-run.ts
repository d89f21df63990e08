import type { Entry, EntryBody } from '@wick/contract/run/run';
import type { Shop } from '@wick/contract/shop';
import type { Fineness } from '@wick/core/flow/problem';
import { createRandom, normalOf, type Random } from '@wick/core/random';
import { mostThroughput } from '@wick/core/vacuum/drop-test';
import { clockOf } from '@wick/core/verdict/verdict';
import type { LaidJob } from '../job/laid.ts';
import { materialOf } from '../job/material-of.ts';
import { infusionOf } from '../infusion/infusion.ts';
import { driveShareOf, WEAK_DRIVE, type BagReading } from '../infusion/live-clock.ts';
import { rehearse, type Rehearsed } from '../infusion/operator.ts';
import type { SolvedShape } from '../infusion/problem-shapes.ts';
import { runConditionsOf } from '../resin/run.ts';
import { airBudgetOf } from '../vacuum/air.ts';
import { racingSides } from '../forecast/draw.ts';
import { raceAlongSide, type DrawnFault } from '../infusion/truth.ts';
import { asSaid } from './as-said.ts';
import { foundOn, type AfterFault } from './found.ts';
import type { CauseId } from './causes/table.ts';

export interface SimulatedRun {
  /** What was made to happen did: a pot that was dry only on paper is no dry pot. */
  readonly hasHappened: boolean;
  readonly entries: readonly Entry[];
  readonly readings: readonly BagReading[];
  readonly faults: readonly (DrawnFault | AfterFault)[];
}

/** A job as one workshop makes it again and again: what nobody knows beforehand is the same each time, and little differs from part to part. */
export const oneShops = (job: LaidJob): LaidJob => ({
  ...job,
  doubt: {
    ...job.doubt,
    ...{ permeability: 1.16, viscosity: 1.04, gelTime: 1.05, temperature: 0.7, thickness: 1.03 },
  },
});

/** Causes that can be made to happen to a part: a layout that shuts air in is a layout's. */
export type MadeCause = Exclude<CauseId, 'shutIn'>;

/** What is made to happen, by the seed: how much of it, where and when. @param endShare of the time to gel, at which the plan is full */
function faultsOf(
  cause: MadeCause,
  job: LaidJob,
  endShare: number,
  seed: number,
): (DrawnFault | AfterFault)[] {
  const random = createRandom(seed ^ 0x7ed55d16);
  const between = (low: number, high: number) => low + (high - low) * random();
  const side = () => Math.floor(random() * racingSides(job).length);
  switch (cause) {
    case 'leak':
      return [{ kind: 'leak', at: between(0, 0.5), amount: between(5, 20) }];
    case 'race':
      return raceAlongSide(job, side(), between(1.2, 2.2));
    case 'dryBucket':
      return [{ kind: 'dryBucket', share: between(0.5, 0.8) }];
    case 'gelFirst':
      return [
        { kind: 'gelsEarly', share: between(0.5, 0.9) * endShare },
        { kind: 'permeabilityOff', factor: between(0.5, 0.9) },
      ];
    case 'bridge': {
      const [race] = raceAlongSide(job, side(), between(0.8, 1.6));
      return race?.kind === 'race' ? [{ ...race, kind: 'bridge' }] : [];
    }
    case 'starved':
      return [{ kind: 'starved', share: between(0.25, 0.45) }];
    case 'wrongRatio':
      return [{ kind: 'wrongRatio', share: random() < 0.6 ? between(0.55, 0.8) : between(1.25, 1.6) }];
  }
}

/** Chances that somebody taps bubbles that are there, and that bubbles mean nothing; that a leak is there before the mix. */
const TAPS = 0.85;
const IDLE = 0.05;
const BEFORE = 0.5;
/** s after its opening that a leak or an empty hose shows. */
const SHOWS = 45;
/** Chance that a batch is mixed by the sheet, so that its scale tells. */
const BY_SHEET = 0.5;

export interface SimulateOptions {
  /** What is made to go wrong; null for nothing. */
  readonly cause: MadeCause | null;
  readonly seed: number;
  /** The plan's own first; one is enough. */
  readonly shapes: readonly SolvedShape[];
  readonly fineness: Fineness;
  /** What the part is like beside that, and the job with the doubts by which it is drawn. */
  readonly also?: readonly DrawnFault[];
  readonly drawnFrom?: LaidJob;
  /** When the bag is pulled, ms since 1970. */
  readonly from?: number;
}

/**
 * A part made on the engine with one thing that went wrong, logged as somebody would who makes it by the plan, and looked over the day
 * after. The same seed comes to the same.
 * @throws ModelError as rehearse
 */
export function simulateRun(job: LaidJob, shop: Shop, options: SimulateOptions): SimulatedRun {
  const { cause, seed, shapes, fineness, also = [], from = 0 } = options;
  const random = createRandom(seed ^ 0x2545f491);
  const made = cause === null ? [] : faultsOf(cause, job, endShareOf(job, shop, shapes[0]!), seed);
  const faults = [...also, ...made];
  const ofFill = faults.filter(
    (fault): fault is DrawnFault => fault.kind !== 'starved' && fault.kind !== 'wrongRatio',
  );
  const one = rehearse(job, shop, {
    ...{ seed, fineness, policy: 'planned', faults: ofFill },
    shapes: shapes.slice(0, 1),
    ...(options.drawnFrom ? { drawnFrom: options.drawnFrom } : {}),
  });
  const infusion = infusionOf({ entries: one.log }, job);
  const [contact, opened] = [infusion.contactAt!, infusion.openedAt!];
  const end = Math.max(...one.log.map(({ at }) => Date.parse(at)));
  const { truth, seen } = one.end;
  const isFull = truth.filledAt <= truth.gelTime;
  const ratio = faults.find((fault) => fault.kind === 'wrongRatio');
  const poured = infusion.poured.reduce((sum, { mass }) => sum + mass, 0);
  const isThere = made.some(({ kind }) => kind === 'leak') && random() < BEFORE;
  const found = foundOn({ job, shop, seed, faults, seen, truth, openTime: (opened - contact) / 1000 });
  const after: [number, EntryBody][] = [
    ...bubblesIn(job, shop, one, { contact, opened, end }, random),
    ...dropTestOf(job, shop, isThere || random() < IDLE, createRandom(seed ^ 0x51ed270b)),
    ...(isFull
      ? [[contact + 1000 * truth.filledAt + 20_000, { kind: 'allWet' }] as [number, EntryBody]]
      : []),
    ...(random() < BY_SHEET ? mixed(job, contact, poured, ratio?.share ?? 1) : []),
    ...found.map((body): [number, EntryBody] => [end + DAY, body]),
  ];
  const entries = [...one.log, ...after.map(([at, body], n) => entryOf(at, body, one.log.length + n))];
  return {
    faults,
    hasHappened: cause === 'gelFirst' ? !isFull : cause !== 'dryBucket' || truth.drewAirAt !== null,
    readings: one.readings.map((reading) => ({ ...reading, at: from + reading.at })),
    entries: linked(entries).map((entry) => {
      const at = new Date(from + Date.parse(entry.at)).toISOString();
      return { ...entry, at, writtenAt: at, body: asSaid(entry.body, job) };
    }),
  };
}

const DAY = 86_400_000;

/** What is about an entry names it: the batch that was poured, the time the bag was shut. */
function linked(entries: readonly Entry[]): Entry[] {
  const idOf = (kind: EntryBody['kind']) => entries.find(({ body }) => body.kind === kind)?.id ?? '';
  const [mixId, shutId] = [idOf('mixBegun'), idOf('shut')];
  return entries.map((entry) => {
    const { body } = entry;
    if (body.kind === 'poured') return { ...entry, body: { ...body, mixId } };
    return body.kind === 'judged' ? { ...entry, body: { ...body, shutId } } : entry;
  });
}

/** Bubbles that somebody taps: where the gauge fell off, where the hose drew air, and some that mean nothing. */
function bubblesIn(
  job: LaidJob,
  shop: Shop,
  { readings, end: { truth } }: Rehearsed,
  { contact, opened, end }: { contact: number; opened: number; end: number },
  random: Random,
): [number, EntryBody][] {
  const tap = (at: number, where: 'inlet' | 'outlet'): [number, EntryBody][] =>
    random() < TAPS ? [[at, { kind: 'bubbles', where }]] : [];
  const shareAt = driveShareOf(job, shop);
  const weak = readings.find(({ at, pressure }) => at > opened && shareAt(pressure) < WEAK_DRIVE);
  return [
    ...(weak ? tap(weak.at + 1000 * SHOWS, random() < 0.6 ? 'outlet' : 'inlet') : []),
    ...(truth.drewAirAt === null ? [] : tap(contact + 1000 * (truth.drewAirAt + SHOWS), 'inlet')),
    ...(random() < IDLE ? tap(opened + random() * (end - opened), 'outlet') : []),
  ];
}

/** A quarter of an hour, once the bag is pulled; a part whose air nobody can reckon has none. */
function dropTestOf(job: LaidJob, shop: Shop, leaks: boolean, random: Random): [number, EntryBody][] {
  const budget = airBudgetOf(job, shop, { fillTime: null, gelTime: null });
  if (!budget) return [];
  return [
    [1000, { kind: 'shut' }],
    [900_000, verdict(leaks, mostThroughput(budget), Math.exp(BAGS * normalOf(random)))],
    [901_000, { kind: 'pull' }],
  ];
}

function endShareOf(job: LaidJob, shop: Shop, { last }: SolvedShape): number {
  const run = runConditionsOf(job, shop)!;
  const clock = clockOf(run);
  return Math.min(1, clock.timeAtFluidity({ from: run.openTime, fluidity: last }) / clock.gelTime);
}

function entryOf(at: number, body: EntryBody, order: number): Entry {
  const time = new Date(at).toISOString();
  return { id: `s${order}`, at: time, writtenAt: time, by: 'operator', device: '', runId: 'r', order, body };
}

/** What a sound bag and a leaking one let in of the most that the part takes; how bags differ, standard deviation of ln. */
const SOUND = 0.3;
const LEAKING = 4;
const BAGS = 0.3;

/** @param limit Pa m3/s */
function verdict(leaks: boolean, limit: number, by: number): EntryBody {
  const written = (value: number) => Number(value.toPrecision(3));
  const value = limit * (leaks ? LEAKING : SOUND) * by;
  return {
    ...{ kind: 'judged', shutId: 'later', verdict: leaks ? 'leaks' : 'passes' },
    throughputLimit: written(limit),
    throughput: { value: written(value), low: written(0.7 * value), high: written(1.3 * value) },
    ...{ freeVolume: 0.01, start: 2000, duration: 900, voids: leaks ? 0.02 : 0.001 },
  };
}

function mixed(job: LaidJob, contact: number, poured: number, share: number): [number, EntryBody][] {
  const resin = materialOf(job, job.resin.materialId, 'resin');
  if (!resin || resin.hardenerParts === 0) return [];
  const hardener = (poured * resin.hardenerParts) / (100 + resin.hardenerParts);
  const pour = (what: 'resin' | 'hardener', mass: number): EntryBody => ({
    ...{ kind: 'poured', mixId: 'later', what, mass, instrumentId: null, zero: 0 },
  });
  return [
    [
      contact - 3000,
      {
        ...{
          kind: 'mixBegun',
          number: 1,
          count: 1,
          materialId: resin.id,
          resin: poured - hardener,
          hardener,
        },
        ...{ lots: { resin: '', hardener: '' }, readied: [] },
      },
    ],
    [contact - 2000, pour('resin', poured - hardener)],
    [contact - 1000, pour('hardener', share * hardener)],
  ];
}
