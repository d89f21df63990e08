import { BASE, type JobLayer } from '@wick/contract/job/stack';
import type { Lying } from '@wick/core/laminate/stack';
import type { LaidJob } from '../job/laid.ts';
import { materialOf } from '../job/material-of.ts';

/** What resin runs in or through on plies and under them. */
export type LaidOn = Lying & { readonly under: Lying };

/** The layers of a job and what they are cut from. */
export type Layered = Pick<LaidJob, 'layers' | 'materials'>;

/** Where a layer may lie: a zone or brake, or the laminate that is no zone's (null). */
export const isLeftOff = ({ except }: JobLayer, zoneId: string | null): boolean =>
  except.includes(zoneId ?? BASE);

/** Layers that resin runs in or through where they lie on the plies: strips under lines are too narrow to change a front. */
export const conducts = ({ kind, materialId, covers }: JobLayer): boolean =>
  materialId !== null &&
  (kind === 'flowMesh' || kind === 'peelPly' || kind === 'perforatedFilm') &&
  (covers.kind === 'part' || covers.kind === 'areas');

/**
 * What resin runs in or through on a laminate, on the plies and under them.
 * @param lies which of the layers lie there; all unless told
 */
export function laidOn(
  job: Layered,
  zoneId: string | null,
  lies: (layer: JobLayer) => boolean = () => true,
): LaidOn {
  const there = job.layers.filter((layer) => conducts(layer) && !isLeftOff(layer, zoneId) && lies(layer));
  const on = (side: JobLayer['side']) => there.filter((layer) => layer.side === side);
  return { ...lying(job, on('bag')), under: lying(job, on('mould')) };
}

function lying(job: Layered, layers: readonly JobLayer[]): Lying {
  const of = <K extends 'flowMesh' | 'peelPly' | 'film'>(kind: K) =>
    layers.map(({ materialId }) => materialOf(job, materialId, kind)).filter((material) => material !== null);
  return { flowMeshes: of('flowMesh'), peelPlies: of('peelPly'), films: of('film') };
}
