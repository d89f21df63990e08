import { describe, expect, test } from '@jest/globals';
import fc from 'fast-check';
import { placeLabels, type LabelWish } from './labels.ts';

const wish = (id: string, x: number, y: number, words = 'Feed 1'): LabelWish => ({
  id,
  at: { x, y },
  words,
  size: 13,
  away: 12,
});
/** Boxes by a width that no letter of 13 pixels passes on average. */
function box(of: LabelWish, places: ReturnType<typeof placeLabels>) {
  const { x, y, anchor } = places.get(of.id)!;
  const width = of.words.length * of.size * 0.5;
  const left = anchor === 'start' ? x : anchor === 'end' ? x - width : x - width / 2;
  return { left, right: left + width, top: y - 11, bottom: y + 2 };
}
const clash = (a: ReturnType<typeof box>, b: ReturnType<typeof box>) =>
  a.left < b.right && b.left < a.right && a.top < b.bottom && b.top < a.bottom;

describe('names on the board', () => {
  test('a name alone stands above its figure', () => {
    expect(placeLabels([wish('a', 100, 50)]).get('a')).toEqual({ x: 100, y: 38, anchor: 'middle' });
  });

  test('mark, vent and doubt at one place stand apart', () => {
    const wishes = [
      wish('vent', 100, 100, 'Vent'),
      wish('mark', 100, 100, 'Last corner 1:20:10 (70–95)'),
      wish('doubt', 100, 100, 'last or dry here 62 in 100'),
    ];
    const places = placeLabels(wishes);
    const boxes = wishes.map((each) => box(each, places));
    boxes.forEach((a, i) => boxes.slice(i + 1).forEach((b) => expect(clash(a, b)).toBe(false)));
  });

  test('two neighbours never cover each other, wherever they are', () => {
    fc.assert(
      fc.property(fc.integer({ min: -80, max: 80 }), fc.integer({ min: -40, max: 40 }), (dx, dy) => {
        const wishes = [wish('a', 200, 200), wish('b', 200 + dx, 200 + dy, 'Feed 2')];
        const places = placeLabels(wishes);
        return !clash(box(wishes[0]!, places), box(wishes[1]!, places));
      }),
    );
  });

  test('in a crowd every name still has a place, the first its own', () => {
    const crowd = Array.from({ length: 12 }, (_, i) => wish(`n${i}`, 50, 50));
    const places = placeLabels(crowd);
    expect(places.size).toBe(12);
    expect(places.get('n0')).toMatchObject({ y: 38 });
  });
});
