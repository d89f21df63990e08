import type { Material } from '@wick/contract/materials';
import type { Shop } from '@wick/contract/shop';
import {
  faultsOf,
  suggestBatches,
  type BatchFault,
  type Hindrance,
  type PlannedBatch,
  type ScheduleRequest,
} from '@wick/core/mix/schedule';
import { orNull } from '@wick/core/model-error';
import { longestStay } from '@wick/core/resin/pot';
import { createResinClock } from '@wick/core/resin/resin-clock';
import { usableTimeOf, type RunConditions } from '@wick/core/verdict/verdict';
import type { LaidJob } from '../job/laid.ts';
import { materialOf } from '../job/material-of.ts';
import { settledIn } from '../settle.ts';
import { batchesOf, preparationOf, type SetBatch } from './batches.ts';
import { drawOf, type Draw, type DrawnFlow } from './draw.ts';
import { FILLED_TO } from './pots.ts';
import { runConditionsOf } from './run.ts';

/** A batch is in the pot so long before the resin would fall to the floor, s: common practice, no source. */
export const SPARE = 60;
/** A cooler shop that is worth asking for, K. */
const COOLER = 5;

/** The job's pots, mixers and buckets as a schedule sees them. */
export function scheduleRequestOf(job: LaidJob, shop: Shop, draw: Draw, run: RunConditions): ScheduleRequest {
  const holds = (id: string | null) => {
    const capacity = materialOf(job, id, 'pot')?.capacity;
    return capacity === undefined ? Infinity : FILLED_TO * capacity * run.resin.density;
  };
  const most = Math.max(...draw.pots.map(({ total }) => total));
  return {
    pots: draw.pots.map(({ fast, slow, drawn, total, floor }) => ({
      ...{ fast, slow, drawn, total, floor },
      capacity: holds(job.resin.feedPotId),
    })),
    mixers: settledIn(job, 'resin.mixers'),
    preparation: preparationOf(job),
    spare: SPARE,
    largestMix: holds(job.resin.mixingPotId),
    stay: stayOf(run, shop, 1.5 * most),
  };
}

/** Masses at which the stay of a batch is worked out; between them it runs straight in the log of the mass. */
const STAYS = 40;
const SMALLEST = 0.02;

/**
 * How long a batch stays fit for use in its pot, s since mixed, by its mass: not warmer than is safe, and no older than the resin that the
 * workshop still calls usable.
 */
export function stayOf(run: RunConditions, shop: Shop, most: number): (mass: number) => number {
  const ageLimit = usableShare(run, shop);
  const drift = run.drift ?? 0;
  const ambient = run.pot?.ambient ?? run.temperature;
  const ratio = Math.log(Math.max(most, 2 * SMALLEST) / SMALLEST) / (STAYS - 1);
  const stays = Array.from({ length: STAYS }, (_, n) =>
    longestStay({
      ...{ resin: run.resin, start: run.temperature, ambient, drift, ageLimit },
      mass: SMALLEST * Math.exp(ratio * n),
    }),
  );
  return (mass) => {
    const at = Math.max(0, Math.log(mass / SMALLEST) / ratio);
    const n = Math.min(STAYS - 2, Math.floor(at));
    const [lighter, heavier] = [stays[n]!, stays[n + 1]!];
    // Between one that lasts for a day and one that does not, the shorter counts.
    if (!(lighter < Infinity)) return heavier;
    return Math.max(0, lighter + (at - n) * (heavier - lighter));
  };
}

/** Share of its way to gel up to which a thin film of the resin is usable. */
export function usableShare(run: RunConditions, shop: Shop): number {
  const film = createResinClock(run.resin, run.temperature);
  return film.ageAt(usableTimeOf(film, shop.judging));
}

export interface Remedy {
  readonly what: 'cooler' | 'resin' | 'pots' | 'mixers' | 'trays';
  /** K, how many mix, or the name of the resin. */
  readonly value: number | string | null;
  readonly batchCount: number;
}

