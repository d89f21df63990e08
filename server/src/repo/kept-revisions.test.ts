import { expect, test } from '@jest/globals';
import { isKept } from './kept-revisions.ts';

/** What is left when a job is written again and again, and thinned as it is. */
function leftAfter(writes: number): number[] {
  let known: number[] = [];
  for (let newest = 2; newest <= writes; newest++) {
    known.push(newest - 1);
    if (newest % 8 === 0) known = known.filter((revision) => isKept(revision, newest));
  }
  return known;
}

test('the newest twenty stay, the first stays, and the gaps grow with the distance', () => {
  for (const writes of [25, 200, 3000]) {
    const left = leftAfter(writes);
    for (let back = 1; back <= 20; back++) expect(left).toContain(writes - back);
    expect(left[0]).toBe(1);
    // Wherever one goes back to, a state is kept within half as far again, the first spacing aside.
    for (let target = 1; target < writes - 20; target++) {
      const nearest = left.reduce((best, r) => Math.min(best, Math.abs(r - target)), Infinity);
      expect(nearest).toBeLessThanOrEqual(Math.max(2, (writes - target) / 10));
    }
    expect(left.length).toBeLessThan(20 + 12 * Math.log2(writes / 10) + 8);
  }
});
