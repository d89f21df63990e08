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

/** Regular polygon standing in for a circle; its area is that of the circle. */
export function disc({ diameter, corners = 48 }: { diameter: number; corners?: number }): Point[] {
  const step = (2 * Math.PI) / corners;
  const radius = (diameter / 2) * Math.sqrt(step / Math.sin(step));
  return Array.from({ length: corners }, (_, i) => ({
    x: radius + radius * Math.cos(i * step),
    y: radius + radius * Math.sin(i * step),
  }));
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
 * Cone laid flat with its tip cut off: a sector between innerRadius and outerRadius, opening to the right.
 * @param size slant radii m; sector angle rad, below 2 pi
 */
export function coneSector(size: {
  innerRadius: number;
  outerRadius: number;
  sectorAngle: number;
  corners?: number;
}): Point[] {
  const { innerRadius, outerRadius, sectorAngle, corners = 24 } = size;
  const arc = (radius: number, from: number, to: number) =>
    Array.from({ length: corners + 1 }, (_, i) => {
      const angle = from + ((to - from) * i) / corners;
      return { x: outerRadius + radius * Math.cos(angle), y: outerRadius + radius * Math.sin(angle) };
    });
  const start = Math.PI / 2 - sectorAngle / 2;
  return [...arc(outerRadius, start, start + sectorAngle), ...arc(innerRadius, start + sectorAngle, start)];
}
