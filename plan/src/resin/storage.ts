import type { Lot } from '@wick/contract/material/resin';
import type { MaterialOf } from '@wick/contract/materials';
import { warmingTime } from '@wick/core/resin/self-heating';
import { densitiesOf } from './ratio.ts';

/** A container as it stands on a day. */
export interface LotState {
  readonly lot: Lot;
  readonly expiry: 'none' | 'past' | 'soon' | 'good';
  /** Days left; null where nobody has said. */
  readonly daysLeft: number | null;
  /** s out of the cold store until it is within WARM of the shop; 0 where it is kept there. */
  readonly warming: number;
}

/** Near enough to the shop's temperature to be weighed and to mix well, K. Common practice, no source. */
const WARM = 1;
/** A container of which nobody has said what it holds, kg. */
const USUAL_MASS = 5;
const SOON = 30;
const DAY = 86_400_000;

/**
 * @param day ms since 1970, at the shop
 * @param densities of the two components, kg/m3
 */
export function lotState(
  lot: Lot,
  now: { readonly day: number; readonly room: number; readonly density: number },
): LotState {
  const daysLeft = lot.expires === null ? null : Math.floor((Date.parse(lot.expires) + DAY - now.day) / DAY);
  const container = {
    mass: lot.mass ?? USUAL_MASS,
    density: now.density,
    temperature: lot.storeTemperature ?? now.room,
  };
  return {
    lot,
    daysLeft,
    expiry: daysLeft === null ? 'none' : daysLeft < 0 ? 'past' : daysLeft < SOON ? 'soon' : 'good',
    warming: warmingTime(container, now.room, WARM),
  };
}

/** Every container of a system on a day. @param day ms since 1970, at the shop */
export const lotStatesOf = (
  resin: MaterialOf<'resin'>,
  now: { readonly day: number; readonly room: number },
) =>
  (resin.lots ?? []).map((lot) =>
    lotState(lot, { ...now, density: densitiesOf(resin)?.[lot.part] ?? resin.density }),
  );

/** What has to be done with a container before it is opened, a sentence each. */
export function lotWords({ lot, expiry, daysLeft, warming }: LotState): string[] {
  const hours = (seconds: number) =>
    seconds < 5400 ? `${Math.round(seconds / 60)} min` : `${Math.round(seconds / 3600)} h`;
  return [
    expiry === 'past' &&
      `Past its date (${lot.expires}): not for a part. Ask the supplier whether it can be tested again.`,
    expiry === 'soon' && `Good for ${daysLeft} more ${daysLeft === 1 ? 'day' : 'days'}.`,
    warming > 0 &&
      `Out of the cold store ${hours(warming)} before it is mixed, shut, so that no water settles in it.`,
    lot.care === 'roll' &&
      'Roll the drum, or turn it over, before the first is taken: what has settled is not what the sheet means.',
    lot.care === 'stir' &&
      'Stir it through to the bottom before the first is taken; warm it first if there are crystals.',
  ].filter((words) => words !== false);
}

/** The one to take: in date, and of those the one that ends first. */
export function lotToTake(states: readonly LotState[], part: Lot['part']): LotState | null {
  const fit = states.filter(({ lot, expiry }) => lot.part === part && expiry !== 'past');
  return fit.sort((a, b) => (a.daysLeft ?? Infinity) - (b.daysLeft ?? Infinity))[0] ?? null;
}
