import { openSession } from '../../test/open-session.ts';
import { emptyJob } from '@wick/plan/job/new-job';
import { beforeEach, describe, expect, jest, test } from '@jest/globals';
import type { Point } from '@wick/core/geometry/polygon';
import { rectangle } from '@wick/core/geometry/shapes';
import { type Job } from '@wick/contract/job/job';
import { ringAt } from '@wick/plan/part/edits';
import { addZone } from '@wick/plan/part/zones';
import { figureAt } from '../../board/scene.ts';
import type { BoardEvent } from '../../board/tool.ts';
import { usePartGestures } from './part-gestures.ts';
import type { PartTool } from './part-tools.ts';

const plate: Job = {
  ...emptyJob('Plate'),
  part: { ...emptyJob('').part, outline: rectangle({ length: 2, width: 1 }) },
};
const REACH = 0.02;

/** An event as the board passes it on, a pixel being two millimetres. */
const eventAt = (at: Point, isFree = false): BoardEvent => ({
  at,
  target: figureAt(hand.scene.value, at, 2e-3),
  isFree,
  isStraight: false,
});

let job: ReturnType<typeof openSession>;
let hand: ReturnType<typeof usePartGestures>;
let grid: number | null;
let showsFeatures = false;
const sweep = (from: Point, to: Point, isFree = false) => {
  hand.press(eventAt(from));
  for (const share of [0.4, 0.8, 1])
    hand.move(eventAt({ x: from.x + share * (to.x - from.x), y: from.y + share * (to.y - from.y) }, isFree));
  hand.release(eventAt(to, isFree));
};
const click = (x: number, y: number) => {
  hand.move(eventAt({ x, y }));
  hand.press(eventAt({ x, y }));
  hand.release(eventAt({ x, y }));
};
const draw = (tool: PartTool, ...points: [number, number][]) => {
  hand.choose(tool);
  points.forEach(([x, y]) => click(x, y));
};
const undoAll = () => {
  let steps = 0;
  for (; job.canUndo; steps++) job.undo();
  return steps;
};

beforeEach(() => {
  jest.useFakeTimers();
  openWith(plate);
});

function openWith(document: Job) {
  job = openSession(document);
  grid = null;
  showsFeatures = false;
  hand = usePartGestures(job, { reach: () => REACH, grid: () => grid, showsFeatures: () => showsFeatures });
}

describe('drawing', () => {
  test('corner after corner, closed on the first: one undo step', () => {
    grid = 0.1;
    draw('outline', [0.31, 0.29], [1.52, 0.31], [1.49, 0.72], [0.31, 0.29]);
    expect(job.document.part.outline).toEqual([
      { x: 0.3, y: 0.3 },
      { x: 1.5, y: 0.3 },
      { x: 1.5, y: 0.7 },
    ]);
    expect(hand.tool.value).toBe('select');
    expect(undoAll()).toBe(1);
    expect(job.document).toBe(plate);
  });

  test('a drag makes a box; a mere click does not', () => {
    hand.choose('zone');
    sweep({ x: 0.4, y: 0.3 }, { x: 0.9, y: 0.7 });
    expect(job.laid.zones).toHaveLength(1);
    expect(ringAt(job.document, hand.selected.value)).toHaveLength(4);
    hand.choose('hole');
    click(0.5, 0.5);
    expect(job.document.part.holes).toEqual([]);
    expect(hand.drawn.value).toHaveLength(1);
    hand.abandon();
    expect(hand.drawn.value).toEqual([]);
  });

  test('two corners are not closed; Enter closes three; typed corners count', () => {
    draw('hole', [0.5, 0.5], [0.8, 0.5]);
    hand.close();
    expect(job.document.part.holes).toEqual([]);
    hand.addCorner({ x: 0.8, y: 0.7 });
    hand.close();
    expect(job.document.part.holes[0]!.outline).toHaveLength(3);
    expect(hand.selected.value).toEqual({ kind: 'hole', id: job.document.part.holes[0]!.id });
  });

  test('holes that lie off a new outline go with the old one', () => {
    draw('hole', [1.6, 0.4], [1.8, 0.4], [1.8, 0.6], [1.6, 0.4]);
    draw('outline', [0.1, 0.1], [1, 0.1], [1, 0.9], [0.1, 0.1]);
    expect(job.document.part.holes).toEqual([]);
    job.undo();
    expect(job.document.part.holes).toHaveLength(1);
  });

  test('a rise is an open line that Enter ends', () => {
    draw('feature', [0.2, 0.2], [0.2, 0.8], [0.6, 0.85]);
    expect(job.document.part.features).toEqual([]);
    hand.close();
    expect(job.document.part.features[0]).toMatchObject({ kind: 'rise', name: 'Rise 1' });
    expect(job.document.part.features[0]!.points).toHaveLength(3);
  });

  test('corners snap to corners and edges of the part', () => {
    draw('zone', [0.01, 0.01], [0.7, -0.015], [0.7, 0.4]);
    expect(hand.drawn.value[0]).toEqual({ x: 0, y: 0 });
    expect(hand.drawn.value[1]!.y).toBeCloseTo(0, 12);
  });
});

