import type { Job } from '@wick/contract/job/job';
import { polygonOf } from '@wick/core/geometry/arcs';
import type { Patch } from '@wick/core/geometry/overlay';

/** The plan of the part with its holes, arcs as chords. */
export const partPatch = ({ outline, holes }: Pick<Job['part'], 'outline' | 'holes'>): Patch => ({
  outline: polygonOf(outline),
  holes: holes.map(({ outline: hole }) => polygonOf(hole)),
});
