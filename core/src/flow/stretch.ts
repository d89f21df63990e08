import type { Mesh } from '../geometry/mesh.ts';
import type { Point } from '../geometry/polygon.ts';
import type { FlowLayer } from '../laminate/layers.ts';

/** A plan as the flow sees it: longer across the fibres, shorter along them, of the same area. */
export interface Stretch {
  of(point: Point): Point;
  /** The positions of a mesh of the stretched plan, laid back. */
  back(mesh: Mesh): Mesh;
}

/** Ratio of permeabilities below which an even mesh does. */
const EVEN = 1.5;
/** Largest ratio that is followed. */
const MOST = 25;

/**
 * How to stretch a plan so that resin runs through it alike in all directions: a mesh that is even there is fine across the
 * fibres and coarse along them. Null where the laminate is nearly even.
 * Source: x' = (T1 T2)^(1/4) T^(-1/2) x makes Darcy's law isotropic. Checked by stretch.test.ts.
 */
export function stretchOf(layers: readonly FlowLayer[]): Stretch | null {
  let [xx, yy, xy] = [0, 0, 0];
  for (const { transmissibility: own } of layers) {
    xx += own.xx;
    yy += own.yy;
    xy += own.xy;
  }
  const mean = (xx + yy) / 2;
  const apart = Math.hypot((xx - yy) / 2, xy);
  const ratio = (mean + apart) / (mean - apart);
  if (!(ratio > EVEN)) return null;
  const angle = Math.atan2(2 * xy, xx - yy) / 2;
  const [c, s] = [Math.cos(angle), Math.sin(angle)];
  const along = Math.min(ratio, MOST) ** -0.25;
  const scaled = ({ x, y }: Point, by: number): Point => {
    const [u, v] = [by * (c * x + s * y), (c * y - s * x) / by];
    return { x: c * u - s * v, y: s * u + c * v };
  };
  return {
    of: (point) => scaled(point, along),
    back(mesh) {
      const positions = mesh.positions.slice();
      for (let i = 0; i < positions.length; i += 3) {
        const { x, y } = scaled({ x: positions[i], y: positions[i + 1] }, 1 / along);
        positions[i] = x;
        positions[i + 1] = y;
      }
      return { ...mesh, positions };
    },
  };
}
