import type { FindingKind, FindingSide, FindingPattern } from '@wick/contract/run/review-bodies';
import { distance, type Point } from '@wick/core/geometry/polygon';
import { signedArea, lineLength } from '@wick/core/geometry/polygon';
import { isOf, type RunState } from '../run/state.ts';

/** Something that was seen on a part, with all that was said of it since. */
export interface Finding {
  /** Of its entry. */
  readonly id: string;
  readonly at: string;
  readonly by: string;
  readonly is: FindingKind;
  readonly side: FindingSide;
  readonly form: 'pin' | 'line' | 'area';
  readonly path: readonly Point[];
  /** Where a pin or its number stands. */
  readonly place: Point;
  /** Largest way across, m; null where neither drawing nor word tells. */
  readonly size: number | null;
  readonly pattern: FindingPattern | null;
  readonly note: string;
  readonly photoIds: readonly string[];
  /** What was done about it, in order. */
  readonly mended: readonly string[];
}

/** Findings that count, in the order in which they were made. */
export function findingsOf({ entries }: Pick<RunState, 'entries'>): Finding[] {
  const mended = entries.filter(isOf('mended'));
  const pictures = entries.filter(isOf('pictured'));
  return entries.filter(isOf('finding')).map(({ id, at, by, body }) => ({
    ...{ id, at, by, is: body.is, side: body.side, form: body.form, path: body.path },
    ...{ pattern: body.pattern, note: body.note },
    place: middleOf(body.path),
    size: body.size ?? acrossOf(body.path),
    photoIds: [
      ...body.photoIds,
      ...pictures.filter((picture) => picture.body.findingId === id).map((picture) => picture.body.photoId),
    ],
    mended: mended.filter((one) => one.body.findingId === id).map((one) => one.body.did),
  }));
}

const middleOf = (path: readonly Point[]): Point => ({
  x: path.reduce((sum, { x }) => sum + x, 0) / path.length,
  y: path.reduce((sum, { y }) => sum + y, 0) / path.length,
});

/** Largest distance of two corners; null of one. */
function acrossOf(path: readonly Point[]): number | null {
  const most = Math.max(0, ...path.flatMap((a, i) => path.slice(i + 1).map((b) => distance(a, b))));
  return most > 0 ? most : null;
}

/** m of a line, m2 of an area; null of a pin. */
export function extentOf({ form, path }: Pick<Finding, 'form' | 'path'>): number | null {
  if (form === 'pin') return null;
  return form === 'line' ? lineLength(path) : Math.abs(signedArea(path));
}
