import type { Point } from '@wick/core/geometry/polygon';

/** A name that wants to stand beside a figure, in screen pixels. */
export interface LabelWish {
  readonly id: string;
  readonly at: Point;
  readonly words: string;
  /** Of the letters. */
  readonly size: number;
  /** Room that the figure itself takes round its place. */
  readonly away: number;
}

export interface LabelPlace extends Point {
  readonly anchor: 'start' | 'middle' | 'end';
}

/** A letter of the display face is about so wide as a share of its height. */
const LETTER = 0.52;

interface Box {
  readonly left: number;
  readonly right: number;
  readonly top: number;
  readonly bottom: number;
}

/** Each name above its figure, or beside or below it where one placed before stands there already. */
export function placeLabels(wishes: readonly LabelWish[]): ReadonlyMap<string, LabelPlace> {
  const taken: Box[] = [];
  return new Map(
    wishes.map((wish) => {
      const ways = candidates(wish).map((place) => {
        const box = boxOf(place, wish);
        return { place, box, covers: taken.reduce((sum, other) => sum + overlap(box, other), 0) };
      });
      const best = ways.reduce((least, way) => (way.covers < least.covers ? way : least));
      taken.push(best.box);
      return [wish.id, best.place];
    }),
  );
}

function candidates({ at: { x, y }, size, away }: LabelWish): LabelPlace[] {
  const level = y + size / 3;
  return [
    { x, y: y - away, anchor: 'middle' },
    { x: x + away, y: level, anchor: 'start' },
    { x: x - away, y: level, anchor: 'end' },
    { x, y: y + away + size * 0.8, anchor: 'middle' },
    { x, y: y - away - size * 1.2, anchor: 'middle' },
  ];
}

function boxOf({ x, y, anchor }: LabelPlace, { words, size }: LabelWish): Box {
  const width = words.length * size * LETTER;
  const left = anchor === 'start' ? x : anchor === 'end' ? x - width : x - width / 2;
  return { left, right: left + width, top: y - size, bottom: y + size * 0.25 };
}

const overlap = (a: Box, b: Box) =>
  Math.max(0, Math.min(a.right, b.right) - Math.max(a.left, b.left)) *
  Math.max(0, Math.min(a.bottom, b.bottom) - Math.max(a.top, b.top));
