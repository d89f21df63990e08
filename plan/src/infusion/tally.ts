import type { Rehearsed } from './operator.ts';

/** What many rehearsals came to. */
export interface Tally {
  readonly count: number;
  readonly saved: number;
  /** Rehearsals with so many marks, and in how many of them the range then held the truth. */
  readonly asked: number;
  readonly covered: number;
  /** Middle width of the ranges, ln of late over early: before any mark and then; NaN where they have no end. */
  readonly widthBefore: number;
  readonly widthAfter: number;
}

/** @param marks after which the range is held against what came */
export function tallyOf(list: readonly Rehearsed[], marks = 3): Tally {
  const asked = list.flatMap((one) => {
    const range = one.ranges.find((own) => own.marks >= marks);
    return range ? [{ one, range }] : [];
  });
  const width = ({ last }: Rehearsed['ranges'][number]) => Math.log(last.late / last.early);
  return {
    count: list.length,
    saved: list.filter(({ isSaved }) => isSaved).length,
    asked: asked.length,
    covered: asked.filter(({ one, range }) => {
      const truth = one.filledAt <= one.gelTime ? one.filledAt : Infinity;
      return truth >= range.last.early && truth <= range.last.late;
    }).length,
    widthBefore: middle(
      list.flatMap(({ ranges }) => ranges.filter((own) => own.marks === 0).slice(0, 1)).map(width),
    ),
    widthAfter: middle(asked.map(({ range }) => width(range))),
  };
}

function middle(widths: readonly number[]): number {
  const sorted = widths.filter(Number.isFinite).sort((a, b) => a - b);
  return sorted[Math.floor(sorted.length / 2)] ?? NaN;
}
