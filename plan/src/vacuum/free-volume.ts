import type { Shop } from '@wick/contract/shop';
import { regionArea } from '@wick/core/geometry/overlay';
import { lineLength } from '@wick/core/geometry/polygon';
import type { LaidJob } from '../job/laid.ts';
import { materialOf } from '../job/material-of.ts';
import { partSums } from '../laminate/ply-book.ts';
import { boreVolume, hoseRunsOf } from '../layout/hoses.ts';
import { layersOf } from '../stack/lies.ts';
import { regionOf } from '../stack/regions.ts';

/** Air that is left in a bag under vacuum, by where it is. */
export interface VolumeRow {
  readonly id: 'plies' | 'core' | 'layers' | 'breather' | 'lines' | 'hoses' | 'pot';
  readonly label: string;
  /** m3 */
  readonly volume: number;
}

/**
 * Free volume of the bag: V = sum A h (1 - Vf) of the plies as the vacuum presses them, what runs through core, meshes and breather,
 * and lines, hoses and catch pot. The bag is shut at the pump, so that all of it is behind the valve.
 * @throws ModelError where the laminate cannot be pressed
 */
export function freeVolumeOf(job: LaidJob, shop: Shop): { rows: VolumeRow[]; total: number } {
  const sums = partSums(job, shop);
  const breather = layersOf(job, 'breather', 'bleeder').reduce((sum, layer) => {
    const material = materialOf(job, layer.materialId, 'bleeder');
    return sum + (material ? material.resinUptake * regionArea(regionOf(job, layer)) : 0);
  }, 0);
  const lines = job.lines.filter(({ kind }) => kind !== 'race');
  const all: VolumeRow[] = [
    { id: 'plies', label: 'Between the fibres', volume: sums.resinInPlies },
    { id: 'core', label: 'In the core’s holes and cuts', volume: sums.resinInCore },
    { id: 'layers', label: 'In mesh and peel ply', volume: sums.resinInConsumables },
    { id: 'breather', label: 'In the breather', volume: breather },
    {
      id: 'lines',
      label: 'In the lines',
      volume: lines.reduce(
        (sum, { bore, points }) => sum + boreVolume({ bore, length: lineLength(points) }),
        0,
      ),
    },
    {
      id: 'hoses',
      label: 'In the hoses',
      volume: hoseRunsOf(job).reduce((sum, hose) => sum + boreVolume(hose), 0),
    },
    { id: 'pot', label: 'In the catch pot', volume: potOf(job)?.capacity ?? 0 },
  ];
  const rows = all.filter(({ volume }) => volume > 0);
  return { rows, total: rows.reduce((sum, { volume }) => sum + volume, 0) };
}

export const potOf = (job: LaidJob) => materialOf(job, job.vacuum.potId, 'pot');

/** A computed free volume may be so far off, as a share: film over edges, folds, breather as it was cut. Common practice, no source. */
const COMPUTED_WITHIN = 0.3;

/** What to say of a free volume that was measured beside the computed one; null where they agree. */
export function volumesDisagree(computed: number, measured: number): 'more' | 'less' | null {
  const ratio = measured / computed;
  if (ratio > 1 + COMPUTED_WITHIN) return 'more';
  return ratio < 1 / (1 + COMPUTED_WITHIN) ? 'less' : null;
}
