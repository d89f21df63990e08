import { writeFileSync } from 'node:fs';
import type { DemoRun } from '../src/demo/runs.ts';
import { demoJobs, demoShop } from '../src/demo/jobs.ts';
import { demoMoulds } from '../src/demo/moulds.ts';
import { createRandom, normalOf } from '@wick/core/random';
import { laidOut } from '../src/job/laid.ts';
import { shapesFor } from '../src/infusion/operator.ts';
import { bookedOf } from '../src/review/book.ts';
import { causesOf } from '../src/review/causes/rank-run.ts';
import { observed } from '../src/review/causes/observe.ts';
import { evidenceOf } from '../src/review/evidence.ts';
import { fillReviewOf } from '../src/review/fill-review.ts';
import { comparedOf } from '../src/review/measured.ts';
import { sharesOf } from '../src/review/shares.ts';
import { oneShops, simulateRun, type MadeCause } from '../src/review/simulated-run.ts';
import { runStateOf } from '../src/run/state.ts';

/**
 * Makes the demo workshop's parts anew on the engine and writes them to plan/src/demo/runs.json: kerb plates whose stack takes resin
 * worse than the library says, the last of them not reviewed yet. Run it when what a review keeps of a part has changed.
 */
const NAME = 'Footbridge kerb plate';
const PARTS = 13;
const WEEK = 7 * 86_400_000;
const START = Date.parse('2026-07-28T06:30:00Z');
/** By which the demo's stack differs from what its library says, and from part to part. */
const TRUE_FACTOR = 0.74;
const SCATTER = 0.05;
const troubles: Readonly<Record<number, MadeCause>> = { 3: 'race', 7: 'leak', 10: 'leak', 13: 'leak' };
const fineness = { nodeCount: 300, steps: 40 };
const hands = ['Ada', 'Bo', 'Cem'];

const document = demoJobs.find(({ name }) => name === NAME)!;
const job = laidOut(document);
const shapes = shapesFor(job, demoShop, fineness);
const random = createRandom(2026);
const runs: DemoRun[] = [];
for (let number = 1; number <= PARTS; number++) {
  const cause = troubles[number] ?? null;
  const factor = TRUE_FACTOR * Math.exp(SCATTER * normalOf(random));
  const from = START + (number - 1) * WEEK + Math.floor(random() * 2 * 3600_000);
  const made = simulateRun(job, demoShop, {
    ...{ cause, seed: 40 + number, shapes, fineness, from },
    also: [{ kind: 'permeabilityOff', factor }],
    drawnFrom: oneShops(job),
  });
  const by = hands[number % hands.length]!;
  const state = runStateOf(made.entries);
  const fill = fillReviewOf({ job, shop: demoShop, state, readings: made.readings, shapes });
  const compared = comparedOf(job, demoShop, state, fill);
  const answers = observed({ job, shop: demoShop, state, readings: made.readings, fill, compared });
  const places = fill?.infusion.seen.map(({ x, y }) => ({ x, y })) ?? [];
  const evidence = evidenceOf(
    job,
    demoShop,
    state,
    fill,
    sharesOf({ job, shop: demoShop, places }, fineness),
  );
  const last = Math.max(...made.entries.map(({ at }) => Date.parse(at)));
  const booked = bookedOf({
    ...{ job, state, fill, compared, answers, evidence },
    mould: demoMoulds.find(({ id }) => id === job.mould?.id) ?? null,
    causes: cause === null ? [] : causesOf(answers, { edits: demoShop.causes, before: [] }).ranked,
    outcome: cause === 'leak' ? 'scrap' : cause === null ? 'good' : 'rework',
    cost: cause === 'leak' ? 410 : cause === null ? null : 60,
  });
  if (cause !== null) booked.figures.causeId = cause;
  const isReviewed = number < PARTS;
  const said = [
    ...made.entries.map(({ at, body }) => ({ at, body })),
    ...(isReviewed ? [{ at: new Date(last + 600_000).toISOString(), body: booked }] : []),
  ];
  runs.push({
    id: `demo-kerb-${number}`,
    jobName: NAME,
    startedAt: new Date(from).toISOString(),
    entries: said
      .sort((a, b) => a.at.localeCompare(b.at))
      .map(({ at, body }, n) => ({
        id: `demo-${number}-${n}`,
        at,
        by,
        body: renamed(body, made.entries, number, said),
      })),
  });
  console.log(
    number,
    cause ?? '–',
    factor.toFixed(2),
    fill?.wetAt && Math.round(fill.wetAt / 60),
    compared.length,
    said.length,
  );
}
writeFileSync(new URL('../src/demo/runs.json', import.meta.url), `${JSON.stringify(runs)}\n`);

/** Entries that name others name them by their new ids. */
function renamed<T extends { kind: string }>(
  body: T,
  entries: readonly { id: string; at: string; body: { kind: string } }[],
  number: number,
  said: readonly { body: unknown }[],
): T {
  const idOf = (id: string) => {
    const own = entries.find((entry) => entry.id === id);
    const place = said.findIndex((one) => own !== undefined && one.body === own.body);
    return place < 0 ? id : `demo-${number}-${place}`;
  };
  const copy = { ...body } as T & { mixId?: string; shutId?: string };
  if (copy.mixId !== undefined) copy.mixId = idOf(copy.mixId);
  if (copy.shutId !== undefined) copy.shutId = idOf(copy.shutId);
  return copy;
}
