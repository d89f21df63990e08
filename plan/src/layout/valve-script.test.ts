import { prelude, runConditionsOf } from '../resin/run.ts';
import { describe, expect, test } from '@jest/globals';
import { forecastJob, timelineOf } from '../forecast/assess.ts';
import { demoShop } from '../demo/jobs.ts';
import type { JobAction } from '@wick/contract/job/job';
import { jobOf, laidOut, type LaidJob } from '../job/laid.ts';
import { act, laidDemos, withLine } from '../test/laid-demos.ts';
import { clockOf } from '@wick/core/verdict/verdict';
import type { FlowForecast } from '@wick/core/flow/forecast';
import { typedTimes, valveScript } from './valve-script.ts';

const gore = laidDemos[0]!;
const RESOLUTION = { nodeCount: 600, steps: 60, layers: false, soft: false };
const show = (value: number, quantity: 'length' | 'mass') =>
  quantity === 'length' ? `${value * 1000} mm` : `${value} kg`;
const clockTimeOf = (job: LaidJob, flow: FlowForecast) => {
  const run = runConditionsOf(job, demoShop)!;
  return timelineOf(flow, clockOf(run), run.openTime).clockTime;
};
const scriptOf = (job: LaidJob) => {
  const flow = forecastJob(job, demoShop, RESOLUTION);
  return { flow, steps: valveScript(job, flow, { clockTime: clockTimeOf(job, flow), show }) };
};
const lineWith = (id: string, actions: JobAction[], startsOpen = false) =>
  withLine(gore, id, { startsOpen, actions });

describe('the valve script', () => {
  test('calls vents, then the first feed, then each turn in the order the forecast comes to it', () => {
    const { flow, steps } = scriptOf(gore);
    expect(steps.map(({ order }) => order)).toEqual([
      'check that Vent is open',
      'open Feed 1',
      'open Feed 2',
      'open Feed 3',
    ]);
    expect(steps[1]!.time).toBe(prelude(gore).open);
    expect(steps[2]!.cue).toBe('When the front has passed Feed 2');
    const opened = flow.events.find(({ lineId, kind }) => lineId === 'feed-2' && kind === 'opens')!;
    expect(steps[2]!.time).toBe(clockTimeOf(gore, flow)(opened.time));
  });

  test('says every trigger in words, with distance and delay', () => {
    const cue = (when: JobAction['when']) =>
      valveScript(lineWith('feed-3', [act('a', 1, when)]), null, { clockTime: (t) => t, show }).find(
        ({ lineId }) => lineId === 'feed-3',
      )!.cue;
    expect(cue({ kind: 'time', time: 1500 })).toBe('At minute 25:00 from first mix');
    expect(cue({ kind: 'passed', what: 'feed-2', distance: 0.05, delay: 60 })).toBe(
      'When the front has passed Feed 2 and gone 50 mm beyond, 1:00 min after that',
    );
    expect(cue({ kind: 'passed', what: 'feed-2', at: 'middle', distance: 0, delay: 0 })).toBe(
      'When the front has passed the middle of Feed 2',
    );
    expect(cue({ kind: 'passed', what: 'vent-1', distance: 0, delay: 0 })).toBe(
      'When resin stands along Vent',
    );
    expect(cue({ kind: 'drawn', mass: 5, delay: 0 })).toBe('When the pot has given 5 kg');
    expect(cue({ kind: 'zoneFull', zone: 'brake', delay: 0 })).toBe('When Vent brake is wet throughout');
    expect(cue({ kind: 'opened', what: 'feed-2', delay: 0 })).toBe('As soon as Feed 2 is open');
    expect(cue({ kind: 'full', delay: 120 })).toBe('When the whole part is wet, 2:00 min after that');
  });

  test('opens the next feed before it shuts the one before, and puts what never comes last', () => {
    const closing = lineWith(
      'feed-1',
      [
        act('shuts', 0, { kind: 'opened', what: 'feed-2', delay: 0 }),
        act('again', 1, { kind: 'drawn', mass: 90_000, delay: 0 }),
      ],
      true,
    );
    const { steps } = scriptOf(closing);
    const orders = steps.map(({ order }) => order);
    expect(orders.indexOf('open Feed 2')).toBeLessThan(orders.indexOf('shut Feed 1'));
    expect(steps.at(-1)).toMatchObject({ lineId: 'feed-1', actionId: 'again', time: null });
  });

  test('two lines of one name each keep their own minute', () => {
    const twins: LaidJob = { ...gore, lines: gore.lines.map((line) => ({ ...line, name: 'Feed' })) };
    const times = scriptOf(twins).steps.flatMap(({ lineId, time }) =>
      lineId === 'feed-2' || lineId === 'feed-3' ? [time] : [],
    );
    expect(new Set(times).size).toBe(2);
  });

  test('throttling is called by its share', () => {
    const { steps } = scriptOf(
      lineWith(
        'feed-1',
        [act('less', 0.25, { kind: 'passed', what: 'feed-2', distance: 0, delay: 0 })],
        true,
      ),
    );
    expect(steps.find(({ actionId }) => actionId === 'less')!.order).toBe('throttle to 25 % Feed 1');
  });
});

/** Largest difference of two fields over all nodes, NaN only where both are. */
function largestGap(a: Float64Array, b: Float64Array): number {
  let most = 0;
  a.forEach((value, i) => {
    expect(Number.isNaN(value)).toBe(Number.isNaN(b[i]!));
    if (!Number.isNaN(value)) most = Math.max(most, Math.abs(value - b[i]!));
  });
  return most;
}

describe('a triggered sequence and the minutes it comes to', () => {
  const closing = withLine(gore, 'feed-1', {
    actions: [act('shuts', 0, { kind: 'opened', what: 'feed-3', delay: 120 })],
  });
  const drawn = lineWith('feed-3', [act('opens', 1, { kind: 'drawn', mass: 6, delay: 60 })]);

  test.each([
    ['opened as the front passes', gore],
    ['with the first feed shut after a delay', closing],
    ['by resin drawn, after a delay', drawn],
  ])('give the same front: %s', (_, job) => {
    const { flow, steps } = scriptOf(job);
    const typed = laidOut(typedTimes(steps)(jobOf(job)));
    const turned = typed.lines.flatMap(({ actions }) => actions);
    expect(turned.length).toBeGreaterThan(1);
    expect(turned.every(({ when }) => when.kind === 'time')).toBe(true);
    const again = forecastJob(typed, demoShop, RESOLUTION);
    // An event is placed to a sixteenth of a step, and a step brings about a sixtieth of the fill.
    const step = Math.max(...flow.samples.slice(1).map(({ time }, i) => time - flow.samples[i]!.time));
    expect(largestGap(flow.arrival, again.arrival)).toBeLessThan(step);
    const last = flow.fillTime;
    expect(Math.abs(again.fillTime - last) / last).toBeLessThan(0.01);
  });
});
