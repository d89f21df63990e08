import { intersect, regionArea, subtract, type Region } from '@wick/core/geometry/overlay';
import type { LaidJob } from '../job/laid.ts';
import { materialOf } from '../job/material-of.ts';
import type { Book } from '../laminate/books.ts';
import { partPatch } from '../part/patch.ts';
import { isLeftOff } from './laid-on.ts';
import { regionOf } from './regions.ts';
import type { JobLayer } from '@wick/contract/job/stack';

/**
 * Resin left in flow meshes and peel plies, m3: wherever they lie on laminates with plies, and past the part's edge.
 * @param regions of the books, in their order
 */
export function resinInLayers(job: LaidJob, books: readonly Book[], regions: readonly Region[]): number {
  const part = [partPatch(job.part)];
  return job.layers.reduce((sum, layer) => {
    const uptake = uptakeOf(job, layer);
    if (uptake === 0) return sum;
    const lain = regionOf(job, layer);
    const onPart = books.reduce(
      (area, { zoneId, laminate }, n) =>
        laminate.plies.length === 0 || isLeftOff(layer, zoneId)
          ? area
          : area + regionArea(intersect(regions[n]!, lain)),
      0,
    );
    return sum + uptake * (onPart + regionArea(subtract(lain, part)));
  }, 0);
}

/** Resin in a square metre of a layer, m: of what takes it by being run through. */
function uptakeOf(job: LaidJob, { kind, materialId }: JobLayer): number {
  if (kind === 'peelPly') return materialOf(job, materialId, 'peelPly')?.resinUptake ?? 0;
  const mesh = kind === 'flowMesh' ? materialOf(job, materialId, 'flowMesh') : null;
  return mesh ? mesh.thickness * mesh.porosity : 0;
}
