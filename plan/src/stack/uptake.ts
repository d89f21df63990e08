import { intersect, regionArea, subtract } from '@wick/core/geometry/overlay';
import type { LaidJob } from '../job/laid.ts';
import { materialOf } from '../job/material-of.ts';
import { booksOf } from '../laminate/books.ts';
import { regionsOf } from '../laminate/regions.ts';
import { partPatch } from '../part/patch.ts';
import { isLeftOff } from './laid-on.ts';
import { remembering } from '../remembering.ts';
import { regionOf, whatItHangsOn } from './regions.ts';
import type { JobLayer } from '@wick/contract/job/stack';

const areas = remembering<number>();

/** Resin left in flow meshes and peel plies, m3: wherever they lie on laminates with plies, and past the part's edge. */
export const resinInLayers = (job: LaidJob): number =>
  job.layers.reduce((sum, layer) => sum + resinInLayer(job, layer), 0);

/** Of one of them. */
export function resinInLayer(job: LaidJob, layer: JobLayer): number {
  const uptake = uptakeOf(job, layer);
  if (uptake === 0) return 0;
  const on = [...whatItHangsOn(job, layer), job.zones, job.laminate, layer];
  return uptake * areas(on, () => areaOf(job, layer));
}

function areaOf(job: LaidJob, layer: JobLayer): number {
  const lain = regionOf(job, layer);
  const regions = regionsOf(job);
  const onPart = booksOf(job).reduce(
    (area, { zoneId, laminate }, n) =>
      laminate.plies.length === 0 || isLeftOff(layer, zoneId)
        ? area
        : area + regionArea(intersect(regions[n]!, lain)),
    0,
  );
  return onPart + regionArea(subtract(lain, [partPatch(job.part)]));
}

/** Resin in a square metre of a layer, m: of what takes it by being run through. */
function uptakeOf(job: LaidJob, { kind, materialId }: JobLayer): number {
  if (kind === 'peelPly') return materialOf(job, materialId, 'peelPly')?.resinUptake ?? 0;
  const mesh = kind === 'flowMesh' ? materialOf(job, materialId, 'flowMesh') : null;
  return mesh ? mesh.thickness * mesh.porosity : 0;
}
