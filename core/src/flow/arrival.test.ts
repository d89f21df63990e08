import { describe, expect, test } from '@jest/globals';
import { feedLine, plainZone, strip, stripEnds } from '../test/layouts.ts';
import { forecastFlow } from './forecast.ts';
import type { ForecastRequest } from './layout.ts';

const [T, S, DROP] = [1.5e-12, 1e-3, 92_000];
const [LENGTH, WIDTH] = [1, 0.6];

const run = (changes: Partial<ForecastRequest>) =>
  forecastFlow({
    ...{
      outline: strip(LENGTH, WIDTH),
      holes: [],
      lines: stripEnds(LENGTH, WIDTH),
      zones: [plainZone({ T, S })],
    },
    ...{ feedPressure: 94_000, vacuumPressure: 94_000 - DROP, density: 1130, nodeCount: 2000 },
    ...changes,
  });
const marksAt = (...xs: number[]) => xs.map((x) => ({ id: `${x}`, name: `${x}`, x, y: 0.31 }));

describe('when the front passes a place', () => {
  test('between nodes is read between them: a strip to one per cent anywhere', () => {
    const xs = [0.107, 0.23, 0.333, 0.611, 0.87];
    const { marks } = run({ marks: marksAt(...xs) });
    marks.forEach(({ arrival }, n) =>
      expect(Math.abs(arrival / ((S * xs[n]! ** 2) / (2 * T * DROP)) - 1)).toBeLessThan(0.01),
    );
  });

  test.each([
    [2, 4],
    [0.1, 3],
    [5, 0.2],
  ])('on a border to a laminate of %d times the flow and %d times the pores within 1 %%', (flow, pores) => {
    // Darcy, zones in series: dp = v mu (a / T1 + (x - a) / T2), integrated over the pores filled.
    const from = 0.4;
    const zone = plainZone({
      ...{ T: flow * T, S: pores * S },
      outline: [
        { x: from, y: -0.1 },
        { x: 0.7, y: -0.1 },
        { x: 0.7, y: 0.7 },
        { x: from, y: 0.7 },
      ],
    });
    const { marks } = run({ zones: [plainZone({ T, S }), zone], marks: marksAt(from, 0.55, 0.7) });
    const exact = (x: number) => {
      const first = (S * from ** 2) / (2 * T);
      const own = pores * S * ((x - from) ** 2 / (2 * flow * T) + (from * (x - from)) / T);
      return (first + own) / DROP;
    };
    marks.forEach(({ arrival }, n) =>
      expect(Math.abs(arrival / exact([from, 0.55, 0.7][n]!) - 1)).toBeLessThan(0.01),
    );
  });

  test('beside a race is when resin stands in it, not when half a cell of laminate is wet', () => {
    const race = feedLine({
      ...{ id: 'race', name: 'Race', kind: 'race', bore: 4e-3 },
      points: [
        { x: 0, y: 0 },
        { x: LENGTH, y: 0 },
      ],
    });
    const lines = [...stripEnds(LENGTH, WIDTH), race];
    const marks = [0.3, 0.6, 0.9].map((x) => ({ id: `${x}`, name: `${x}`, x, y: 0 }));
    const [coarse, fine] = [800, 12_000].map((nodeCount) => run({ lines, marks, nodeCount }).marks);
    coarse!.forEach(({ arrival }, n) => expect(Math.abs(arrival / fine![n]!.arrival - 1)).toBeLessThan(0.04));
  });

  test('at a mark that an opening waits for is timed at the mark itself', () => {
    const place = { id: 'm', name: 'M', x: 0.4137, y: 0.2951 };
    const second = feedLine({
      id: 'second',
      name: 'Second',
      points: [{ x: 0.9, y: 0.1 }],
      startsOpen: false,
      actions: [{ opening: 1, when: { kind: 'passed', what: 'm', distance: 0, delay: 0 } }],
    });
    const { events } = run({ marks: [place], lines: [...stripEnds(LENGTH, WIDTH), second], nodeCount: 500 });
    const opens = events.find(({ lineId, kind }) => lineId === 'second' && kind === 'opens')!;
    expect(Math.abs(opens.time / ((S * place.x ** 2) / (2 * T * DROP)) - 1)).toBeLessThan(0.03);
  });
});
