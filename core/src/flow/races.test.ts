import { describe, expect, test } from '@jest/globals';
import { across, feedLine, plainZone, strip } from '../test/layouts.ts';
import { rectangularDuct } from './channels.ts';
import { forecastFlow } from './forecast.ts';

describe('a rectangular duct', () => {
  test('as the series has it: 1 x 1 mm and 5 x 1 mm', () => {
    // White, Viscous Fluid Flow, from memory: 3.51e-14 m4; a slot of gap^3 h / 12 would be 2.4 and 28.6 times as much.
    const square = rectangularDuct(1e-3, 1e-3).conductance;
    expect(Math.abs(square / 3.51e-14 - 1)).toBeLessThan(0.002);
    expect(1e-12 / 12 / square).toBeCloseTo(2.37, 2);
    const wide = rectangularDuct(5e-3, 1e-3).conductance;
    expect((5e-3 ** 3 * (1e-3 / 12)) / wide).toBeCloseTo(28.6, 1);
    expect(rectangularDuct(1e-3, 5e-3).conductance).toBe(wide);
    // Far wider than high it is the slot.
    expect(Math.abs(rectangularDuct(1, 1e-3).conductance / (1e-9 / 12) - 1)).toBeLessThan(0.001);
  });
});

const GAP = 2e-3;
const PRESSURE = 92_000;
const WIDTH = 0.3;
/** Resin drawn up to a fluidity time, m3, from a short feed at one end of a race along a side. */
function drawnBy(time: number, { T, S, nodeCount }: { T: number; S: number; nodeCount: number }): number {
  const feed = feedLine({ points: across(0, 0.002) });
  const race = feedLine({
    id: 'race',
    name: 'Gap',
    kind: 'race',
    bore: GAP,
    points: [
      { x: 0, y: 0 },
      { x: 1, y: 0 },
    ],
  });
  const vent = feedLine({ id: 'vent', name: 'Vent', kind: 'vent', points: [{ x: 1, y: WIDTH }] });
  const { samples } = forecastFlow({
    outline: strip(1, WIDTH),
    holes: [],
    zones: [plainZone({ T, S })],
    lines: [feed, vent, race],
    feedPressure: PRESSURE + 3000,
    vacuumPressure: 3000,
    density: 1,
    nodeCount,
    steps: 150,
  });
  const after = samples.findIndex((sample) => sample.time >= time);
  const [p, q] = [samples[after - 1]!, samples[after]!];
  return p.entered + ((q.entered - p.entered) * (time - p.time)) / (q.time - p.time);
}

describe('a race along a side', () => {
  const { conductance: G, area: A } = rectangularDuct(GAP, 2e-3);

  test('runs alone beside a laminate that takes nothing, on any mesh: A sqrt(2 G p t / A)', () => {
    for (const nodeCount of [300, 1500]) {
      const time = (0.64 * A) / (2 * G * PRESSURE);
      const drawn = drawnBy(time, { T: 1e-17, S: 1e-3, nodeCount });
      expect(Math.abs(drawn / (0.8 * A) - 1)).toBeLessThan(0.015);
    }
  });

  test('and gives resin to it as columns across do', () => {
    for (const T of [1e-14, 1e-13]) {
      const { time, drawn } = columns(T, 1e-3, 150);
      expect(Math.abs(drawnBy(time, { T, S: 1e-3, nodeCount: 1500 }) / drawn - 1)).toBeLessThan(0.04);
    }
  });

  /** Duct and laminate beside it, column by column: Darcy's law across, the duct's own along; implicit in pressure, cell by cell. */
  function columns(T: number, S: number, cells: number): { time: number; drawn: number } {
    const dx = 1 / cells;
    const depth = new Float64Array(cells);
    const entered = new Float64Array(cells);
    let time = 0;
    for (let front = 0; front < cells; front++) {
      let filled = 0;
      while (filled < 1) {
        // d/dx (G dp/dx) = T p / depth, p = PRESSURE at the inlet and 0 at the front.
        const n = front + 1;
        const reach = (front + filled) * dx;
        const p = pressures(n, dx, reach, (i) => (T / Math.max(depth[i], 1e-5)) * dx);
        const speed = (G * p[n - 1]) / Math.max(reach - (n - 0.5) * dx, 0.25 * dx);
        const step = Math.min(0.1, 1 - filled) * ((A * dx) / speed);
        for (let i = 0; i < n; i++) {
          entered[i] += (step * 2 * T * p[i]) / S;
          depth[i] = Math.sqrt(entered[i]);
        }
        time += step;
        filled += (speed * step) / (A * dx);
        if (filled > 1 - 1e-9) break;
      }
    }
    return { time, drawn: A + depth.reduce((sum, d) => sum + S * d * dx, 0) };
  }

  function pressures(n: number, dx: number, reach: number, leak: (i: number) => number): Float64Array {
    const [lower, upper, diagonal, right] = [0, 0, 0, 0].map(() => new Float64Array(n));
    for (let i = 0; i < n; i++) {
      const toLeft = i === 0 ? (2 * G) / dx : G / dx;
      const toRight = i === n - 1 ? G / Math.max(reach - (i + 0.5) * dx, 0.25 * dx) : G / dx;
      diagonal[i] = toLeft + toRight + leak(i);
      if (i > 0) lower[i] = -toLeft;
      if (i < n - 1) upper[i] = -toRight;
      if (i === 0) right[i] = toLeft * PRESSURE;
    }
    for (let i = 1; i < n; i++) {
      const by = lower[i] / diagonal[i - 1];
      diagonal[i] -= by * upper[i - 1];
      right[i] -= by * right[i - 1];
    }
    const p = new Float64Array(n);
    for (let i = n - 1; i >= 0; i--) p[i] = (right[i] - (i < n - 1 ? upper[i] * p[i + 1] : 0)) / diagonal[i];
    return p;
  }
});
