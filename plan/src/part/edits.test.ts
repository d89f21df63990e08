import { partArea } from './figures.ts';
import { emptyJob } from '../job/new-job.ts';
import { describe, expect, test } from '@jest/globals';
import { ringArea, ringBounds } from '@wick/core/geometry/arcs';
import { rectangle } from '@wick/core/geometry/shapes';
import { COARSE, assess } from '../forecast/assess.ts';
import { demoJobs, demoShop } from '../demo/jobs.ts';
import type { Job } from '@wick/contract/job/job';
import { currentLayout, laidOut } from '../job/laid.ts';
import { onLines } from '../layout/edits.ts';
import { act } from '../test/laid-demos.ts';
import { readJob } from '../files/job-file.ts';
import { addFeature, removeFeature, updateFeature } from './features.ts';
import {
  addHole,
  bendEdgeTo,
  mirrorJob,
  mirrorRing,
  moveCorner,
  moveRing,
  ringAt,
  ringRefs,
  ringUnder,
  setBulge,
  splitEdgeAt,
  withRing,
  type RingRef,
} from './edits.ts';
import {
  addZone,
  bandAlong,
  copyRing,
  joinToPart,
  offsetRing,
  raiseZone,
  removeRing,
  splitRing,
  updateZone,
  zoneByOffset,
} from './zones.ts';

const plate: Job = {
  ...emptyJob('Plate'),
  part: { ...emptyJob('').part, outline: rectangle({ length: 2, width: 1 }) },
};
const outline: RingRef = { kind: 'outline' };
const box = (x: number, y: number, length: number, width: number) =>
  rectangle({ length, width }).map((p) => ({ x: p.x + x, y: p.y + y }));
const zoned = addZone(box(0.5, 0.25, 0.5, 0.5), {}, 'zone-1')(plate);
const zone: RingRef = { kind: 'zone', id: 'zone-1' };
const tray = demoJobs.find(({ name }) => name === 'Rescue sled tray')!;
const gore = demoJobs[0]!;
const isSound = (job: Job) => readJob(JSON.parse(JSON.stringify(job)));

describe('edits of the plan', () => {
  test('each leaves a valid job, and the one it was given as it was', () => {
    const holed = addFeature(
      [
        { x: 0, y: 0 },
        { x: 1, y: 0 },
      ],
      'rise',
      'feature-1',
    )(addHole(box(1.4, 0.4, 0.2, 0.2), 'hole-1')(zoned));
    const hole: RingRef = { kind: 'hole', id: 'hole-1' };
    const before = JSON.stringify(holed);
    const edits = [
      moveCorner(zone, 0, { x: 0.4, y: 0.2 }),
      moveRing(outline, { x: 0.3, y: 0.1 }),
      moveRing(hole, { x: 0.01, y: 0 }),
      bendEdgeTo(outline, 1, { x: 2.2, y: 0.5 }),
      setBulge(zone, 0, 0.4),
      splitEdgeAt(hole, 2),
      copyRing(zone),
      copyRing(hole),
      copyRing(outline),
      mirrorJob,
      mirrorRing(zone),
      offsetRing(zone, 0.05),
      zoneByOffset(outline, -0.1),
      bandAlong(outline, 1, 0.08, 'brake'),
      splitRing(zone, { x: 0.75, y: 0 }, { x: 0.75, y: 1 }),
      joinToPart('zone-1', 'subtract'),
      removeRing(hole),
      removeRing(zone),
      updateZone('zone-1', { name: 'Pad' }),
      updateFeature('feature-1', { height: 0.2 }),
      removeFeature('feature-1'),
    ];
    for (const edit of edits) {
      const after = edit(holed);
      if (edit !== edits[10]) expect(after).not.toEqual(holed);
      expect(isSound(after)).toMatchObject({ ok: true });
    }
    expect(JSON.stringify(holed)).toBe(before);
  });

  test('the hand meets holes first, then the zone on top, then the part', () => {
    const job = addZone(
      box(0.6, 0.3, 0.2, 0.2),
      {},
      'zone-2',
    )(addHole(box(1.4, 0.4, 0.2, 0.2), 'hole-1')(zoned));
    expect(ringUnder(job, { x: 1.5, y: 0.5 })).toEqual({ kind: 'hole', id: 'hole-1' });
    expect(ringUnder(job, { x: 0.7, y: 0.4 })).toEqual({ kind: 'zone', id: 'zone-2' });
    expect(ringUnder(raiseZone('zone-2', -1)(job), { x: 0.7, y: 0.4 })).toEqual(zone);
    expect(ringUnder(job, { x: 0.1, y: 0.1 })).toEqual(outline);
    expect(ringUnder(job, { x: 5, y: 5 })).toBeNull();
    expect(ringRefs(job)).toHaveLength(4);
  });
});

