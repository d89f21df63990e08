import type { Job, JobPly, ZonePly } from '@wick/contract/job/job';

export const isThrough = (ply: ZonePly): ply is { through: string } => 'through' in ply;

/** Plies of a zone with those that run through looked up in the base. */
export function resolvePlies(job: Pick<Job, 'laminate'>, plies: readonly ZonePly[]): JobPly[] {
  return plies.flatMap((ply) =>
    isThrough(ply) ? job.laminate.plies.filter(({ id }) => id === ply.through) : [ply],
  );
}
