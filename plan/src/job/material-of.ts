import type { Job } from '@wick/contract/job/job';
import type { MaterialKind, MaterialOf } from '@wick/contract/materials';

/** A job's own copy of a material of a kind; null where it has none of that id. */
export function materialOf<K extends MaterialKind>(
  job: Pick<Job, 'materials'>,
  id: string | null,
  kind: K,
): MaterialOf<K> | null {
  const found = job.materials.find((material) => material.id === id && material.kind === kind);
  return (found as MaterialOf<K> | undefined) ?? null;
}
