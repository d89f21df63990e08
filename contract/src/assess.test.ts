import { describe, expect, test } from '@jest/globals';
import { assess, COARSE_NODES, summaryOf } from './assess.ts';
import { demoJobs, demoShop } from './demo/jobs.ts';
import {
  assumptionsOf,
  flowRequestOf,
  ledgerRequestOf,
  missingOf,
  partArea,
  stackOf,
} from './forecast-input.ts';
import { emptyJob, type Job } from './job.ts';
import { likelyWords, verdictSentence } from './words.ts';

const [gore, spinner] = demoJobs as [Job, Job];
const withThirdFeedAt = (x: number): Job => ({
  ...gore,
  lines: gore.lines.map((line) =>
    line.id === 'feed-3' ? { ...line, points: line.points.map((p) => ({ ...p, x })) } : line,
  ),
});

describe('demo jobs', () => {
  test('the dome gore starts out failing, and its third feed further on mends it', () => {
    const failing = assess(gore, demoShop, COARSE_NODES).verdict!;
    expect(failing.band).toBe('willNotFill');
    expect(verdictSentence(failing)).toMatch(
      /^Will not fill: the resin gels at .* of the part wet; about \d+ in 100 fill\.$/,
    );
    const mended = assess(withThirdFeedAt(2.2), demoShop, COARSE_NODES).verdict!;
    expect(['comfortable', 'tight']).toContain(mended.band);
    expect(mended.chance).toBeGreaterThan(failing.chance);
    expect(summaryOf(failing, 3)).toMatchObject({ revision: 3, fillTime: null });
  });

  test('the spinner fills comfortably', () => {
    const { verdict, flow } = assess(spinner, demoShop, COARSE_NODES);
    expect(verdict!.band).toBe('comfortable');
    expect(flow.dryRegions).toEqual([]);
    expect(likelyWords(verdict!)).toMatch(/^\d+ to \d+ min$/);
  });

  test('coarse and fine forecasts of the gore agree within 5 %', () => {
    const job = withThirdFeedAt(2.2);
    const [coarse, fine] = [COARSE_NODES, 3000].map((nodes) => assess(job, demoShop, nodes).flow.fillTime);
    expect(Math.abs(coarse! / fine! - 1)).toBeLessThan(0.05);
  });
});

describe('stored job to solver input', () => {
  test('blanks become named assumptions; typed values do not', () => {
    expect(assumptionsOf(spinner, demoShop).map((item) => item.label)).toEqual([
      'Resin temperature',
      'Degassing',
      'Filling the hose',
      'Feed hose',
      'Vacuum at the vent',
      'Ambient pressure',
    ]);
    expect(assumptionsOf(gore, { ...demoShop, ambientPressure: 93_900 })).toEqual([]);
  });

  test('altitude lowers the pressure that drives the resin', () => {
    const [low, high] = [0, 2000].map((altitude) => flowRequestOf(gore, { ...demoShop, altitude }, 500));
    expect(low!.feedPressure).toBeCloseTo(101_325, 0);
    expect(high!.feedPressure).toBeLessThan(0.8 * low!.feedPressure);
  });

  test('one ply more changes thickness, mass, resin and flow together', () => {
    const more: Job = {
      ...gore,
      laminate: {
        ...gore.laminate,
        plies: [...gore.laminate.plies, { ...gore.laminate.plies[0]!, id: 'extra' }],
      },
    };
    const [a, b] = [gore, more].map((job) => stackOf(job, demoShop));
    for (const key of ['laminateThickness', 'fibreWeight', 'resinInPlies'] as const)
      expect(b![key] / a![key]).toBeCloseTo(5 / 4, 9);
    expect(ledgerRequestOf(more, b!)!.resinInPlies).toBe(b!.resinInPlies);
    expect(flowRequestOf(more, demoShop, 500).storage).toBe(b!.storage);
  });

  test('what a new job lacks is listed with its stage', () => {
    expect(missingOf(emptyJob('New')).map((item) => item.stage)).toEqual([
      'laminate',
      'lines',
      'lines',
      'resin',
    ]);
    expect(partArea(emptyJob('New').part)).toBeCloseTo(0.96, 12);
  });
});
