import type { Entry, EntryBody } from '@wick/contract/run/run';
import type { Shop } from '@wick/contract/shop';
import type { Fineness } from '@wick/core/flow/problem';
import { createRandom } from '@wick/core/random';
import { clockOf } from '@wick/core/verdict/verdict';
import type { LaidJob } from '../job/laid.ts';
import { materialOf } from '../job/material-of.ts';
import { infusionOf } from '../infusion/infusion.ts';
import { driveShareOf, WEAK_DRIVE, type BagReading } from '../infusion/live-clock.ts';
import { rehearse } from '../infusion/operator.ts';
import type { SolvedShape } from '../infusion/problem-shapes.ts';
import { runConditionsOf } from '../resin/run.ts';
import { racingSides } from '../forecast/draw.ts';
import { raceAlongSide, type DrawnFault } from '../infusion/truth.ts';
import { foundOn, type AfterFault } from './found.ts';
import type { CauseId } from './causes/table.ts';

export interface SimulatedRun {
  /** What was made to happen did: a pot that was dry only on paper is no dry pot. */
  readonly hasHappened: boolean;
  readonly entries: readonly Entry[];
  readonly readings: readonly BagReading[];
  readonly faults: readonly (DrawnFault | AfterFault)[];
}

/** Causes that can be made to happen to a part: a layout that shuts air in is a layout's. */
export type MadeCause = Exclude<CauseId, 'shutIn'>;

/** What is made to happen, by the seed: how much of it, where and when. @param endShare of the time to gel, at which the plan is full */
export function faultsOf(
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

/**
 * A part made on the engine with one thing that went wrong, logged as somebody would who makes it by the plan, and looked over afterwards.
 * The same seed comes to the same. @param shapes the plan's own first; one is enough
 * @throws ModelError as rehearse
 */
export function simulateRun(
  job: LaidJob,
  shop: Shop,
  options: { cause: MadeCause | null; seed: number; shapes: readonly SolvedShape[]; fineness: Fineness },
): SimulatedRun {
  const { cause, seed, shapes, fineness } = options;
  const random = createRandom(seed ^ 0x2545f491);
  const faults = cause === null ? [] : faultsOf(cause, job, endShareOf(job, shop, shapes[0]!), seed);
  const ofFill = faults.filter(
    (fault): fault is DrawnFault => fault.kind !== 'starved' && fault.kind !== 'wrongRatio',
  );
  const one = rehearse(job, shop, {
    seed,
    policy: 'planned',
    shapes: shapes.slice(0, 1),
    fineness,
    faults: ofFill,
  });
  const infusion = infusionOf({ entries: one.log }, job);
  const [contact, opened] = [infusion.contactAt!, infusion.openedAt!];
  const end = Math.max(...one.log.map(({ at }) => Date.parse(at)));
  const poured = infusion.poured.reduce((sum, { mass }) => sum + mass, 0);
  const { truth, seen } = one.end;
  const isFull = truth.filledAt <= truth.gelTime;
  const after: [number, EntryBody][] = [];
  const tap = (at: number, where: 'inlet' | 'outlet' | 'bag') =>
    random() < TAPS && after.push([at, { kind: 'bubbles', where }]);
  const weak = one.readings.find(
    ({ at, pressure }) => at > opened && driveShareOf(job, shop)(pressure) < WEAK_DRIVE,
  );
  if (weak) tap(weak.at + 1000 * SHOWS, random() < 0.6 ? 'outlet' : 'inlet');
  if (truth.drewAirAt !== null) tap(contact + 1000 * (truth.drewAirAt + SHOWS), 'inlet');
  if (random() < IDLE) after.push([opened + random() * (end - opened), { kind: 'bubbles', where: 'outlet' }]);
  const isThere = faults.some(({ kind }) => kind === 'leak') && random() < BEFORE;
  const shutId = one.log.find(({ body }) => body.kind === 'pull')!;
  after.push(
    [Date.parse(shutId.at) + 1000, { kind: 'shut' }],
    [Date.parse(shutId.at) + 900_000, verdict(isThere || random() < IDLE)],
    [Date.parse(shutId.at) + 901_000, { kind: 'pull' }],
  );
  if (isFull) after.push([contact + 1000 * truth.filledAt + 20_000, { kind: 'allWet' }]);
  const ratio = faults.find((fault) => fault.kind === 'wrongRatio');
  if (random() < BY_SHEET) after.push(...mixed(job, contact, poured, ratio?.share ?? 1));
  const found = foundOn({ job, shop, seed, faults, seen, truth, openTime: (opened - contact) / 1000 });
  after.push(...found.map((body): [number, EntryBody] => [end + 86_400_000, body]));
  const entries = [...one.log, ...after.map(([at, body], n) => entryOf(at, body, one.log.length + n))];
  // The batch of the sheet was begun before what was poured of it.
  const begun = entries.find(({ body }) => body.kind === 'mixBegun')?.id ?? '';
  return {
    faults,
    hasHappened: cause === 'gelFirst' ? !isFull : cause !== 'dryBucket' || truth.drewAirAt !== null,
    readings: one.readings,
    entries: entries
      .map((entry) =>
        entry.body.kind === 'poured' ? { ...entry, body: { ...entry.body, mixId: begun } } : entry,
      )
      .map((entry) =>
        entry.body.kind === 'judged' ? { ...entry, body: { ...entry.body, shutId: shutOf(entries) } } : entry,
      ),
  };
}

function endShareOf(job: LaidJob, shop: Shop, { last }: SolvedShape): number {
  const run = runConditionsOf(job, shop)!;
  const clock = clockOf(run);
  return Math.min(1, clock.timeAtFluidity({ from: run.openTime, fluidity: last }) / clock.gelTime);
}

const shutOf = (entries: readonly Entry[]) => entries.find(({ body }) => body.kind === 'shut')!.id;

function entryOf(at: number, body: EntryBody, order: number): Entry {
  const time = new Date(at).toISOString();
  return { id: `s${order}`, at: time, writtenAt: time, by: 'operator', device: '', runId: 'r', order, body };
}

const verdict = (leaks: boolean): EntryBody => ({
  ...{ kind: 'judged', shutId: 'later', verdict: leaks ? 'leaks' : 'passes', throughputLimit: 1e-3 },
  throughput: { value: leaks ? 4e-3 : 3e-4, low: leaks ? 3e-3 : 1e-4, high: leaks ? 5e-3 : 5e-4 },
  ...{ freeVolume: 0.01, start: 2000, duration: 900, voids: leaks ? 0.02 : 0.001 },
});

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