describe('mirroring', () => {
  test('the other hand: fibres turn, lines follow, areas stay; twice is where it was', () => {
    for (const job of [gore, tray]) {
      const other = mirrorJob(job);
      expect(partArea(other.part)).toBeCloseTo(partArea(job.part), 3);
      expect(other.laminate.plies.map((ply) => ply.angle)).toEqual(
        job.laminate.plies.map((ply) => (ply.angle === 0 ? 0 : -ply.angle)),
      );
      const back = mirrorJob(other);
      expect(back.layouts).toEqual(job.layouts);
      expect(back.zones.map(({ laminate }) => laminate)).toEqual(job.zones.map(({ laminate }) => laminate));
    }
  });

  test('it fills in the same time', () => {
    const times = [gore, mirrorJob(gore)].map((job) => assess(laidOut(job), demoShop, COARSE).flow.fillTime);
    expect(times[1]! / times[0]!).toBeCloseTo(1, 1);
  });
});

describe('offsets, bands and booleans', () => {
  const area = (job: Job, ref: RingRef) => Math.abs(ringArea(ringAt(job, ref)));

  test('an outline grown by a flange, and a zone drawn in', () => {
    expect(area(offsetRing(outline, 0.1)(plate), outline)).toBeCloseTo(2.2 * 1.2, 6);
    const inner = zoneByOffset(outline, -0.1, 'zone-1')(plate);
    expect(area(inner, zone)).toBeCloseTo(1.8 * 0.8, 6);
    // Nothing is left of it: nothing changes.
    expect(zoneByOffset(outline, -0.9)(plate)).toBe(plate);
  });

  test('a brake along an edge is as wide as asked and inside the part', () => {
    const braked = bandAlong(outline, 1, 0.08, 'brake', 'zone-1')(plate);
    expect(braked.zones).toEqual([]);
    expect(currentLayout(braked).brakes[0]).toMatchObject({ id: 'zone-1', name: 'Brake 1' });
    expect(area(braked, zone)).toBeCloseTo(0.08, 4);
    expect(ringBounds(ringAt(braked, zone)).minX).toBeCloseTo(1.92, 4);
  });

  test('a zone shape cut from the part becomes a hole inside it and a notch at its edge', () => {
    const holed = joinToPart('zone-1', 'subtract')(zoned);
    expect(holed.part.holes).toHaveLength(1);
    expect(holed.zones).toEqual([]);
    expect(partArea(holed.part)).toBeCloseTo(1.75, 6);
    const notched = joinToPart('zone-1', 'subtract')(addZone(box(1.8, 0.4, 0.5, 0.2), {}, 'zone-1')(plate));
    expect(notched.part.outline).toHaveLength(8);
    expect(partArea(notched.part)).toBeCloseTo(2 - 0.2 * 0.2, 6);
    const added = joinToPart('zone-1', 'unite')(addZone(box(1.8, 0.4, 0.5, 0.2), {}, 'zone-1')(plate));
    expect(partArea(added.part)).toBeCloseTo(2 + 0.3 * 0.2, 6);
  });

  test('a zone cut in two keeps its plies on both sides; the outline loses its smaller side', () => {
    const split = splitRing(zone, { x: 0.6, y: 0 }, { x: 0.6, y: 1 })(zoned);
    expect(split.zones.map(({ outline: ring }) => Math.round(1e6 * Math.abs(ringArea(ring))))).toEqual([
      200_000, 50_000,
    ]);
    const cut = splitRing(outline, { x: 0.5, y: -1 }, { x: 0.5, y: 2 })(plate);
    expect(partArea(cut.part)).toBeCloseTo(1.5, 6);
    expect(splitRing(zone, { x: 5, y: 0 }, { x: 5, y: 1 })(zoned)).toBe(zoned);
    const lashing: RingRef = { kind: 'zone', id: 'lashing' };
    expect(isSound(splitRing(lashing, { x: 0.05, y: -1 }, { x: 0.05, y: 1 })(tray))).toMatchObject({
      ok: true,
    });
  });

  test('a zone goes with what waited for it', () => {
    const waiting = onLines((line) => ({
      ...line,
      actions: [act(`${line.id}-shuts`, 0, { kind: 'zoneFull', zone: 'brake', delay: 0 })],
    }))(gore);
    const bare = removeRing({ kind: 'zone', id: 'brake' })(waiting);
    expect(isSound(bare)).toMatchObject({ ok: true });
    expect(currentLayout(bare).lines.every((line) => line.actions.length === 0)).toBe(true);
    expect(withRing(outline, plate.part.outline)(gore).part.outline).toHaveLength(4);
  });
});
