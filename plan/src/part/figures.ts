import type { Job } from '@wick/contract/job/job';
import { ringArea, ringLength } from '@wick/core/geometry/arcs';

/** m2, holes taken out. */
export function partArea({ outline, holes }: Pick<Job['part'], 'outline' | 'holes'>): number {
  return Math.abs(ringArea(outline)) - holes.reduce((sum, hole) => sum + Math.abs(ringArea(hole.outline)), 0);
}

export const partPerimeter = ({ outline }: Job['part']) => ringLength(outline);
