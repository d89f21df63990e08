import type { JobLayer, LayerKind } from '@wick/contract/job/stack';
import { intersect, regionArea, strip } from '@wick/core/geometry/overlay';
import type { Point } from '@wick/core/geometry/polygon';
import type { LaidJob } from '../job/laid.ts';
import { regionOf } from './regions.ts';

/** Where layers lie, as the checks ask. */

export const layersOf = (job: Pick<LaidJob, 'layers'>, ...kinds: readonly LayerKind[]): JobLayer[] =>
  job.layers.filter(({ kind }) => kinds.includes(kind));

/** Half the width of what is taken as lying under a line, m. */
const BESIDE = 0.005;

/** Share of a line, or of a place, that a layer lies under or over, 0-1. */
export function shareCovered(job: LaidJob, layer: JobLayer, line: readonly Point[]): number {
  const along = strip(line, BESIDE);
  return regionArea(intersect(along, regionOf(job, layer))) / regionArea(along);
}

/** The band round the part that the sealant tape takes, m past its edge; null where no tape is laid round it. */
export function tapeBand(job: Pick<LaidJob, 'layers'>): { from: number; to: number } | null {
  const covers = layersOf(job, 'sealantTape').map((layer) => layer.covers);
  const bands = covers.filter((own) => own.kind === 'rim');
  if (bands.length === 0) return null;
  return { from: Math.min(...bands.map(({ from }) => from)), to: Math.max(...bands.map(({ to }) => to)) };
}

/** Plies are wetted by hand, or bonded, and only pressed. */
export const isWetted = ({ process }: Pick<LaidJob, 'process'>): boolean =>
  process === 'wetLayup' || process === 'bonding';
