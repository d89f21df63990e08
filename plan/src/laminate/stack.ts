import type { Job, JobLaminate } from '@wick/contract/job/job';
import type { Shop } from '@wick/contract/shop';
import { computeStack, type Stack, type StackRequest } from '@wick/core/laminate/stack';
import { materialOf, settle, type Settling } from '../settle.ts';

/** What the vacuum presses with at most, Pa. */
export function availablePressure(job: Settling, shop: Shop): number {
  const settled = settle(job, shop);
  return settled['shop.ambientPressure'].value - settled['vacuum.ventPressure'].value;
}

/** A laminate of a job as the core takes it. */
export function stackRequestOf(job: Settling, laminate: JobLaminate, shop: Shop): StackRequest {
  return {
    plies: laminate.plies.map((ply) => ({
      fabric: materialOf(job, ply.materialId, 'fabric')!,
      angle: ply.angle,
    })),
    core: materialOf(job, laminate.coreId, 'core'),
    flowMesh: materialOf(job, laminate.flowMeshId, 'flowMesh'),
    peelPly: materialOf(job, laminate.peelPlyId, 'peelPly'),
    pliesUnderCore: laminate.pliesUnderCore,
    availablePressure: availablePressure(job, shop),
    targetFraction: laminate.fibreVolumeFraction,
    targetPressure: laminate.compactionPressure,
  };
}

/**
 * The base laminate of a job, ready to show.
 * @throws ModelError of computeStack
 */
export function stackOf(job: Settling & Pick<Job, 'laminate'>, shop: Shop): Stack {
  return computeStack(stackRequestOf(job, job.laminate, shop));
}
