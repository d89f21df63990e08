import type { MaterialOf } from '@wick/contract/materials';
import type { Shop } from '@wick/contract/shop';
import { coarsestStep, smallestMix, splitTotal } from '@wick/core/mix/ratio';
import { chemistryOf } from '@wick/core/resin/resin-system';
import { formatClock, formatQuantity, toUnit } from '@wick/core/units/format';
import type { LaidJob } from '../job/laid.ts';
import { materialOf } from '../job/material-of.ts';
import { settledIn } from '../settle.ts';
import type { SetBatch } from './batches.ts';
import { densitiesOf, hardenerWord, ratioWindowOf, toleranceOf, volumePartsOf } from './ratio.ts';
import { FILLED_TO } from './pots.ts';

/** A mass as it is weighed: to the step of the scale, in grams, or in ounces where the shop weighs in pounds. */
export function weighed(mass: number, shop: Pick<Shop, 'units'>, step = 1e-3): string {
  const isImperial = shop.units.mass === 'lb' || shop.units.mass === 'oz';
  const [unit, least] = isImperial ? (['oz', 2] as const) : (['g', 0] as const);
  const places = Math.max(least, Math.ceil(-Math.log10(toUnit(step, 'mass', unit)) - 1e-9));
  return `${toUnit(mass, 'mass', unit).toFixed(Math.min(3, places))} ${unit}`;
}

/** One batch as it is weighed and mixed. */
export interface MixSheet {
  readonly batch: SetBatch;
  /** 1 of 2. */
  readonly number: number;
  readonly count: number;
  readonly resin: MaterialOf<'resin'>;
  /** kg, and m3 where the densities of both are known. */
  readonly masses: { readonly resin: number; readonly hardener: number };
  readonly volumes: { readonly resin: number; readonly hardener: number } | null;
  /** Hardener to 100 of resin by weight: the one ratio to mix by. */
  readonly parts: number;
  /** What it comes to by volume, for somebody without a scale; null where it cannot be told. */
  readonly volumeParts: number | null;
  /** Between which masses of hardener the mix is good, kg. */
  readonly hardenerFrom: number;
  readonly hardenerTo: number;
  readonly scaleStep: number;
  /** The smallest batch that this scale weighs closely enough, kg, and the coarsest scale for this one. */
  readonly smallest: number;
  readonly coarsestStep: number;
  /** Share of the mixing bucket that it fills; null where no bucket is chosen. */
  readonly bucket: { readonly name: string; readonly filled: number; readonly isFull: boolean } | null;
  readonly steps: readonly SheetStep[];
}

export interface SheetStep {
  readonly text: string;
  /** What can hurt here. */
  readonly caution?: string;
}

/** Where hazards are named, others than these may hold: said at the foot of every sheet. */
export const DEFER = 'Follow the safety data sheet and your site’s rules.';

/** The sheet of one batch; null while no resin is chosen or it is not known how much. */
export function mixSheetOf(
  job: LaidJob,
  shop: Shop,
  batches: readonly SetBatch[],
  index: number,
): MixSheet | null {
  const resin = materialOf(job, job.resin.materialId, 'resin');
  const batch = batches[index];
  if (!resin || !batch || !(batch.mass > 0) || !(resin.hardenerParts > 0)) return null;
  const { hardenerParts: parts } = resin;
  const masses = splitTotal(batch.mass, parts);
  const densities = densitiesOf(resin);
  const window = ratioWindowOf(resin);
  const tolerance = toleranceOf(resin);
  const scaleStep = settledIn(job, 'resin.scaleStep');
  const pot = materialOf(job, job.resin.mixingPotId, 'pot');
  const filled = pot ? batch.mass / resin.density / pot.capacity : 0;
  return {
    ...{ batch, number: index + 1, count: batches.length, resin, masses, parts, scaleStep },
    volumes: densities && {
      resin: masses.resin / densities.resin,
      hardener: masses.hardener / densities.hardener,
    },
    volumeParts: volumePartsOf(resin),
    hardenerFrom: masses.hardener * (1 + window.from),
    hardenerTo: masses.hardener * (1 + window.to),
    smallest: smallestMix({ step: scaleStep }, tolerance, parts),
    coarsestStep: coarsestStep(batch.mass, tolerance, parts),
    bucket: pot && { name: pot.name, filled, isFull: filled > FILLED_TO },
    steps: stepsOf(job, { resin, masses, batch, isFirst: index === 0 }, (mass) =>
      weighed(mass, shop, scaleStep),
    ),
  };
}

function stepsOf(
  job: LaidJob,
  sheet: Pick<MixSheet, 'resin' | 'masses' | 'batch'> & { readonly isFirst: boolean },
  show: (mass: number) => string,
): SheetStep[] {
  const { resin, masses, batch, isFirst } = sheet;
  const isRadical = chemistryOf(resin) === 'radical';
  const other = hardenerWord(resin);
  const degas = settledIn(job, 'resin.degasDuration');
  const duration = (value: number) => formatQuantity(value, 'duration');
  const all: (SheetStep | false)[] = [
    {
      text: `Read both labels: ${resin.name}, batch numbers and dates. Stir or roll what has settled; what comes from the cold store is warm.`,
      caution: isRadical
        ? 'Peroxide: glasses and gloves on before the can is opened, and never in one place with accelerator.'
        : 'Gloves and glasses on before the can is opened: resin and hardener can make the skin allergic for life.',
    },
    { text: 'Empty bucket on the scale, on firm level ground, touching nothing. Set to zero.' },
    { text: `Pour resin to ${show(masses.resin)}. Write down what the scale says. Set to zero.` },
    {
      text: `Pour ${other} to ${show(masses.hardener)}. The clock starts at the first drop${isFirst ? '' : ` (${formatClock(batch.mixedAt)} after the first mix)`}.`,
      caution: 'Too much of either is made good by adding the other, never by pouring back.',
    },
    {
      text: `Stir ${duration(settledIn(job, 'resin.mixDuration'))}, slowly; scrape wall and bottom twice on the way.`,
    },
    {
      text: 'Pour over into a clean bucket without scraping the first one out, and stir again: unmixed paste stays behind on its wall.',
    },
    degas > 0 && {
      text: `Degas ${duration(degas)}; let air in as often as the foam climbs.`,
      caution: 'No glass under vacuum: it implodes.',
    },
    {
      text: isFirst
        ? 'Into the feed pot. Fill the feed hose, clamp it, let the vacuum recover; tie the hose so that it cannot jump out.'
        : 'Into the feed pot while the hose’s end is still covered; slowly, along the wall, so that no bubbles go down.',
    },
    {
      text: 'What is left, and the bucket: spread it out or set it outside on stone until it is hard and cold; then into the waste for cured resin.',
      caution: 'A full bucket heats itself and can smoke or burn.',
    },
  ];
  return all.filter((step) => step !== false);
}
