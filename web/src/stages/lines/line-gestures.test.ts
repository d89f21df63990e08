import { meshAreasOf } from '@wick/plan/layout/mesh-areas';
import { laidOut } from '@wick/plan/job/laid';
import { openSession } from '../../test/open-session.ts';
import { beforeEach, describe, expect, test } from '@jest/globals';
import { demoJobs } from '@wick/plan/demo/jobs';
import type { Point } from '@wick/core/geometry/polygon';
import { ref, shallowReactive } from 'vue';
import { figureAt } from '../../board/scene.ts';
import type { BoardEvent } from '../../board/tool.ts';
import type { Probe } from '../../compute/probes.ts';
import { useLineGestures } from './line-gestures.ts';

const gore = demoJobs[0]!;
const goreLines = laidOut(gore).lines;
/** An event as the board passes it on, a pixel being two millimetres. */
const eventAt = (at: Point, keys: Partial<BoardEvent> = {}): BoardEvent => ({
  at,
  target: figureAt(plan.scene.value, at, 2e-3),
  isFree: false,
  isStraight: false,
  ...keys,
});
const FREE = { isFree: true };

let job: ReturnType<typeof openSession>;
let plan: ReturnType<typeof useLineGestures>;
const selected = ref<string | null>(null);
const drag = (from: Point, to: Point, keys: Partial<BoardEvent> = {}) => {
  plan.press(eventAt(from, keys));
  plan.move(eventAt(to, keys));
  plan.release(eventAt(to, keys));
};
const probes = shallowReactive<Probe[]>([]);
const lines = () => job.laid.lines;

beforeEach(() => {
  job = openSession(gore);
  selected.value = null;
  probes.length = 0;
  plan = useLineGestures(job, selected, () => 0.03, {
    probes,
    pin: (at) => void probes.push({ id: `probe-${probes.length}`, name: '', ...at }),
    unpin: (id) =>
      void probes.splice(
        probes.findIndex((probe) => probe.id === id),
        1,
      ),
    move: (id, to) => {
      const index = probes.findIndex((probe) => probe.id === id);
      probes[index] = { ...probes[index]!, ...to };
    },
  });
});

describe('drawing on the plan', () => {
  test('a drag is a line, a click a point; both are one undo step and end the tool', () => {
    plan.tool.value = 'feed';
    drag({ x: 1.713, y: 0.3 }, { x: 1.713, y: 0.9 });
    expect(lines().at(-1)).toMatchObject({ kind: 'feed', startsOpen: false });
    expect(lines().at(-1)!.points).toHaveLength(2);
    expect(plan.tool.value).toBe('select');
    plan.tool.value = 'vent';
    drag({ x: 2.613, y: 0.6 }, { x: 2.613, y: 0.6 });
    expect(lines().at(-1)).toMatchObject({ kind: 'vent', points: [expect.anything()] });
    job.undo();
    job.undo();
    expect(lines()).toEqual(goreLines);
  });

  test('ends snap to a corner, even spacing and the level of a line; with Alt nothing pulls', () => {
    plan.tool.value = 'feed';
    drag({ x: 0.02, y: 0.02 }, { x: 0.9, y: 0.212 });
    expect(lines().at(-1)!.points).toEqual([
      { x: 0, y: 0 },
      { x: 0.9, y: 0.2 },
    ]);
    plan.tool.value = 'feed';
    // Feeds at 0.9 and 1: the next of the row stands at 1.1.
    drag({ x: 1.112, y: 0.51 }, { x: 1.11, y: 0.7 });
    expect(lines().at(-1)!.points[0]!.x).toBeCloseTo(1.1, 6);
    plan.tool.value = 'feed';
    drag({ x: 0.02, y: 0.02 }, { x: 0.5, y: 0.2 }, FREE);
    expect(lines().at(-1)!.points[0]).toEqual({ x: 0.02, y: 0.02 });
  });

  test('with Shift a line is upright or level', () => {
    plan.tool.value = 'race';
    drag({ x: 1.5, y: 0.4 }, { x: 1.55, y: 0.8 }, { isStraight: true });
    const [a, b] = lines().at(-1)!.points;
    expect(b!.x).toBe(a!.x);
  });

  test('along an edge: a click lays the line on the nearest side, in by the offset', () => {
    plan.tool.value = 'feed';
    plan.edgeOffset.value = 0.05;
    plan.press(eventAt({ x: 0.02, y: 0.6 }));
    expect(
      lines()
        .at(-1)!
        .points.every(({ x }) => Math.abs(x - 0.05) < 1e-6),
    ).toBe(true);
  });

  test('a dragged box is a mesh area or a brake; a click is none', () => {
    plan.tool.value = 'mesh';
    drag({ x: 0.513, y: 0.413 }, { x: 2.013, y: 0.813 }, FREE);
    expect(meshAreasOf(job.laid)).toMatchObject([{ name: 'Mesh 1' }]);
    expect(meshAreasOf(job.laid)[0]!.outline).toHaveLength(4);
    plan.tool.value = 'brake';
    drag({ x: 3.2, y: 0.3 }, { x: 3.3, y: 0.9 }, FREE);
    expect(job.laid.zones.at(-1)!.purpose).toBe('brake');
    plan.tool.value = 'mesh';
    drag({ x: 1, y: 0.5 }, { x: 1, y: 0.5 });
    expect(meshAreasOf(job.laid)).toHaveLength(1);
  });

  test('marks and fittings are put down with a click', () => {
    plan.tool.value = 'mark';
    plan.press(eventAt({ x: 2, y: 0.6 }, FREE));
    plan.tool.value = 'fitting';
    plan.fitting.value = 'pump';
    plan.press(eventAt({ x: 3.8, y: 0.6 }));
    expect(job.document.marks).toHaveLength(1);
    expect(job.laid.stations).toMatchObject([{ kind: 'pump', place: { x: 3.8, y: 0.6 } }]);
  });
});

