import type { EntryBody } from '@wick/contract/run/run';
import { nearestOnLine } from '@wick/core/geometry/along';
import { polygonOf } from '@wick/core/geometry/arcs';
import { contains, type Point } from '@wick/core/geometry/polygon';
import type { LaidJob } from '../job/laid.ts';

const to = (step: number, value: number) => Math.round(value / step) / Math.round(1 / step);

/** As somebody taps, reads and types it: on the part, to the millimetre, the gram, a hundredth of a millimetre. */
export function asSaid(body: EntryBody, { part }: LaidJob): EntryBody {
  const place = (at: Point): Point => {
    const outline = polygonOf(part.outline);
    const on = contains(outline, at) ? at : nearestOnLine(at, [...outline, outline[0]!]).point;
    return { x: to(1e-3, on.x), y: to(1e-3, on.y) };
  };
  switch (body.kind) {
    case 'front':
      return { ...body, ...place(body) };
    case 'gauged':
      return { ...body, ...place(body), thickness: to(1e-5, body.thickness) };
    case 'finding':
      return { ...body, path: body.path.map(place), size: body.size && Math.max(0.005, to(5e-3, body.size)) };
    case 'weighed':
    case 'potLeft':
    case 'poured':
    case 'batchPoured':
      return { ...body, mass: to(1e-3, body.mass) };
    case 'mixBegun':
      return { ...body, resin: to(1e-3, body.resin), hardener: to(1e-3, body.hardener) };
    default:
      return body;
  }
}
