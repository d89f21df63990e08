import { describe, expect, test } from '@jest/globals';
import { across, feedLine, plainZone, strip, stripEnds } from '../test/layouts.ts';
import { forecastFlow } from './forecast.ts';
import type { LayoutAction, LayoutTrigger } from './layout.ts';
import { createSequence, type SequenceState } from './sequence.ts';

const state = (changes: Partial<SequenceState> = {}): SequenceState => ({
  time: 0,
  level: new Float64Array(10),
  drawn: 0,
  opening: new Float64Array(2),
  ...changes,
});
const levels = (...full: number[]) => Float64Array.from({ length: 10 }, (_, i) => (full.includes(i) ? 1 : 0));

describe('a sequence of actions', () => {
  test('each trigger holds when, and only when, its own condition does', () => {
    const nodes = Int32Array.of(3, 4);
    const sequence = createSequence(
      [
        { gate: 0, opening: 1, when: { kind: 'time', time: 50 } },
        { gate: 0, opening: 0, when: { kind: 'wet', nodes } },
        { gate: 1, opening: 1, when: { kind: 'drawn', volume: 2 } },
        { gate: 1, opening: 0, when: { kind: 'opened', gate: 0 } },
      ],
      2,
      undefined,
    );
    expect(sequence.due(state())).toEqual([]);
    expect(sequence.due(state({ time: 49.9 }))).toEqual([]);
    expect(sequence.due(state({ time: 50 }))).toEqual([0]);
    expect(sequence.due(state({ level: levels(3) }))).toEqual([]);
    expect(sequence.due(state({ level: levels(3, 4) }))).toEqual([1]);
    expect(sequence.due(state({ drawn: 1.99 }))).toEqual([]);
    expect(sequence.due(state({ drawn: 2 }))).toEqual([2]);
    expect(sequence.due(state({ opening: Float64Array.of(0.3, 0) }))).toEqual([3]);
    expect(sequence.nextTime()).toBe(50);
  });

  test('what is taken does not come again; a delay puts it back with its time', () => {
    const sequence = createSequence(
      [
        { gate: 0, opening: 1, when: { kind: 'drawn', volume: 1, delay: 30 } },
        { gate: 1, opening: 0.5, when: { kind: 'drawn', volume: 1 } },
      ],
      2,
      (time, seconds) => time + seconds / 10,
    );
    const due = sequence.due(state({ drawn: 1 }));
    expect(sequence.take(due, 7).map(({ gate }) => gate)).toEqual([1]);
    expect(sequence.due(state({ drawn: 5 }))).toEqual([]);
    expect(sequence.nextTime()).toBeCloseTo(10, 12);
    expect(sequence.waiting()).toHaveLength(1);
    expect(sequence.take(sequence.due(state({ time: 10 })), 10).map(({ gate }) => gate)).toEqual([0]);
    expect(sequence.nextTime()).toBe(Infinity);
  });
});

test('a place that holds no node is never wet', () => {
  const nowhere = { kind: 'wet' as const, nodes: new Int32Array(0) };
  const sequence = createSequence([{ gate: 0, opening: 1, when: nowhere }], 1, undefined);
  expect(sequence.due(state({ level: new Float64Array(10).fill(1) }))).toEqual([]);
});

