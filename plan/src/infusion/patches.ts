import { polygonOf } from '@wick/core/geometry/arcs';
import { boundsOf, type Point } from '@wick/core/geometry/polygon';
import type { Patchwork } from '@wick/core/flow/patchwork';
import { normalOf, type Random } from '@wick/core/random';
import type { LaidJob } from '../job/laid.ts';

/** A grid over the plan, as many places along its longer way. @param factorAt of each place */
export function patchworkOver(job: LaidJob, places: number, factorAt: (place: Point) => number): Patchwork {
  const { minX, minY, maxX, maxY } = boundsOf(polygonOf(job.part.outline));
  const spacing = Math.max(maxX - minX, maxY - minY) / (places - 1);
  const columns = Math.ceil((maxX - minX) / spacing) + 1;
  const rows = Math.ceil((maxY - minY) / spacing) + 1;
  return {
    ...{ origin: { x: minX, y: minY }, spacing, columns, rows },
    factor: Array.from({ length: columns * rows }, (_, i) =>
      factorAt({ x: minX + (i % columns) * spacing, y: minY + Math.floor(i / columns) * spacing }),
    ),
  };
}

/** Places along the longer way between which a laminate differs, and the standard deviation of ln of its permeability; from memory. */
const PLACES = 4;
const PATCHY = 0.28;

/** A laminate that differs smoothly from place to place, and is so many times better everywhere. */
export const patchy = (job: LaidJob, random: Random, everywhere = 1): Patchwork =>
  patchworkOver(job, PLACES, () => everywhere * Math.exp(PATCHY * normalOf(random)));
