import { boundsOf, type Point } from '@wick/core/geometry/polygon';
import { rectangle } from '@wick/core/geometry/shapes';
import type { Figure } from './scene.ts';

/** What a pointer does on the board. */
export interface BoardEvent {
  /** m on the plan. */
  readonly at: Point;
  /** What lies under it. */
  readonly target: Figure | null;
  /** Alt: nothing pulls. Shift: upright or level. */
  readonly isFree: boolean;
  readonly isStraight: boolean;
}

/** A tool of a board: what it does at each turn of a gesture. A move without a press before it hovers. */
export interface Tool {
  press?(event: BoardEvent): void;
  move?(event: BoardEvent): void;
  release?(event: BoardEvent): void;
  twice?(event: BoardEvent): void;
  /** Gives up what is under way. */
  abandon?(): void;
}

/** A row of a stage's tools. */
export interface ToolRow<Id extends string> {
  readonly id: Id;
  readonly key: string;
  readonly name: string;
  readonly hint: string;
}

/** Metres by which an arrow key moves things: a centimetre, with Shift a millimetre. */
export function arrowOf({ key, shiftKey }: Pick<KeyboardEvent, 'key' | 'shiftKey'>): Point | null {
  const size = shiftKey ? 0.001 : 0.01;
  switch (key) {
    case 'ArrowLeft':
      return { x: -size, y: 0 };
    case 'ArrowRight':
      return { x: size, y: 0 };
    case 'ArrowUp':
      return { x: 0, y: size };
    case 'ArrowDown':
      return { x: 0, y: -size };
    default:
      return null;
  }
}

/** The tool of a row whose key it is. */
export const toolByKey = <Id extends string>(
  rows: readonly ToolRow<Id>[],
  { key }: Pick<KeyboardEvent, 'key'>,
) => rows.find((row) => row.key.toLowerCase() === key.toLowerCase())?.id ?? null;

/** Words for what a place snapped to. */
export const snapWords = {
  corner: 'on a corner',
  middle: 'in the middle of an edge',
  edge: 'on an edge',
  spacing: 'evenly spaced',
  level: 'level with a corner',
  grid: 'on the grid',
  free: '',
};

/** The box between two corners; null where a side is shorter than the least, m. */
export function boxBetween(a: Point, b: Point, least: number): Point[] | null {
  const { minX, minY, maxX, maxY } = boundsOf([a, b]);
  const [length, width] = [maxX - minX, maxY - minY];
  if (length < least || width < least) return null;
  return rectangle({ length, width }).map(({ x, y }) => ({ x: x + minX, y: y + minY }));
}

/** Shorter than this a drag is a click on a point, m. */
export const POINT = 0.012;
