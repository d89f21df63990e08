import type { Material, MaterialOf } from '@wick/contract/materials';
import type { Shop } from '@wick/contract/shop';
import type { FlowForecast } from '@wick/core/flow/forecast';
import { ModelError } from '@wick/core/model-error';
import { chemistryOf } from '@wick/core/resin/resin-system';
import { clockOf, usableTimeOf } from '@wick/core/verdict/verdict';
import type { LaidJob } from '../job/laid.ts';
import { settle } from '../settle.ts';
import { prelude, runConditionsOf } from './run.ts';

/** A temperature of the day. */
export interface TimeOfDay {
  readonly id: 'now' | 'morning' | 'afternoon';
  readonly temperature: number;
  readonly isAssumed: boolean;
}

/** A shop that nobody has measured is so much cooler in the morning and warmer in the afternoon, K: common practice, no source. */
export const COOLER = 3;
export const WARMER = 4;

/** Now as this job's resin is, the morning and the afternoon as the shop has them. */
export function timesOfDay(job: LaidJob, shop: Shop): TimeOfDay[] {
  const { value, from } = settle(job, shop)['resin.temperature'];
  const { morningTemperature, afternoonTemperature, temperature } = shop;
  return [
    {
      id: 'morning',
      temperature: morningTemperature ?? temperature - COOLER,
      isAssumed: morningTemperature === null,
    },
    { id: 'now', temperature: value, isAssumed: from === 'assumed' },
    {
      id: 'afternoon',
      temperature: afternoonTemperature ?? temperature + WARMER,
      isAssumed: afternoonTemperature === null,
    },
  ];
}

/** How one system does on this job's clock at a temperature; s since first mix. */
export type SystemTimes =
  | {
      readonly isKnown: true;
      readonly usable: number;
      readonly gel: number;
      readonly endsUnknown: boolean;
      /** When this layout would be full with it; Infinity past gel, null where that is not known. */
      readonly fill: number | null;
      /** Pa s, fresh */
      readonly viscosity: number;
    }
  /** Outside its data, and why. */
  | { readonly isKnown: false; readonly why: string };

export interface SystemRow {
  readonly resin: MaterialOf<'resin'>;
  readonly isOwn: boolean;
  readonly chemistry: 'amine' | 'radical';
  readonly times: readonly (TimeOfDay & SystemTimes)[];
}

/**
 * Every system of the library, and the job's own, on one clock: from first mix, out of a pot as heavy as this job's first batch.
 * @param flow of the job; its fill is looked up where it runs in fluidity
 */
export function systemsOn(
  job: LaidJob,
  shop: Shop,
  flow: FlowForecast | null,
  library: readonly Material[],
): SystemRow[] {
  const own = job.materials.find(({ id }) => id === job.resin.materialId);
  const others = library.filter(({ id }) => id !== own?.id);
  const resins = [own, ...others].filter((material) => material?.kind === 'resin');
  return resins.map((resin): SystemRow => ({
    resin,
    isOwn: resin.id === own?.id,
    chemistry: chemistryOf(resin),
    times: timesOfDay(job, shop).map((time) => ({ ...time, ...timesWith(job, shop, flow, resin, time) })),
  }));
}

function timesWith(
  job: LaidJob,
  shop: Shop,
  flow: FlowForecast | null,
  resin: MaterialOf<'resin'>,
  { id, temperature }: TimeOfDay,
): SystemTimes {
  const pot = runConditionsOf(job, shop)?.pot ?? null;
  const ambient = id === 'now' ? shop.temperature : temperature;
  const openTime = prelude(job).open;
  try {
    const clock = clockOf({
      ...{ resin, temperature, drift: job.resin.drift ?? 0, openTime },
      pot: pot && { mass: pot.mass, ambient },
    });
    const isLookedUp = flow?.isFilled && flow.timeUnit === 'fluidity';
    return {
      isKnown: true,
      usable: usableTimeOf(clock, shop.judging),
      gel: clock.gelTime,
      endsUnknown: clock.endsUnknown,
      fill: isLookedUp ? clock.timeAtFluidity({ from: openTime, fluidity: flow.fillTime }) : null,
      viscosity: clock.viscosityAt(0),
    };
  } catch (error) {
    if (error instanceof ModelError) return { isKnown: false, why: error.message };
    throw error;
  }
}