describe('triggers of a layout', () => {
  const width = 0.2;
  const [T, S, DROP] = [2e-12, 1e-3, 92_000];
  const stripTime = (x: number) => (S * x * x) / (2 * T * DROP);
  const run = (when: LayoutTrigger, opening = 1, extra: LayoutAction[] = [], isBrake = false) =>
    forecastFlow({
      outline: strip(1, width),
      holes: [],
      lines: [
        { ...stripEnds(1, width)[0]!, actions: extra },
        stripEnds(1, width)[1]!,
        feedLine({
          id: 'second',
          name: 'Second',
          points: across(0.4, width),
          startsOpen: false,
          actions: [{ opening, when }],
        }),
      ],
      marks: [{ id: 'mark', name: 'Mark', x: 0.6, y: 0.1 }],
      zones: [
        plainZone({ T, S }),
        {
          isBrake,
          ...plainZone({
            T,
            S,
            outline: [
              { x: 0.2, y: -1 },
              { x: 0.5, y: -1 },
              { x: 0.5, y: 1 },
              { x: 0.2, y: 1 },
            ],
          }),
        },
      ],
      later: (time, seconds) => time + seconds,
      feedPressure: 94_000,
      vacuumPressure: 2_000,
      density: 1130,
      nodeCount: 1500,
    });
  const opens = (forecast: ReturnType<typeof run>) =>
    forecast.events.find(({ lineId, kind }) => lineId === 'second' && kind !== 'reached')?.time ?? NaN;

  test.each<[string, LayoutTrigger, number]>([
    ['its own line passed', { kind: 'passed', what: 'second', distance: 0, delay: 0 }, stripTime(0.4)],
    ['100 mm beyond its line', { kind: 'passed', what: 'second', distance: 0.1, delay: 0 }, stripTime(0.5)],
    ['a mark passed', { kind: 'passed', what: 'mark', distance: 0, delay: 0 }, stripTime(0.6)],
    ['a zone full', { kind: 'zoneFull', zone: 1, delay: 0 }, stripTime(0.5)],
    ['resin drawn', { kind: 'drawn', volume: 0.45 * width * S, delay: 0 }, stripTime(0.45)],
    ['a time', { kind: 'time', time: 300 }, 300],
    [
      'a delay after its line',
      { kind: 'passed', what: 'second', distance: 0, delay: 200 },
      stripTime(0.4) + 200,
    ],
  ])('%s: the line opens when the front of the strip is there', (_, when, expected) => {
    expect(Math.abs(opens(run(when)) / expected - 1)).toBeLessThan(0.04);
  });

  test('a slanting line counts as passed by its first place, its middle or its last; a distance runs on from there', () => {
    const time = (at: 'first' | 'middle' | 'last' | undefined, distance = 0) => {
      const { events } = forecastFlow({
        outline: strip(1, width),
        holes: [],
        lines: [
          ...stripEnds(1, width),
          feedLine({
            id: 'second',
            name: 'Second',
            points: [
              { x: 0.3, y: 0 },
              { x: 0.5, y: width },
            ],
            startsOpen: false,
            actions: [
              { id: 'opens', opening: 1, when: { kind: 'passed', what: 'second', at, distance, delay: 0 } },
            ],
          }),
        ],
        zones: [plainZone({ T, S })],
        feedPressure: 94_000,
        vacuumPressure: 2_000,
        density: 1130,
        nodeCount: 1500,
      });
      return events.find(({ lineId, kind }) => lineId === 'second' && kind === 'opens')!.time;
    };
    for (const [opened, x] of [
      [time('first'), 0.3],
      [time('middle'), 0.4],
      [time('last'), 0.5],
      [time(undefined), 0.5],
      [time('middle', 0.1), 0.5],
    ] as const)
      expect(Math.abs(opened / stripTime(x) - 1)).toBeLessThan(0.06);
  });

  test('a brake that has to be full waits for its own nodes, though they do not count as part', () => {
    const opened = opens(run({ kind: 'zoneFull', zone: 1, delay: 0 }, 1, [], true));
    expect(Math.abs(opened / stripTime(0.5) - 1)).toBeLessThan(0.04);
  });

  test('a throttled hose fills later than an open one, sooner than none', () => {
    const passed: LayoutTrigger = { kind: 'passed', what: 'second', distance: 0, delay: 0 };
    const hosed = (opening: number) =>
      forecastFlow({
        outline: strip(1, width),
        holes: [],
        lines: [
          ...stripEnds(1, width),
          feedLine({
            id: 'second',
            name: 'Second',
            points: across(0.4, width),
            startsOpen: false,
            hose: { length: 1, bore: 0.004 },
            actions: [{ opening, when: passed }],
          }),
        ],
        zones: [plainZone({ T, S })],
        feedPressure: 94_000,
        vacuumPressure: 2_000,
        density: 1130,
        nodeCount: 800,
      }).fillTime;
    const [shut, throttled, open] = [0, 0.1, 1].map(hosed);
    expect(open!).toBeLessThan(throttled!);
    expect(throttled!).toBeLessThan(shut!);
  });

  test('shutting the first line as the second opens, and the whole part as a trigger', () => {
    const second: LayoutTrigger = { kind: 'passed', what: 'second', distance: 0, delay: 0 };
    const forecast = run(second, 1, [{ opening: 0, when: { kind: 'opened', what: 'second', delay: 0 } }]);
    const shut = forecast.events.find(({ lineId, kind }) => lineId === 'feed' && kind === 'closes')!;
    expect(shut.time).toBeCloseTo(opens(forecast), 9);
    expect(shut.filled).toBeGreaterThan(0.38);
    expect(forecast.isFilled).toBe(true);
    expect(forecast.marks[0]!.arrival).toBeGreaterThan(shut.time);
    expect(run({ kind: 'full', delay: 0 }).isFilled).toBe(true);
  });
});