describe('moving', () => {
  test('a corner follows the hand, snaps level with others, and is one step', () => {
    sweep({ x: 2, y: 1 }, { x: 2.3, y: 0.99 });
    expect(job.document.part.outline[2]).toEqual({ x: 2.3, y: 1 });
    expect(hand.corner.value).toBe(2);
    expect(undoAll()).toBe(1);
  });

  test('with Alt it goes where the hand is', () => {
    sweep({ x: 2, y: 1 }, { x: 2.3, y: 0.99 }, true);
    expect(job.document.part.outline[2]).toEqual({ x: 2.3, y: 0.99 });
  });

  test('an edge bends by its middle', () => {
    sweep({ x: 1, y: 0 }, { x: 1, y: -0.2 });
    // Sagitta over half chord.
    expect(job.document.part.outline[0]!.bulge).toBeCloseTo(0.2, 9);
  });

  test('a zone is taken whole; the part stays under the hand', () => {
    openWith(
      addZone(
        rectangle({ length: 0.4, width: 0.4 }).map((p) => ({ x: p.x + 0.2, y: p.y + 0.2 })),
        {},
        'zone-1',
      )(plate),
    );
    sweep({ x: 0.4, y: 0.4 }, { x: 0.5, y: 0.45 });
    expect(job.laid.zones[0]!.outline[0]).toEqual({ x: 0.3, y: 0.25 });
    sweep({ x: 1.5, y: 0.8 }, { x: 1.9, y: 0.9 });
    expect(job.document.part.outline).toEqual(plate.part.outline);
    expect(hand.selected.value).toEqual({ kind: 'outline' });
  });

  test('a point of a rise is dragged and snaps to the edge', () => {
    draw('feature', [0.2, 0.2], [0.2, 0.8]);
    hand.close();
    showsFeatures = true;
    hand.choose('select');
    sweep({ x: 0.2, y: 0.8 }, { x: 0.31, y: 0.99 });
    expect(job.document.part.features[0]!.points[1]).toEqual({ x: 0.31, y: 1 });
    expect(undoAll()).toBe(2);
  });

  test('a point of a rise is not held by where it was', () => {
    draw('feature', [0.4, 0.4], [0.4, 0.6]);
    hand.close();
    showsFeatures = true;
    hand.choose('select');
    sweep({ x: 0.4, y: 0.6 }, { x: 0.408, y: 0.607 });
    expect(job.document.part.features[0]!.points[1]).toEqual({ x: 0.408, y: 0.607 });
  });

  test('a drag that is given up leaves no step', () => {
    hand.press(eventAt({ x: 2, y: 1 }));
    hand.move(eventAt({ x: 2.4, y: 1.4 }));
    expect(job.document.part.outline[2]).toEqual({ x: 2.4, y: 1.4 });
    hand.abandon();
    expect(job.document).toBe(plate);
    expect(job.canUndo).toBe(false);
  });
});

describe('splitting and measuring', () => {
  test('a line across a zone makes two', () => {
    openWith(
      addZone(
        rectangle({ length: 0.4, width: 0.4 }).map((p) => ({ x: p.x + 0.2, y: p.y + 0.2 })),
        {},
        'zone-1',
      )(plate),
    );
    hand.select({ kind: 'zone', id: 'zone-1' });
    hand.choose('split');
    sweep({ x: 0.35, y: 0.05 }, { x: 0.35, y: 0.75 });
    expect(job.laid.zones).toHaveLength(2);
    expect(undoAll()).toBe(1);
  });

  test('a measure changes nothing and stays readable', () => {
    hand.choose('measure');
    sweep({ x: 0.001, y: 0.001 }, { x: 1.99, y: 0.99 });
    expect(hand.stretch.value).toEqual([
      { x: 0, y: 0 },
      { x: 2, y: 1 },
    ]);
    expect(job.document).toBe(plate);
  });
});