export type Suggestion =
  | { readonly isFeasible: true; readonly batches: readonly PlannedBatch[] }
  | { readonly isFeasible: false; readonly hindrance: Hindrance; readonly remedies: readonly Remedy[] };

/**
 * Batches for a job, or what stands in their way and what would help: cooler, another resin, two pots, two mixers, or the resin spread out in
 * trays.
 * @param flow of the job as it stands
 * @param library resins that could be taken instead
 * @returns null while it is not known what is drawn
 * @throws ModelError of the resin's curves
 */
export function suggestFor(
  job: LaidJob,
  shop: Shop,
  flow: DrawnFlow,
  library: readonly Material[] = [],
): Suggestion | null {
  const run = runConditionsOf(job, shop);
  const draw = run && drawOf(job, shop, flow, run);
  if (!run || !draw) return null;
  const request = scheduleRequestOf(job, shop, draw, run);
  const found = suggestBatches(request);
  if (found.isFeasible) return found;
  return { ...found, remedies: remediesOf(job, shop, flow, { request, run, library }) };
}

function remediesOf(
  job: LaidJob,
  shop: Shop,
  flow: DrawnFlow,
  { request, run, library }: { request: ScheduleRequest; run: RunConditions; library: readonly Material[] },
): Remedy[] {
  const countOf = (tried: ScheduleRequest | null) => {
    const found = tried && suggestBatches(tried);
    return found?.isFeasible ? found.batches.length : null;
  };
  const withRun = (other: RunConditions) =>
    orNull(() => {
      const draw = drawOf(job, shop, flow, other);
      return draw && scheduleRequestOf(job, shop, draw, other);
    });
  const colder = (kelvin: number): RunConditions => ({
    ...run,
    temperature: run.temperature - kelvin,
    pot: run.pot && { ...run.pot, ambient: run.pot.ambient - kelvin },
  });
  const others = library.flatMap((material) =>
    material.kind === 'resin' && material.id !== job.resin.materialId ? [material] : [],
  );
  const inTrays = stayOf(run, shop, 1)(SMALLEST);
  const tried: [Remedy['what'], Remedy['value'], ScheduleRequest | null][] = [
    ['mixers', 2 * request.mixers, { ...request, mixers: 2 * request.mixers }],
    ['cooler', COOLER, withRun(colder(COOLER))],
    ...others.map((resin): [Remedy['what'], string, ScheduleRequest | null] => [
      'resin',
      resin.name,
      withRun({ ...run, resin }),
    ]),
    ['pots', null, { ...request, pots: request.pots.flatMap(halved) }],
    ['trays', null, { ...request, stay: () => inTrays }],
  ];
  return tried.flatMap(([what, value, other]) => {
    const batchCount = countOf(other);
    return batchCount === null ? [] : [{ what, value, batchCount }];
  });
}

/** The same need from two pots, each with a heel of its own. */
function halved(need: ScheduleRequest['pots'][number]) {
  const half = ({ times, masses }: typeof need.fast) => ({
    times,
    masses: Array.from(masses, (mass) => mass / 2),
  });
  const one = {
    ...need,
    ...{ fast: half(need.fast), slow: half(need.slow) },
    drawn: need.drawn / 2,
    total: (need.total - need.floor) / 2 + need.floor,
  };
  return [one, one];
}

/** What is wrong with the batches as they are set; none while it is not known what is drawn. */
export function batchFaults(
  job: LaidJob,
  shop: Shop,
  draw: Draw,
  run: RunConditions,
): { readonly batches: readonly SetBatch[]; readonly faults: readonly BatchFault[] } {
  const batches = batchesOf(
    job,
    shop,
    draw.pots.map(({ total }) => total),
  );
  return { batches, faults: faultsOf(scheduleRequestOf(job, shop, draw, run), batches) };
}
