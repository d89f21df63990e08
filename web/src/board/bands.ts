import type { Mesh } from '@wick/core/geometry/mesh';
import type { Isochrones, Rings } from '@wick/core/flow/isochrones';
import type { Point } from '@wick/core/geometry/polygon';
import { resinColour } from '../ui/theme.ts';

export interface Band {
  /** Seconds since first mix at which the front leaves the band. */
  readonly until: number;
  readonly rings: Rings;
  readonly colour: string;
  readonly label: string;
  readonly labelAt: Point | null;
  readonly isDark: boolean;
}

export interface BandRequest {
  readonly mesh: Mesh;
  readonly arrival: Float64Array;
  readonly isochrones: Isochrones;
  readonly openTime: number;
  /** Last moment to draw: the fill, or gel where that comes first. */
  readonly endTime: number;
  readonly runTimeAt: (time: number) => number;
}

const STEPS = [10, 15, 30, 60, 120, 300, 600, 900, 1200, 1800, 3600, 7200, 14_400];

/** Areas of equal time, largest first, so that each is painted over by the earlier ones. */
export function bandsOf({ mesh, arrival, isochrones, openTime, endTime, runTimeAt }: BandRequest): Band[] {
  const span = endTime - openTime;
  if (!(span > 0)) return [];
  const step = STEPS.find((candidate) => span / candidate <= 9) ?? 28_800;
  const times: number[] = [];
  for (let t = (Math.floor(openTime / step) + 1) * step; t < endTime - 0.15 * step; t += step) times.push(t);
  times.push(endTime);
  let earlier = -1;
  return times
    .map((until, i) => {
      const level = i === times.length - 1 ? runTimeAt(until) * (1 + 1e-9) : runTimeAt(until);
      const share = times.length > 1 ? i / (times.length - 1) : 0;
      const band: Band = {
        until,
        rings: isochrones.wetBy(level),
        colour: resinColour(share),
        label: step < 60 ? `${Math.round(until)} s` : `${Math.round(until / 60)}`,
        labelAt: labelPlace(mesh, arrival, earlier, level),
        isDark: share > 0.55,
      };
      earlier = level;
      return band;
    })
    .reverse();
}

/** A node well inside the band, near its middle. */
function labelPlace(mesh: Mesh, arrival: Float64Array, from: number, to: number): Point | null {
  const middle = (Math.max(from, 0) + to) / 2;
  const reach = Math.max((to - from) * 0.3, 1e-12);
  let [x, y, count] = [0, 0, 0];
  for (let i = 0; i < mesh.nodeCount; i++) {
    if (!(Math.abs(arrival[i]! - middle) <= reach)) continue;
    x += mesh.positions[3 * i]!;
    y += mesh.positions[3 * i + 1]!;
    count += 1;
  }
  if (count === 0) return null;
  let best: Point | null = null;
  let bestDistance = Infinity;
  for (let i = 0; i < mesh.nodeCount; i++) {
    if (!(Math.abs(arrival[i]! - middle) <= reach)) continue;
    const p = { x: mesh.positions[3 * i]!, y: mesh.positions[3 * i + 1]! };
    const away = Math.hypot(p.x - x / count, p.y - y / count);
    if (away < bestDistance) [best, bestDistance] = [p, away];
  }
  return best;
}
