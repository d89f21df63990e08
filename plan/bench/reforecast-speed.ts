import { createRandom, normalOf } from '@wick/core/random';
import { clockOf } from '@wick/core/verdict/verdict';
import { demoJobs, demoShop } from '../src/demo/jobs.ts';
import { wholeAsItGoes } from '../src/infusion/as-it-went.ts';
import { infusionOf } from '../src/infusion/infusion.ts';
import { liveClockOf, priorOf } from '../src/infusion/live-clock.ts';
import { shapesFor } from '../src/infusion/operator.ts';
import { watchedPlaces } from '../src/infusion/watched-places.ts';
import { whatNow } from '../src/infusion/options.ts';
import { frontAt, problemOfShape } from '../src/infusion/problem-shapes.ts';
import { reforecast } from '../src/infusion/reforecast.ts';
import { resinLeftOf } from '../src/infusion/resin-left.ts';
import { laidOut } from '../src/job/laid.ts';
import { runConditionsOf } from '../src/resin/run.ts';
import { runStateOf } from '../src/run/state.ts';
import type { Entry, EntryBody } from '@wick/contract/run/run';

/** How long a re-forecast takes at 2 000 nodes: by the marks alone, run again, and with every way on simulated. Asserts nothing. */
const NODES = 2000;
const fineness = { nodeCount: NODES, steps: 60 };
const job = laidOut(demoJobs.find(({ name }) => name === 'Footbridge kerb plate')!);
const flat = { ...job, forecast: { ...job.forecast, layers: false, soft: false } };
const run = runConditionsOf(flat, demoShop)!;

const timed = <T>(work: () => T, runs = 3): { result: T; ms: number } =>
  Array.from({ length: runs }, () => {
    const start = performance.now();
    const result = work();
    return { result, ms: performance.now() - start };
  }).sort((a, b) => a.ms - b.ms)[0]!;

const shapes = shapesFor(flat, demoShop, fineness);
const random = createRandom(1);
const clock = clockOf(run);
const said: [number, EntryBody][] = [
  [0, { kind: 'mixed', mass: null }],
  [run.openTime - 1, { kind: 'batchPoured', mass: 6 }],
  [run.openTime, { kind: 'valve', lineId: 'feed-1', opening: 1, actionId: null }],
  ...watchedPlaces({ marks: [] }, shapes[0]!).map((place): [number, EntryBody] => [
    clock.timeAtFluidity({
      from: run.openTime,
      fluidity: frontAt(shapes[0]!, place) * Math.exp(0.1 * normalOf(random)),
    }),
    { kind: 'front', markId: null, ...place, doubt: 0.01 },
  ]),
];
const entries = said.map(([at, body], n): Entry => {
  const time = new Date(at * 1000).toISOString();
  return { id: `e${n}`, at: time, writtenAt: time, by: '', device: '', runId: 'r', order: n, body };
});
const state = runStateOf(entries);
const infusion = infusionOf(state, flat);
const now = Math.max(...said.map(([at]) => at)) + 1;
const live = timed(() => liveClockOf(flat, demoShop, infusion, state, [])!);
const asked = {
  shapes,
  infusion,
  clock: live.result,
  prior: priorOf(flat, live.result),
  gelDoubt: 1.15,
  now,
};
const answer = timed(() => reforecast(asked));
console.log(
  `re-forecast on one clock, ${shapes.length} ways of ${NODES} nodes, ${infusion.seen.length} marks: ${(live.ms + answer.ms).toFixed(0)} ms`,
);
const { likeliest } = answer.result;
const problem = problemOfShape(flat, demoShop, likeliest.shape.id);
const again = timed(() =>
  wholeAsItGoes(problem, likeliest.factor, { infusion, clock: live.result, now, fineness }),
);
console.log(`run again with what was turned, ${NODES} nodes: ${again.ms.toFixed(0)} ms`);
const half = run.openTime + 0.4 * (now - run.openTime);
const resin = resinLeftOf(flat, demoShop, infusion, live.result, answer.result);
const ways = timed(
  () =>
    whatNow({
      job: flat,
      problem,
      answer: { likeliest, now: half },
      infusion,
      clock: live.result,
      resin,
      fineness,
    }),
  1,
);
console.log(`what now, ${ways.result.length} ways on from ${NODES} nodes: ${ways.ms.toFixed(0)} ms`);
