import { withBulge, type Corner } from './arcs.ts';
import type { Patch } from './overlay.ts';
import type { Point } from './polygon.ts';

/** Corners of plan shapes, counter-clockwise, with the lower left of their box at the origin. Lengths in m. */
export function rectangle({ length, width }: { length: number; width: number }): Point[] {
  return [
    { x: 0, y: 0 },
    { x: length, y: 0 },
    { x: length, y: width },
    { x: 0, y: width },
  ];
}

/** Symmetric about its long axis: startWidth at x = 0, endWidth at x = length. */
export function trapezoid(size: { length: number; startWidth: number; endWidth: number }): Point[] {
  const { length, startWidth, endWidth } = size;
  const width = Math.max(startWidth, endWidth);
  return [
    { x: 0, y: (width - startWidth) / 2 },
    { x: length, y: (width - endWidth) / 2 },
    { x: length, y: (width + endWidth) / 2 },
    { x: 0, y: (width + startWidth) / 2 },
  ];
}

/** Two half circles. */
export function circle({ diameter }: { diameter: number }): Corner[] {
  return [
    { x: 0, y: diameter / 2, bulge: 1 },
    { x: diameter, y: diameter / 2, bulge: 1 },
  ];
}

/** Flat ring: a disc with a hole in its middle. */
export function ring({ diameter, holeDiameter }: { diameter: number; holeDiameter: number }): Patch {
  const shift = (diameter - holeDiameter) / 2;
  const hole = circle({ diameter: holeDiameter }).map((p) => ({ ...p, x: p.x + shift, y: p.y + shift }));
  return { outline: circle({ diameter }), holes: [hole] };
}

/** Two legs of their own widths, meeting at the lower left. */
export function angleShape(size: {
  length: number;
  width: number;
  legWidth: number;
  footWidth: number;
}): Point[] {
  const { length, width, legWidth, footWidth } = size;
  return [
    { x: 0, y: 0 },
    { x: length, y: 0 },
    { x: length, y: footWidth },
    { x: legWidth, y: footWidth },
    { x: legWidth, y: width },
    { x: 0, y: width },
  ];
}

/** Sides bowed as a strip of a dome laid flat: width follows a cosine from startWidth to endWidth along the length. */
export function gore(size: {
  length: number;
  startWidth: number;
  endWidth: number;
  corners?: number;
}): Point[] {
  const { length, startWidth, endWidth, corners = 12 } = size;
  const endAngle = Math.acos(endWidth / startWidth);
  const half = (i: number) => (startWidth / 2) * Math.cos((endAngle * i) / corners);
  const along = (i: number) => (length * i) / corners;
  const middle = startWidth / 2;
  const lower = Array.from({ length: corners + 1 }, (_, i) => ({ x: along(i), y: middle - half(i) }));
  const upper = Array.from({ length: corners + 1 }, (_, i) => ({
    x: along(corners - i),
    y: middle + half(corners - i),
  }));
  return [...lower, ...upper];
}

/**
 * Cone laid flat with its tip cut off: a sector between innerRadius and outerRadius, opening downward from its top; corners
 * run along the outer arc, then back along the inner.
 * @param size slant radii m; sector angle rad, below 2 pi
 */
export function coneSector(size: {
  innerRadius: number;
  outerRadius: number;
  sectorAngle: number;
}): Corner[] {
  const { innerRadius, outerRadius, sectorAngle } = size;
  const start = Math.PI / 2 - sectorAngle / 2;
  const middle = start + sectorAngle / 2;
  const end = start + sectorAngle;
  // Each arc in two halves, so that none comes near a full turn.
  const bulge = Math.tan(sectorAngle / 8);
  const at = (radius: number, angle: number, turn: number) =>
    withBulge(
      { x: outerRadius + radius * Math.cos(angle), y: outerRadius + radius * Math.sin(angle) },
      turn * bulge,
    );
  return [
    at(outerRadius, start, 1),
    at(outerRadius, middle, 1),
    at(outerRadius, end, 0),
    at(innerRadius, end, -1),
    at(innerRadius, middle, -1),
    at(innerRadius, start, 0),
  ];
}

/**
 * The flat pattern of a cone by its own measures: slant radii in the ratio of the diameters, and a sector as long on its
 * outer arc as the large end is around.
 * @param size m; wideDiameter > narrowDiameter > 0, height > 0
 */
export function coneLaidFlat(size: {
  wideDiameter: number;
  narrowDiameter: number;
  height: number;
}): Corner[] {
  const { wideDiameter, narrowDiameter, height } = size;
  const slant = Math.hypot(height, (wideDiameter - narrowDiameter) / 2);
  const outerRadius = (slant * wideDiameter) / (wideDiameter - narrowDiameter);
  const sectorAngle = (Math.PI * wideDiameter) / outerRadius;
  return coneSector({ innerRadius: outerRadius - slant, outerRadius, sectorAngle });
}
