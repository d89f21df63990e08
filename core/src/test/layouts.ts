import type { LayoutLine, ZoneLaminate } from '../flow/layout.ts';
import { rectangle } from '../geometry/shapes.ts';

/** A feed without hose, open from the start, unless told otherwise. */
export const feedLine = (changes: Partial<LayoutLine>): LayoutLine => ({
  id: 'feed',
  name: 'Feed',
  kind: 'feed',
  points: [],
  bore: 0.012,
  startsOpen: true,
  actions: [],
  ...changes,
});

export const across = (x: number, width: number) => [
  { x, y: 0 },
  { x, y: width },
];

/** Feed at one end of a strip, vent at the other. */
export const stripEnds = (length: number, width: number): LayoutLine[] => [
  feedLine({ points: across(0, width) }),
  feedLine({ id: 'vent', name: 'Vent', kind: 'vent', points: across(length, width) }),
];

/** One averaged layer: T permeability x thickness, m3; S porosity x thickness, m. */
export function plainZone(laminate: {
  T: number;
  S: number;
  outline?: ZoneLaminate['outline'];
}): ZoneLaminate {
  const { T, S, outline = null } = laminate;
  return {
    name: 'Plain',
    outline,
    soft: null,
    thickness: 2e-3,
    layers: [
      { name: 'Averaged', transmissibility: { xx: T, yy: T, xy: 0 }, storage: S, toNext: 0, isSoft: true },
    ],
  };
}

export const strip = (length: number, width: number) => rectangle({ length, width });
