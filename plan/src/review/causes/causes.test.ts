import { describe, expect, test } from '@jest/globals';
import { noCauseEdits } from '@wick/contract/shop';
import { demoShop } from '../../demo/jobs.ts';
import { plate } from '../../infusion/test/plate.ts';
import { solvedOnce } from '../../infusion/test/solved-once.ts';
import { runStateOf } from '../../run/state.ts';
import { fillReviewOf } from '../fill-review.ts';
import { comparedOf } from '../measured.ts';
import { simulateRun, type MadeCause } from '../simulated-run.ts';
import { observed } from './observe.ts';
import { causesOf, likelihoodsOf, priorsOf } from './rank-run.ts';
import { causeIds, causes, questions } from './table.ts';

const plain = { edits: noCauseEdits, before: [] };

describe('the table', () => {
  test('the answers to a question are all there is: for every cause they come to one', () => {
    for (const { id, answers } of questions)
      causeIds.forEach((_, c) => {
        const total = answers.reduce((sum, { given }) => sum + given[c]!, 0);
        expect([id, c, Math.round(1000 * total) / 1000]).toEqual([id, c, 1]);
      });
    for (const { answers } of questions)
      for (const { given } of answers) expect(given).toHaveLength(causeIds.length);
    expect(new Set(questions.map(({ id }) => id)).size).toBe(questions.length);
  });

  test('as edited it is the workshop’s; the others of an answer keep what is left', () => {
    const edits = {
      priors: { leak: 0.9 },
      likelihoods: { 'bubbles leak': { none: 1, early: 1, late: 1, outlet: 1 } },
    };
    const given = likelihoodsOf(
      questions.find(({ id }) => id === 'bubbles')!,
      { edits, before: [] },
    );
    for (const row of given.values()) expect(row.get('leak')).toBeCloseTo(0.25, 9);
    expect(priorsOf({ edits, before: [] }).get('leak')!).toBeGreaterThan(priorsOf(plain).get('leak')!);
  });

  test('parts whose cause was named are drawn in: ten of them weigh as much as the table itself', () => {
    const before = Array.from({ length: 10 }, () => ({ causeId: 'race', answers: { pinholes: 'line' } }));
    const question = questions.find(({ id }) => id === 'pinholes')!;
    const was = likelihoodsOf(question, plain).get('line')!.get('race')!;
    const is = likelihoodsOf(question, { edits: noCauseEdits, before }).get('line')!.get('race')!;
    expect(is).toBeCloseTo((10 * was + 10) / 20, 9);
    expect(likelihoodsOf(question, { edits: noCauseEdits, before }).get('line')!.get('leak')).toBeCloseTo(
      likelihoodsOf(question, plain).get('line')!.get('leak')!,
      9,
    );
    expect(priorsOf({ edits: noCauseEdits, before }).get('race')!).toBeGreaterThan(0.5);
  });
});

describe('an answer', () => {
  test('names what speaks for and against, and asks next what tells most', () => {
    const { ranked, next } = causesOf({ pressure: 'fell', pinholes: 'fan', wetInTime: 'yes' }, plain);
    expect(ranked[0]!.id).toBe('leak');
    expect(ranked[0]!.for).toContain('the vacuum fell off in the fill');
    expect(ranked.reduce((sum, { belief }) => sum + belief, 0)).toBeCloseTo(1, 9);
    expect(ranked[0]!.prevents).toBe(causes.leak.prevents);
    expect(['pressure', 'pinholes', 'wetInTime']).not.toContain(next!.question.id);
    expect(next!.gain).toBeGreaterThan(0);
  });

  test('everything answered, nothing is asked; an answer that is none of the choices is left out', () => {
    const all = Object.fromEntries(questions.map(({ id, answers }) => [id, answers[0]!.id]));
    expect(causesOf(all, plain).next).toBeNull();
    expect(causesOf({ pinholes: 'striped' }, plain).ranked).toEqual(
      causesOf({}, plain).ranked.map((one) => expect.objectContaining({ id: one.id, belief: one.belief })),
    );
  });
});

describe('parts made on the engine with one thing that went wrong', () => {
  const fineness = { nodeCount: 200, steps: 30 };
  const shapes = solvedOnce(plate, demoShop, fineness);
  const made: MadeCause[] = ['leak', 'race', 'dryBucket', 'gelFirst', 'bridge', 'starved', 'wrongRatio'];

  test('the same seed comes to the same part', () => {
    const options = { cause: 'leak', seed: 3, shapes, fineness } as const;
    expect(simulateRun(plate, demoShop, options)).toEqual(simulateRun(plate, demoShop, options));
  });

  test('the true cause comes first mostly, and is among the first three nearly always (the bench has more of them)', () => {
    let [first, three, all] = [0, 0, 0];
    for (const cause of made)
      for (const seed of [1, 2]) {
        const run = simulateRun(plate, demoShop, { cause, seed, shapes, fineness });
        if (!run.hasHappened) continue;
        const state = runStateOf(run.entries);
        const about = { job: plate, shop: demoShop, state, readings: run.readings };
        const fill = fillReviewOf({ ...about, shapes });
        const compared = comparedOf(plate, demoShop, state, fill);
        const { ranked } = causesOf(observed({ ...about, fill, compared }), plain);
        const place = ranked.findIndex(({ id }) => id === cause);
        all += 1;
        first += Number(place === 0);
        three += Number(place < 3);
      }
    expect(all).toBeGreaterThan(9);
    expect(first / all).toBeGreaterThanOrEqual(0.75);
    expect(three / all).toBeGreaterThanOrEqual(0.9);
  });
});
