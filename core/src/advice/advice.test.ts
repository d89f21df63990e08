import { describe, expect, test } from '@jest/globals';
import fc from 'fast-check';
import { polygonOf } from '../geometry/arcs.ts';
import { rectangle } from '../geometry/shapes.ts';
import type { LineDraft } from '../layouts/templates.ts';
import { compareScores, costOf, fillsInTime, hasDryRegion, type LayoutScore } from './score.ts';
import { searchLayouts, type SearchProgress } from './search.ts';

const score = (changes: Partial<LayoutScore> = {}): LayoutScore => {
  const { fillTime = 1800, gelTime = 3600, dryShare = 0 } = changes;
  const fills = fillTime < gelTime;
  return {
    band: dryShare > 0 ? 'airTrapped' : fills ? 'tight' : 'willNotFill',
    fillTime,
    gelTime,
    timeUsed: fills ? fillTime / (0.4 * gelTime) : Infinity,
    chance: 0.9,
    wetShare: 1,
    dryShare,
    dryShareRacing: 0,
    waste: 0.3,
    operatorActions: 1,
    laidLength: 4,
    ...changes,
  };
};
const part = { outline: polygonOf(rectangle({ length: 2, width: 0.5 })), holes: [] };
/** A made-up plant: the time is the square of the farthest way from a feed to the ends, and feeds cost work. */
function paperScore(drafts: readonly LineDraft[]): LayoutScore {
  const feeds = drafts.filter(({ kind }) => kind === 'feed');
  const places = feeds.flatMap(({ points }) => points.map(({ x }) => x));
  let farthest = 0;
  for (let x = 0; x <= 2; x += 0.02)
    farthest = Math.max(farthest, Math.min(...places.map((p) => Math.abs(p - x))));
  return score({
    fillTime: 3000 * farthest ** 2 + 60,
    operatorActions: feeds.length,
    laidLength: feeds.length,
  });
}

describe('rank', () => {
  test('later, less sure, dirtier, more work: each costs', () => {
    const base = costOf(score());
    for (const worse of [
      { fillTime: 2000 },
      { chance: 0.5 },
      { waste: 0.5 },
      { operatorActions: 4 },
      { laidLength: 20 },
      { dryShareRacing: 0.01 },
    ])
      expect(costOf(score(worse))).toBeGreaterThan(base);
  });

  test('dry regions last, then what does not fill; whatever else is true', () => {
    const any = fc.record({
      fillTime: fc.oneof(fc.double({ min: 60, max: 7200, noNaN: true }), fc.constant(Infinity)),
      chance: fc.double({ min: 0, max: 1, noNaN: true }),
      wetShare: fc.double({ min: 0, max: 1, noNaN: true }),
      dryShare: fc.oneof(fc.constant(0), fc.double({ min: 1e-3, max: 0.5, noNaN: true })),
      waste: fc.double({ min: 0, max: 5, noNaN: true }),
    });
    fc.assert(
      fc.property(fc.array(any, { minLength: 2, maxLength: 12 }), (list) => {
        const ranked = list.map((item) => score(item)).sort(compareScores);
        const firstDry = ranked.findIndex(hasDryRegion);
        if (firstDry >= 0) expect(ranked.slice(firstDry).every(hasDryRegion)).toBe(true);
        const sound = ranked.filter((item) => !hasDryRegion(item));
        const firstFailing = sound.findIndex((item) => !fillsInTime(item));
        if (firstFailing >= 0) expect(sound.slice(firstFailing).some(fillsInTime)).toBe(false);
      }),
      { seed: 5, endOnFailure: true },
    );
  });
});

describe('search', () => {
  test('moves feeds to where the made-up plant has its best: one feed in the middle of what it has to reach', async () => {
    const found = await searchLayouts({ part, simulate: (drafts) => Promise.resolve(paperScore(drafts)) });
    expect(found.length).toBeGreaterThan(2);
    for (let i = 1; i < found.length; i++)
      expect(compareScores(found[i - 1]!.score, found[i]!.score)).toBeLessThanOrEqual(0);
    const single = found.find(
      ({ request }) => request.template === 'edgeToEdge' && request.direction === 'long',
    );
    // Without moving it would stand 30 mm from an end, 1.97 m from the other.
    if (single) expect(single.score.fillTime).toBeLessThan(3000 * 1.5 ** 2);
    const best = found[0]!;
    expect(costOf(best.score)).toBeLessThan(
      costOf(paperScore([{ kind: 'feed', points: [{ x: 0.03, y: 0 }], opens: 'start', onTee: false }])),
    );
  });

  test('the answer does not hang on the order in which simulations come back', async () => {
    let turn = 0;
    const slow = async (drafts: readonly LineDraft[]) => {
      for (let wait = (7 * ++turn) % 5; wait > 0; wait--) await Promise.resolve();
      return paperScore(drafts);
    };
    const [a, b] = await Promise.all([
      searchLayouts({ part, simulate: slow }),
      searchLayouts({ part, simulate: (drafts) => Promise.resolve(paperScore(drafts)) }),
    ]);
    expect(a).toEqual(b);
  });

  test('tells how far it is, never backwards, and stops when told to', async () => {
    const told: SearchProgress[] = [];
    await searchLayouts({
      part,
      simulate: (d) => Promise.resolve(paperScore(d)),
      onProgress: (p) => told.push(p),
    });
    expect(told.at(-1)!.done).toBe(1);
    for (let i = 1; i < told.length; i++) expect(told[i]!.done).toBeGreaterThanOrEqual(told[i - 1]!.done);
    let runs = 0;
    const counted = (drafts: readonly LineDraft[]) => {
      runs += 1;
      return Promise.resolve(paperScore(drafts));
    };
    await searchLayouts({ part, simulate: counted, isCancelled: () => runs >= 5 });
    expect(runs).toBeLessThan(30);
  });

  test('layouts that cannot be laid are left out; with none left there is no proposal', async () => {
    expect(await searchLayouts({ part, simulate: () => Promise.resolve(null) })).toEqual([]);
    const noRing = await searchLayouts({
      part,
      simulate: (drafts) =>
        Promise.resolve(drafts.some(({ points }) => points.length > 3) ? null : paperScore(drafts)),
    });
    expect(noRing.every(({ drafts }) => drafts.every(({ points }) => points.length <= 3))).toBe(true);
  });
});
