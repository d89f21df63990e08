import { intersect, subtract, type Patch, type Region } from '@wick/core/geometry/overlay';
import type { LaidJob } from '../job/laid.ts';
import { partPatch } from '../part/patch.ts';
import { remembering } from '../remembering.ts';

export const patchOf = (ring: Patch['outline']): Region => [{ outline: ring, holes: [] }];

const regions = remembering<Region[]>();

/** Where each laminate lies, in the order of booksOf: on the part, and under no later zone. */
export const regionsOf = ({ part, zones }: LaidJob): Region[] =>
  regions([part.outline, part.holes, zones.map(({ outline }) => outline)], () => {
    const whole = [partPatch(part)];
    const outlines = zones.map(({ outline }) => patchOf(outline));
    return [whole, ...outlines].map((own, n) =>
      outlines.slice(n).reduce((left, zone) => subtract(left, zone), n === 0 ? whole : intersect(own, whole)),
    );
  });
