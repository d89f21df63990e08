import type { MaterialOf } from '@wick/contract/materials';
import type { Edit } from '../job/edits.ts';
import { currentLayout, type LaidJob } from '../job/laid.ts';
import { addLayer, newLayer, updateLayer } from './edits.ts';
import { conducts, isLeftOff } from './laid-on.ts';

/** The flow mesh that the laminate which is no zone's is fed by: the first over its plies. */
const meshLayerOf = ({ layers }: Pick<LaidJob, 'layers'>) =>
  layers.find(
    (layer) =>
      layer.kind === 'flowMesh' && layer.side === 'bag' && conducts(layer) && !isLeftOff(layer, null),
  );

export const meshOf = (job: Pick<LaidJob, 'layers'>): string | null => meshLayerOf(job)?.materialId ?? null;

/** The job with another mesh in its place, or with one at last: as it would flow. */
export function meshedWith(job: LaidJob, mesh: MaterialOf<'flowMesh'>): LaidJob {
  const laid = meshLayerOf(job);
  const layer = { ...(laid ?? newLayer('flowMesh', null, 'mesh')), materialId: mesh.id };
  return {
    ...job,
    materials: [...job.materials.filter(({ id }) => id !== mesh.id), mesh],
    layers: laid ? job.layers.map((own) => (own === laid ? layer : own)) : [...job.layers, layer],
  };
}

/** Another mesh wherever the first one lies, in the layout worked on; with none, one over the whole part. */
export const withMesh =
  (mesh: MaterialOf<'flowMesh'>, id: string): Edit =>
  (job) => {
    const laid = meshLayerOf(currentLayout(job));
    return laid
      ? updateLayer(laid.id, { materialId: mesh.id }, mesh)(job)
      : addLayer(newLayer('flowMesh', mesh.id, id), mesh)(job);
  };
