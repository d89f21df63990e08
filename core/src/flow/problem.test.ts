import { describe, expect, test } from '@jest/globals';
import type { ResinSystem } from '../resin/resin-system.ts';
import { feedLine, plainZone, strip, stripEnds } from '../test/layouts.ts';
import type { LayoutAction } from './layout.ts';
import { requestOf, solveFlow, type FlowProblem } from './problem.ts';

const T20 = 293.15;
const VISCOSITY = 0.3;
const GEL = 6000;
const OPEN = 600;
/** Of one viscosity until it gels, so that a fluidity time is seconds over viscosity, by hand. */
const resin: ResinSystem = {
  name: 'Plain',
  density: 1100,
  viscosityPoints: [{ temperature: T20, viscosity: VISCOSITY }],
  gelPoints: [{ temperature: T20, time: GEL }],
  gelViscosityRatio: 1 + 1e-9,
  hardenerParts: 30,
};
const run = { resin, temperature: T20, openTime: OPEN };
const at = (time: number): LayoutAction => ({ opening: 0, when: { kind: 'time', time } });

const problem = (changes: Partial<FlowProblem> = {}): FlowProblem => ({
  outline: strip(1, 0.1),
  holes: [],
  // Permeability 1e-10 m2 and half pores in 4 mm.
  zones: [plainZone({ T: 4e-13, S: 2e-3 })],
  lines: stripEnds(1, 0.1),
  density: 1100,
  feedPressure: 1e5,
  vacuumPressure: 0,
  run,
  moving: null,
  settles: false,
  ...changes,
});
const timesOf = (given: FlowProblem, ...times: number[]) => {
  const lines = [feedLine({ points: [{ x: 0, y: 0 }], actions: times.map(at) })];
  const [line] = requestOf({ ...given, lines }, { nodeCount: 100 }).lines;
  return line!.actions.map(({ when }) => (when.kind === 'time' ? when.time : NaN));
};

describe('clock of a flow problem', () => {
  test('minutes since first mix become fluidity times: none before the feed opens, never after gel', () => {
    const [before, then, past] = timesOf(problem(), 300, 1500, GEL + 1);
    expect(before).toBe(0);
    expect(then).toBeCloseTo((1500 - OPEN) / VISCOSITY, 1);
    expect(past).toBe(Infinity);
  });

  test('a delay is seconds on the clock, and one that ends after gel never ends', () => {
    const { later } = requestOf(problem(), { nodeCount: 100 });
    expect(later!(1000, 90)).toBeCloseTo(1000 + 90 / VISCOSITY, 3);
    expect(later!(1000, GEL)).toBe(Infinity);
  });

  test('with a resin of its own the run counts seconds from the opening of the feed', () => {
    const moving = { temperatures: [T20], batches: [] };
    expect(timesOf(problem({ moving }), 300, 1500)).toEqual([0, 900]);
    expect(requestOf(problem({ moving }), { nodeCount: 100 }).later!(1000, 90)).toBe(1090);
  });

  const first = { pot: 0, mixedAt: 0, pouredAt: 0, mass: 5, volume: 0.005 };

  test('the mould warms by its drift from first mix on; a batch counts from when it is poured', () => {
    const second = { ...first, mixedAt: 1200, pouredAt: 1500 };
    const moving = { temperatures: [T20, 300], batches: [first, second] };
    const given = problem({ moving, run: { ...run, drift: 0.001 } });
    const { temperature, inletState } = requestOf(given, { nodeCount: 100 }).resin!;
    expect(temperature(1, 400)).toBeCloseTo(300 + 0.001 * (OPEN + 400), 9);
    // Just before it is poured, and just after: then less than a fifth is left of the first.
    expect(inletState(1500 - OPEN + 1, 0.0045)).toBeLessThan(0.5 * inletState(1500 - OPEN - 1, 0.0045));
    expect(inletState(GEL, 0.0045)).toBeGreaterThanOrEqual(inletState(GEL - OPEN, 0.0045));
  });

  test('each batch is as old as in its own bucket: a large one that warms ages sooner than a cup', () => {
    const state = (mass: number) => {
      const moving = {
        temperatures: [T20],
        batches: [first, { ...first, mixedAt: 1200, pouredAt: 1200, mass }],
      };
      const given = problem({ moving, run: { ...run, pot: { mass: 0.1, ambient: T20 } } });
      return requestOf(given, { nodeCount: 100 }).resin!.inletState(0.25 * GEL + 600, 0.005);
    };
    expect(state(10)).toBeGreaterThan(1.003 * state(0.1));
  });

  test('feeds draw from pots of their own: each pot gives what its own side takes, and its own resin', () => {
    const [feed, vent] = problem().lines;
    const sides = [0, 1].map((pot) => ({
      ...feed!,
      ...{ id: `feed-${pot}`, name: `Feed ${pot}`, pot },
      points: feed!.points.map(({ y }) => ({ x: pot, y })),
    }));
    const middle = { ...vent!, points: vent!.points.map(({ y }) => ({ x: 0.3, y })) };
    const later = { ...first, pot: 1, mixedAt: OPEN, pouredAt: OPEN };
    const moving = { temperatures: [T20], batches: [first, later] };
    const flow = solveFlow(problem({ lines: [...sides, middle], moving }), { nodeCount: 600 });
    const last = flow.samples.at(-1)!;
    // The far side has seven tenths of the pores to fill (2e-4 m3 in all); the near one goes on into the vent.
    expect(last.enteredBy[1]! / (0.7 * 2e-4)).toBeCloseTo(1, 1);
    expect(last.enteredBy[0]!).toBeGreaterThan(1.5 * 0.3 * 2e-4);
    expect(last.enteredBy[0]! + last.enteredBy[1]!).toBeCloseTo(last.entered, 9);
    const ageAt = (x: number) => {
      const { positions, nodeCount } = flow.mesh;
      const nodes = Array.from({ length: nodeCount }, (_, i) => i);
      return flow.ageAtArrival![
        nodes.reduce((a, b) => (Math.abs(positions[3 * b]! - x) < Math.abs(positions[3 * a]! - x) ? b : a))
      ]!;
    };
    expect(ageAt(0.05)).toBeGreaterThan(OPEN / GEL);
    expect(ageAt(0.95)).toBeLessThan(0.5 * (OPEN / GEL));
  });

  test('a laminate settles until gel where it is asked to, and not past the run otherwise', () => {
    expect(requestOf(problem({ settles: true }), { nodeCount: 100 }).until).toBeCloseTo(
      (GEL - OPEN) / VISCOSITY,
      1,
    );
    expect(requestOf(problem(), { nodeCount: 100 }).until).toBeUndefined();
  });

  test('without a resin the strip still has its fluidity time: porosity x length squared over twice permeability and pressure', () => {
    const { timeUnit, fillTime } = solveFlow(problem({ run: null }), { nodeCount: 600 });
    expect(timeUnit).toBe('fluidity');
    // Darcy's law in one direction, integrated; a textbook result.
    expect(fillTime / ((0.5 * 1) / (2 * 1e-10 * 1e5))).toBeCloseTo(1, 1);
  });
});
