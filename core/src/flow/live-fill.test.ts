import { describe, expect, test } from '@jest/globals';
import { rectangle } from '../geometry/shapes.ts';
import { forecastFlow } from './forecast.ts';
import type { ForecastRequest, LayoutLine } from './layout.ts';
import { createLiveFill } from './live-fill.ts';
import { valueAt } from './probe.ts';

const T = 1.5e-12; // permeability x thickness, m3
const S = 1.2e-3; // porosity x thickness, m
const DROP = 9e4;
const across = (x: number) => [
  { x, y: 0 },
  { x, y: 0.2 },
];
const line = (id: string, kind: LayoutLine['kind'], x: number, startsOpen = true): LayoutLine => ({
  ...{ id, name: id, kind, points: across(x), bore: 0.01, startsOpen, actions: [] },
});
const layer = {
  ...{ name: 'Averaged', storage: S, toNext: 0, isSoft: true },
  transmissibility: { xx: T, yy: T, xy: 0 },
};
const strip: ForecastRequest = {
  outline: rectangle({ length: 1, width: 0.2 }),
  holes: [],
  lines: [line('feed', 'feed', 0), line('middle', 'feed', 0.5, false), line('vent', 'vent', 1)],
  zones: [{ name: 'Part', outline: null, layers: [layer], soft: null, thickness: 2e-3 }],
  feedPressure: DROP,
  vacuumPressure: 0,
  density: 1,
  nodeCount: 800,
};
/** Darcy on a strip, in fluidity time: t = S x^2 / (2 T dp). Rudd et al. 1997. */
const stripTime = (x: number, drop = DROP) => (S * x * x) / (2 * T * drop);
const at = (fill: ReturnType<typeof createLiveFill>, x: number) =>
  valueAt(fill.mesh, fill.arrival().bagSide, { x, y: 0.1 });
/** In so many pieces. */
const passTo = (fill: ReturnType<typeof createLiveFill>, to: number, pieces = 40) => {
  const from = fill.time();
  for (let n = 1; n <= pieces; n++) fill.pass(from + ((to - from) * n) / pieces);
};

describe('a fill that goes on by hand', () => {
  test('in pieces it is the strip of the closed form, within 1 %', () => {
    const fill = createLiveFill(strip);
    passTo(fill, stripTime(0.8));
    for (const x of [0.3, 0.5, 0.7]) expect(at(fill, x) / stripTime(x)).toBeCloseTo(1, 2);
    expect(fill.drawn() / (S * 0.2)).toBeCloseTo(0.8, 2);
    expect(fill.isFull()).toBe(false);
    passTo(fill, stripTime(1.1));
    expect(fill.isFull()).toBe(true);
    expect(fill.filledAt() / stripTime(1)).toBeCloseTo(1, 2);
  });

  test('a shut feed stops it, and it goes on where it stood', () => {
    const fill = createLiveFill(strip);
    passTo(fill, stripTime(0.5));
    fill.turn('feed', 0);
    passTo(fill, 3 * stripTime(0.5));
    expect(fill.drawn() / (S * 0.2)).toBeCloseTo(0.5, 2);
    fill.turn('feed', 1);
    passTo(fill, 2 * stripTime(0.5) + stripTime(0.8));
    // The wait of twice the time to the middle comes on top.
    expect(at(fill, 0.7) - 2 * stripTime(0.5)).toBeCloseTo(
      stripTime(0.7),
      -Math.log10(0.02 * stripTime(0.7)),
    );
  });

  test('half the pressure takes twice the time from there on', () => {
    const fill = createLiveFill(strip);
    passTo(fill, stripTime(0.5));
    fill.drive(0.5);
    passTo(fill, stripTime(0.5) + 2 * (stripTime(0.8) - stripTime(0.5)));
    expect(fill.drawn() / (S * 0.2)).toBeCloseTo(0.8, 2);
  });

  test('a second feed opened at the front halves the way: x^2 from there', () => {
    const fill = createLiveFill(strip);
    passTo(fill, stripTime(0.5));
    fill.turn('middle', 1);
    passTo(fill, stripTime(0.5) + stripTime(0.4));
    const reached = (at(fill, 0.8) - stripTime(0.5)) / stripTime(0.3);
    expect(reached).toBeCloseTo(1, 1);
  });

  test('another run goes on from its state and ends as one that was never stopped', () => {
    const fill = createLiveFill(strip);
    passTo(fill, stripTime(0.6));
    const rest = forecastFlow({ ...strip, start: fill.state() });
    expect(rest.fillTime / stripTime(1)).toBeCloseTo(1, 2);
  });
});

describe('a run that is told to stop', () => {
  test('stands where the strip stands then, and its rest makes it whole', () => {
    const stopped = forecastFlow({ ...strip, stopAt: stripTime(0.6) });
    expect(stopped.state!.time).toBeCloseTo(stripTime(0.6), 0);
    expect(stopped.state!.drawn / (S * 0.2)).toBeCloseTo(0.6, 2);
    const rest = forecastFlow({ ...strip, start: stopped.state! });
    expect(rest.fillTime / stripTime(1)).toBeCloseTo(1, 2);
    expect(forecastFlow(strip).state).toBeNull();
  });
});
