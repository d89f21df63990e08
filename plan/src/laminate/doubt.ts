import type { Material } from '@wick/contract/materials';
import { permeabilityAt } from '@wick/core/laminate/permeability';
import type { LaidJob } from '../job/laid.ts';
import { conducts, isLeftOff } from '../stack/laid-on.ts';
import { carried, isThrough, OTHERS_DATA, stated } from '../job/entry-doubt.ts';
import { materialOf } from '../job/material-of.ts';

/** x/÷ through the thickness, where next to nobody measures; from memory. */
const THROUGH = 2.5;

/** x/÷ of how a material lets resin run in its plane. */
export const inPlaneDoubt = (material: Material): number => carried(material, 'permeability');

/** x/÷ of how it lets resin run through its thickness. */
export const throughDoubt = (material: Material): number => stated(material, isThrough, THROUGH);

/** What each material of the base laminate carries of the flow in its plane, 0-1, by its id. */
export function flowShares(job: Pick<LaidJob, 'laminate' | 'layers' | 'materials'>): Map<string, number> {
  const { laminate, materials } = job;
  const flows = new Map<string, number>();
  const add = (id: string, flow: number) => flows.set(id, (flows.get(id) ?? 0) + flow);
  for (const { kind, materialId } of job.layers.filter(
    (layer) => conducts(layer) && !isLeftOff(layer, null),
  )) {
    const mesh = kind === 'flowMesh' && materialOf(job, materialId, 'flowMesh');
    if (mesh) add(mesh.id, mesh.permeability * mesh.thickness);
  }
  for (const { materialId } of laminate.plies) {
    const material = materials.find((item) => item.id === materialId);
    if (material?.kind === 'fabric') add(material.id, flowOf(material));
  }
  const total = [...flows.values()].reduce((sum, flow) => sum + flow, 0);
  return new Map([...flows].map(([id, flow]) => [id, flow / total]));
}

function flowOf(fabric: Extract<Material, { kind: 'fabric' }>): number {
  const { arealWeight, fibreDensity, compaction, permeability, name } = fabric;
  const fraction = compaction.fractionAt100kPa;
  try {
    const { along, across } = permeabilityAt(permeability, fraction, name);
    return (Math.sqrt(along * across) * arealWeight) / (fibreDensity * fraction);
  } catch {
    return 0;
  }
}

/**
 * x/÷ of the flow through the base laminate: the doubts of its materials, each by its share of the flow, independent of one
 * another: ln x = sqrt(sum (share ln x_i)^2). Checked by doubt.test.ts.
 */
export function flowDoubt(job: Pick<LaidJob, 'laminate' | 'layers' | 'materials'>): number {
  const shares = flowShares(job);
  if (shares.size === 0) return OTHERS_DATA;
  const square = job.materials.reduce(
    (sum, material) => sum + ((shares.get(material.id) ?? 0) * Math.log(inPlaneDoubt(material))) ** 2,
    0,
  );
  return Math.exp(Math.sqrt(square));
}
