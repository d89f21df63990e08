import { describe, expect, test } from '@jest/globals';
import { demoShop } from '../demo/jobs.ts';
import { laidDemos } from '../test/laid-demos.ts';
import { COARSE, forecastJob, verdictOf } from './assess.ts';
import { operatorActionsOf, outcomeOf } from './outcome.ts';

const gore = laidDemos[0]!;
const flow = forecastJob(gore, demoShop, COARSE);
const outcome = outcomeOf(gore, demoShop, flow, verdictOf(gore, demoShop, flow)!);

describe('what a layout comes to', () => {
  test('lengths, valves and resin that does not stay, by hand', () => {
    // Three feeds of 0.9, 0.8, 0.7 m and a vent of 0.4 m; three hoses of 1.2 m.
    expect(outcome.lineLength).toBeCloseTo(2.8, 9);
    expect(outcome.hoseLength).toBeCloseTo(3.6, 9);
    expect(outcome.operatorActions).toBe(3);
    const bores = (Math.PI / 4) * 0.012 ** 2 * (2.4 + 3.6) * 1130;
    expect(outcome.wastedResin).toBeGreaterThan(bores);
    expect(outcome).toMatchObject({ band: 'willNotFill', fillTime: null });
  });

  test('lines on one tee are opened by one valve', () => {
    const teed = gore.lines.map((line) => ({
      ...line,
      tee: line.kind === 'feed' ? 'tee-1' : null,
      startsOpen: true,
      actions: [],
    }));
    expect(operatorActionsOf({ ...gore, lines: teed })).toBe(1);
  });
});
