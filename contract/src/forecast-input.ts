import { computeStack, type Stack, type StackRequest } from '@wick/core/laminate/stack';
import { ringArea, ringLength } from '@wick/core/geometry/arcs';
import type { QuantityName } from '@wick/core/units/quantities';
import { usualDoubt, type Doubt, type RunConditions } from '@wick/core/verdict/verdict';
import type { Job, JobLaminate } from './job.ts';
import type { MaterialKind, MaterialOf } from './materials.ts';
import { ambientOf, type Shop } from './shop.ts';

/** A value nobody entered, and what the forecast takes instead. */
export interface Assumption {
  readonly stage: 'laminate' | 'lines' | 'resin';
  readonly label: string;
  readonly quantity: QuantityName;
  readonly value: number;
  readonly reason: string;
}

/** What has to be there before anything can be computed; the stage where it is entered. */
export interface Missing {
  readonly stage: 'part' | 'laminate' | 'lines' | 'resin';
  readonly message: string;
}

/** Common practice, no source: what is taken where a job leaves a blank. */
const usual = {
  mixDuration: 120,
  degasDuration: 0,
  hoseFillDuration: 60,
  hoseLength: 2,
  ventPressure: 2000,
};
const HOSE_BORE = 0.012;

export function materialOf<K extends MaterialKind>(
  job: Job,
  id: string | null,
  kind: K,
): MaterialOf<K> | null {
  const found = job.materials.find((material) => material.id === id && material.kind === kind);
  return (found as MaterialOf<K> | undefined) ?? null;
}

export function partArea({ outline, holes }: Pick<Job['part'], 'outline' | 'holes'>): number {
  return Math.abs(ringArea(outline)) - holes.reduce((sum, hole) => sum + Math.abs(ringArea(hole)), 0);
}

export const partPerimeter = ({ outline }: Job['part']) => ringLength(outline);

export function ventPressureOf(job: Job): number {
  return job.vacuum.ventPressure ?? usual.ventPressure;
}

/** A laminate of a job as the core takes it. */
export function stackRequestOf(job: Job, laminate: JobLaminate, shop: Shop): StackRequest {
  return {
    plies: laminate.plies.map((ply) => ({
      fabric: materialOf(job, ply.materialId, 'fabric')!,
      angle: ply.angle,
    })),
    core: materialOf(job, laminate.coreId, 'core'),
    flowMesh: materialOf(job, laminate.flowMeshId, 'flowMesh'),
    peelPly: materialOf(job, laminate.peelPlyId, 'peelPly'),
    pliesUnderCore: laminate.pliesUnderCore,
    availablePressure: ambientOf(shop) - ventPressureOf(job),
    targetFraction: laminate.fibreVolumeFraction,
    targetPressure: laminate.compactionPressure,
  };
}

/**
 * The laminate of a job, ready to show.
 * @throws ModelError of computeStack
 */
export function stackOf(job: Job, shop: Shop): Stack {
  return computeStack(stackRequestOf(job, job.laminate, shop));
}

/** Times before the first feed opens, s since first mix. */
export function prelude(job: Job) {
  const { resin } = job;
  const mix = resin.mixDuration ?? usual.mixDuration;
  const degas = mix + (resin.degasDuration ?? usual.degasDuration);
  return { mixed: mix, degassed: degas, open: degas + (resin.hoseFillDuration ?? usual.hoseFillDuration) };
}

/** Null while no resin is chosen. */
export function runConditionsOf(job: Job, shop: Shop): RunConditions | null {
  const resin = materialOf(job, job.resin.materialId, 'resin');
  return (
    resin && {
      resin,
      temperature: job.resin.temperature ?? shop.temperature,
      drift: job.resin.drift ?? 0,
      openTime: prelude(job).open,
    }
  );
}

/** Typed spreads, or the usual ones; these widen where the resin is known at one temperature only. */
export function doubtOf(job: Job): Doubt {
  const resin = materialOf(job, job.resin.materialId, 'resin');
  const { permeability, viscosity, gelTime, temperature } = job.doubt;
  const isThin = (points: readonly unknown[] | undefined) => resin && !resin.kinetics && points!.length < 2;
  return {
    permeability: permeability ?? usualDoubt.permeability,
    viscosity: viscosity ?? (isThin(resin?.viscosityPoints) ? 1.3 : usualDoubt.viscosity),
    gelTime: gelTime ?? (isThin(resin?.gelPoints) && !resin?.gelTable ? 1.3 : usualDoubt.gelTime),
    temperature: temperature ?? usualDoubt.temperature,
  };
}

/** No resin is drawn through it: there is no front. */
export const isWettedByHand = ({ process }: Pick<Job, 'process'>) =>
  process === 'wetLayup' || process === 'bonding';

export function missingOf(job: Job): Missing[] {
  const missing: Missing[] = [];
  const isDrawnThrough = !isWettedByHand(job);
  if (!isDrawnThrough)
    missing.push({
      stage: 'lines',
      message:
        'Wetted by hand: no resin is drawn through lines, so there is no front to forecast. Plan, plies, cut list and resin hold all the same.',
    });
  if (job.laminate.plies.length === 0)
    missing.push({ stage: 'laminate', message: 'No plies yet. Add the first from the library.' });
  if (isDrawnThrough && !job.lines.some((line) => line.kind === 'feed'))
    missing.push({ stage: 'lines', message: 'No feed yet. Place one where resin enters.' });
  if (isDrawnThrough && !job.lines.some((line) => line.kind === 'vent'))
    missing.push({ stage: 'lines', message: 'No vent yet. Place one where the front ends.' });
  if (job.resin.materialId === null) missing.push({ stage: 'resin', message: 'No resin chosen yet.' });
  return missing;
}

export function assumptionsOf(job: Job, shop: Shop): Assumption[] {
  const { resin } = job;
  const list: (Assumption | false)[] = [
    resin.temperature === null && {
      stage: 'resin',
      label: 'Resin temperature',
      quantity: 'temperature',
      value: shop.temperature,
      reason: 'the workshop’s usual temperature',
    },
    resin.mixDuration === null && {
      stage: 'resin',
      label: 'Mixing',
      quantity: 'duration',
      value: usual.mixDuration,
      reason: 'common practice',
    },
    resin.degasDuration === null && {
      stage: 'resin',
      label: 'Degassing',
      quantity: 'duration',
      value: usual.degasDuration,
      reason: 'taken as not done',
    },
    resin.hoseFillDuration === null && {
      stage: 'resin',
      label: 'Filling the hose',
      quantity: 'duration',
      value: usual.hoseFillDuration,
      reason: 'common practice',
    },
    resin.hoseLength === null && {
      stage: 'resin',
      label: 'Feed hose',
      quantity: 'length',
      value: usual.hoseLength,
      reason: 'common practice',
    },
    job.vacuum.ventPressure === null && {
      stage: 'lines',
      label: 'Vacuum at the vent',
      quantity: 'absolutePressure',
      value: usual.ventPressure,
      reason: 'a sound pump and bag',
    },
    shop.ambientPressure === null && {
      stage: 'lines',
      label: 'Ambient pressure',
      quantity: 'absolutePressure',
      value: ambientOf(shop),
      reason: 'standard atmosphere at the shop’s altitude',
    },
  ];
  return list.filter((item) => item !== false);
}

/** The hose from pot to part where a line has none of its own. */
export function hoseOf(job: Job): { length: number; bore: number } {
  return { length: job.resin.hoseLength ?? usual.hoseLength, bore: HOSE_BORE };
}
