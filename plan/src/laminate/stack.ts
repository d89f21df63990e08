import type { JobLaminate } from '@wick/contract/job/job';
import type { Shop } from '@wick/contract/shop';
import { meanFraction, pressureForFraction } from '@wick/core/laminate/compaction';
import { orNull } from '@wick/core/model-error';
import { computeStack, type Stack, type StackRequest } from '@wick/core/laminate/stack';
import { processOf } from '../processes/processes.ts';
import { materialOf } from '../job/material-of.ts';
import { settle, type Settling } from '../settle.ts';
import { laidOn, type LaidOn } from '../stack/laid-on.ts';

/** What the vacuum presses with at most, Pa. */
export function availablePressure(job: Settling, shop: Shop): number {
  const settled = settle(job, shop);
  return settled['shop.ambientPressure'].value - settled['vacuum.ventPressure'].value;
}

/** A laminate of a job, with what lies on it, as the core takes it. */
export function stackRequestOf(
  job: Settling,
  laminate: JobLaminate,
  shop: Shop,
  lying: LaidOn,
): StackRequest {
  return {
    plies: laminate.plies.map((ply) => ({
      fabric: materialOf(job, ply.materialId, 'fabric')!,
      angle: ply.angle,
    })),
    core: materialOf(job, laminate.coreId, 'core'),
    ...lying,
    pliesUnderCore: laminate.pliesUnderCore,
    availablePressure: availablePressure(job, shop),
    ...reachable(job, laminate, shop),
  };
}

const wantedIn = ({ fibreVolumeFraction, compactionPressure }: JobLaminate) => ({
  targetFraction: fibreVolumeFraction,
  targetPressure: compactionPressure,
});

/** A bag presses with all it has: what is wanted looser is pressed all the same, what is wanted harder is refused as ever. */
function reachable(job: Settling, laminate: JobLaminate, shop: Shop) {
  return pressedPast(job, laminate, shop)
    ? { targetFraction: null, targetPressure: null }
    : wantedIn(laminate);
}

/** A wanted fibre volume that a bag presses past. */
export interface PressedPast {
  readonly wanted: number;
  readonly pressed: number;
  /** Absolute pressure, Pa, at which resin would have to stand in the laminate until gel to leave it so loose. */
  readonly resinPressure: number;
}

/** Null where nothing looser is wanted than an infusion's bag presses, or the plies do not tell. */
export function pressedPast(job: Settling, laminate: JobLaminate, shop: Shop): PressedPast | null {
  const { fibreVolumeFraction, compactionPressure } = laminate;
  if (!processOf(job).pressesAll || (fibreVolumeFraction ?? compactionPressure) === null) return null;
  const fabrics = laminate.plies.map((ply) => materialOf(job, ply.materialId, 'fabric'));
  if (fabrics.length === 0 || fabrics.some((fabric) => fabric === null)) return null;
  const plies = fabrics.filter((fabric) => fabric !== null);
  const available = availablePressure(job, shop);
  return orNull(() => {
    const pressed = meanFraction(plies, available);
    const load = compactionPressure ?? pressureForFraction(plies, fibreVolumeFraction!, available);
    const wanted = meanFraction(plies, load);
    const resinPressure = settle(job, shop)['shop.ambientPressure'].value - load;
    return pressed - wanted > SAME_FRACTION ? { wanted, pressed, resinPressure } : null;
  });
}

/** Fibre volumes nearer than this are one. */
const SAME_FRACTION = 0.002;

/**
 * The base laminate of a job, ready to show.
 * @throws ModelError of computeStack
 */
export function stackOf(job: Settling, shop: Shop): Stack {
  return computeStack(stackRequestOf(job, job.laminate, shop, laidOn(job, null)));
}
