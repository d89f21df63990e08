import type { Point } from '../geometry/polygon.ts';

/** Regular polygon standing in for a circle; its area is that of the circle. */
export function disc({ diameter, corners = 48 }: { diameter: number; corners?: number }): Point[] {
  const step = (2 * Math.PI) / corners;
  const radius = (diameter / 2) * Math.sqrt(step / Math.sin(step));
  return Array.from({ length: corners }, (_, i) => ({
    x: radius + radius * Math.cos(i * step),
    y: radius + radius * Math.sin(i * step),
  }));
}