test('a probe is pinned where clicked, the tool stays, and it follows the hand', () => {
  plan.tool.value = 'probe';
  plan.press(eventAt({ x: 1, y: 0.5 }));
  plan.press(eventAt({ x: 2, y: 0.5 }));
  expect(probes).toHaveLength(2);
  plan.tool.value = 'select';
  drag({ x: 1, y: 0.5 }, { x: 1.5, y: 0.5 });
  expect(probes[0]).toMatchObject({ x: 1.5, y: 0.5 });
  expect(job.document).toBe(gore);
});

describe('moving what is there', () => {
  test('a line, an end, a mark and a fitting follow the hand', () => {
    drag({ x: 0.9, y: 0.6 }, { x: 1.0, y: 0.6 });
    expect(lines()[1]!.points.map(({ x }) => x)).toEqual([1, 1]);
    drag({ x: 1, y: 0.95 }, { x: 1.25, y: 0.93 }, FREE);
    expect(lines()[2]!.points[1]).toEqual({ x: 1.25, y: 0.93 });
    plan.tool.value = 'fitting';
    plan.press(eventAt({ x: -0.5, y: 0.5 }));
    const pot = job.laid.stations[0]!.id;
    drag({ x: -0.5, y: 0.5 }, { x: -0.4, y: 0.5 });
    expect(job.laid.stations[0]!.place.x).toBeCloseTo(-0.4, 9);
    expect(selected.value).toBe(pot);
  });

  test('given up, everything is as it was', () => {
    plan.press(eventAt({ x: 0.9, y: 0.6 }));
    plan.move(eventAt({ x: 2, y: 0.6 }));
    plan.abandon();
    expect(job.document).toBe(gore);
  });

  test('a double-click bends a line', () => {
    plan.twice(eventAt({ x: 0.905, y: 0.6 }));
    expect(lines()[1]!.points).toHaveLength(3);
    plan.twice(eventAt({ x: 0.95, y: 0.6 }));
    expect(lines()[1]!.points).toHaveLength(3);
  });
});

describe('keys on what is selected', () => {
  test('arrows move it by a centimetre, with Shift by a millimetre, one step each; Delete takes it away', () => {
    selected.value = 'feed-2';
    expect(plan.onKey({ key: 'ArrowRight', shiftKey: false })).toBe(true);
    expect(plan.onKey({ key: 'ArrowRight', shiftKey: true })).toBe(true);
    expect(lines()[1]!.points[0]!.x).toBeCloseTo(0.911, 9);
    expect(job.undoLabel).toBe('move of a line');
    expect(plan.onKey({ key: 'Delete', shiftKey: false })).toBe(true);
    expect(lines().some(({ id }) => id === 'feed-2')).toBe(false);
    expect(selected.value).toBeNull();
    for (let n = 0; n < 3; n++) job.undo();
    expect(job.document).toEqual(gore);
    expect(job.canUndo).toBe(false);
  });

  test('a probe moves and goes without a step of the job', () => {
    plan.tool.value = 'probe';
    plan.press(eventAt({ x: 1.5, y: 0.5 }));
    selected.value = 'probe-0';
    expect(plan.onKey({ key: 'ArrowUp', shiftKey: false })).toBe(true);
    expect(probes[0]).toMatchObject({ x: 1.5, y: 0.51 });
    expect(plan.onKey({ key: 'Delete', shiftKey: false })).toBe(true);
    expect(probes).toHaveLength(0);
    expect(job.canUndo).toBe(false);
  });

  test('other keys, and keys with nothing selected, are not for it', () => {
    expect(plan.onKey({ key: 'ArrowUp', shiftKey: false })).toBe(false);
    selected.value = 'feed-2';
    expect(plan.onKey({ key: 'Enter', shiftKey: false })).toBe(false);
    expect(job.document).toBe(gore);
  });
});
