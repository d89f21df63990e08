import type { Shop } from '@wick/contract/shop';
import { chemistryOf } from '@wick/core/resin/resin-system';
import { seaLevelSlip } from '@wick/core/vacuum/atmosphere';
import { styreneBoilsBelow } from '@wick/core/vacuum/styrene';
import type { LaidJob } from '../job/laid.ts';
import { materialOf } from '../job/material-of.ts';
import { settle } from '../settle.ts';

export type Show = (value: number, quantity: 'absolutePressure' | 'temperature') => string;

/** What to look at before the vacuum of a job is believed, a sentence each. */
export function vacuumCautions(job: LaidJob, shop: Shop, show: Show): string[] {
  return [slipWords(shop, show), pumpWords(job, shop, show), styreneWords(job, shop, show)].filter(
    (words) => words !== null,
  );
}

/** A sea-level figure typed as the shop's own; null where there is none. */
export function slipWords({ ambientPressure, altitude }: Shop, show: Show): string | null {
  const own = ambientPressure === null ? null : seaLevelSlip(ambientPressure, altitude);
  return own === null
    ? null
    : `${show(ambientPressure!, 'absolutePressure')} is what a weather report gives for sea level: at ${Math.round(altitude)} m that is ${show(own, 'absolutePressure')}. Read a barometer in the shop, or leave the field blank.`;
}

/** A better vacuum is stated than the chosen pump reaches. */
function pumpWords(job: LaidJob, shop: Shop, show: Show): string | null {
  const pump = materialOf(job, job.vacuum.pumpId, 'pump');
  const { value, from } = settle(job, shop)['vacuum.ventPressure'];
  if (!pump || from === 'assumed' || value >= pump.ultimatePressure) return null;
  return `${show(value, 'absolutePressure')} at the vents is less than ${pump.name} reaches (${show(pump.ultimatePressure, 'absolutePressure')}). Choose another pump, or leave the vacuum blank.`;
}

/** Styrene is about to boil out of the resin at the vents. */
function styreneWords(job: LaidJob, shop: Shop, show: Show): string | null {
  const resin = materialOf(job, job.resin.materialId, 'resin');
  if (!resin || chemistryOf(resin) !== 'radical') return null;
  const settled = settle(job, shop);
  const { mouldTemperature } = job.resin;
  const zones = job.zones.flatMap(({ temperature }) => temperature ?? []);
  const warmest = Math.max(settled['resin.temperature'].value, mouldTemperature ?? 0, ...zones);
  const least = styreneBoilsBelow(warmest);
  return settled['vacuum.ventPressure'].value >= least
    ? null
    : `Styrene boils out of ${resin.name} at ${show(warmest, 'temperature')} where the vacuum is better than ${show(least, 'absolutePressure')}: throttle the vents to that, or the front will foam.`;
}
