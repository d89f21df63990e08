import { forecastFlow } from '../flow/forecast.ts';
import { valueAt } from '../flow/probe.ts';
import { rectangle } from '../geometry/shapes.ts';
import { disc } from './disc.ts';
import { feedLine, plainZone } from './layouts.ts';

/** Of a plate that is as even across as along. */
const T = 1e-12;
const S = 1e-3;
/** Transmissibility, m3, that is so many times larger along a direction than across it. */
export const turned = (ratio: number, angle: number) => {
  const [c, s] = [Math.cos(angle), Math.sin(angle)];
  return {
    xx: ratio * T * c * c + T * s * s,
    yy: ratio * T * s * s + T * c * c,
    xy: (ratio - 1) * T * c * s,
  };
};

/** Length over width of the front in a plate of 1 m fed in its middle, when it stands 0.4 m along the fibres. */
export function axes(ratio: number, angle: number, nodeCount: number): number {
  const centre = { x: 0.5, y: 0.5 };
  const outline = rectangle({ length: 1, width: 1 });
  const hole = disc({ diameter: 0.012, corners: 24 }).map((p) => ({ x: p.x + 0.494, y: p.y + 0.494 }));
  const zone = plainZone({ T, S });
  const { mesh, arrival } = forecastFlow({
    outline,
    holes: [hole],
    lines: [
      feedLine({ points: [...hole, hole[0]!] }),
      feedLine({ id: 'v', name: 'Vent', kind: 'vent', points: [{ x: 0, y: 0 }] }),
    ],
    zones: [{ ...zone, layers: [{ ...zone.layers[0]!, transmissibility: turned(ratio, angle) }] }],
    feedPressure: 94_000,
    vacuumPressure: 2000,
    density: 1,
    nodeCount,
  });
  const [c, s] = [Math.cos(angle), Math.sin(angle)];
  const along = (r: number) => valueAt(mesh, arrival, { x: centre.x + r * c, y: centre.y + r * s });
  const across = (r: number) => valueAt(mesh, arrival, { x: centre.x - r * s, y: centre.y + r * c });
  const target = along(0.4);
  let [low, high] = [0.01, 0.4];
  for (let i = 0; i < 40; i++) {
    const middle = (low + high) / 2;
    if (across(middle) < target) low = middle;
    else high = middle;
  }
  return 0.4 / low;
}
