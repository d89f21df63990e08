import type { Job, JobLaminate, ZonePly } from '@wick/contract/job/job';
import type { Material } from '@wick/contract/materials';

type AnyLaminate = Omit<JobLaminate, 'plies'> & { readonly plies: readonly ZonePly[] };

/** Ids of everything a laminate is made of. */
const idsOf = ({ plies, coreId }: AnyLaminate): (string | null)[] => [
  ...plies.map((ply) => ('through' in ply ? null : ply.materialId)),
  coreId,
];

/** Keeps the list to what is used in any layout. The job's own copies come first: a job keeps the values it was computed with. */
export function keepUsed(job: Job, added: readonly Material[] = []): Job {
  const zones = [...job.zones, ...job.layouts.flatMap(({ brakes }) => brakes)];
  const used = new Set([
    ...[job.laminate, ...zones.map((zone) => zone.laminate)].flatMap(idsOf),
    job.resin.materialId,
    job.resin.mixingPotId,
    job.resin.feedPotId,
    job.vacuum.pumpId,
    job.vacuum.potId,
    ...job.layouts.flatMap(({ lines, layers }) => [
      ...lines.flatMap(({ stockId, hoseId }) => [stockId, hoseId]),
      ...layers.map(({ materialId }) => materialId),
    ]),
  ]);
  const own = job.materials.filter((material) => used.has(material.id));
  const fresh = added.filter(
    (material) => used.has(material.id) && !own.some((known) => known.id === material.id),
  );
  return { ...job, materials: [...own, ...fresh] };
}
