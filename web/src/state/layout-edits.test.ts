import { describe, expect, test } from '@jest/globals';
import { demoJobs } from '@wick/contract/demo/jobs';
import { demoMaterials } from '@wick/contract/demo/materials';
import type { Job } from '@wick/contract/job';
import { readJob } from '@wick/contract/job-file';
import { adoptLayout, copyLayout } from '@wick/contract/outcome';
import type { MaterialOf } from '@wick/contract/materials';
import {
  addFitting,
  addMeshArea,
  addTee,
  bendLine,
  moveFitting,
  removeFitting,
  updateStation,
  updateTee,
  withHose,
  withStock,
} from './layout-edits.ts';
import { addMark, removeLine, removeMark, updateLine } from './job-edits.ts';
import { mirrorJob, moveRing } from './ring-edits.ts';
import { addZone } from './zone-edits.ts';
import { moveTurn, shiftTurn, type Turn } from './sequence-edits.ts';

const gore = demoJobs[0]!;
const at = { x: -0.4, y: 0.6 };
const box = [at, { x: 1, y: 0 }, { x: 1, y: 1 }];
const found = <K extends 'line' | 'hose'>(id: string) =>
  demoMaterials.find((m) => m.id === id) as MaterialOf<K>;

describe('edits of a layout', () => {
  test('none of them touches the job it is given, and each result is a valid job', () => {
    const before = JSON.stringify(gore);
    const edits = [
      addFitting('pot', at),
      addFitting('pump', at),
      addFitting('tee', at),
      addTee(),
      addMeshArea(box),
      bendLine('feed-1', { x: 0.2, y: 0.6 }),
      withStock('feed-1', found<'line'>('profile-15')),
      withHose('feed-1', found<'hose'>('hose-8')),
      shiftTurn({ lineId: 'feed-2', action: 0 }, 120),
    ];
    for (const edit of edits) {
      const read = readJob(JSON.parse(JSON.stringify(edit(gore))));
      expect(read.ok ? '' : read.message).toBe('');
    }
    expect(JSON.stringify(gore)).toBe(before);
  });

  test('fittings get names of their own, move by hand, and leave no loose end', () => {
    const set = addFitting('pot', at)(addFitting('pot', at)(gore));
    expect(set.stations.map(({ name }) => name)).toEqual(['Pot 1', 'Pot 2']);
    const moved = moveFitting('pot-1', { x: 0.1, y: -0.1 })(set);
    expect(moved.stations[0]!.place).toEqual({ x: -0.3, y: 0.5 });
    expect(moved.stations[1]!.place).toEqual(at);
    const used = updateLine('feed-1', { stationId: 'pot-1' })(updateStation('pot-1', { level: -0.1 })(moved));
    expect(removeFitting('pot-1')(used).lines[0]!.stationId).toBeNull();
    const teed = updateLine('feed-1', { tee: 'tee-1' })(addTee()(gore));
    // A tee that has no place yet is the one that is put down.
    const placed = addFitting('tee', at)(teed);
    expect(placed.tees).toEqual([{ ...teed.tees[0], place: at, hoseLength: null }]);
    expect(updateTee('tee-1', { hoseBore: 0.02 })(placed).tees[0]!.hoseBore).toBe(0.02);
    expect(removeFitting('tee-1')(placed).lines[0]!.tee).toBeNull();
    const meshed = addMeshArea(box)(gore);
    expect(moveFitting('mesh-1', { x: 1, y: 0 })(meshed).meshAreas[0]!.outline[0]).toEqual({
      x: 0.6,
      y: 0.6,
    });
    expect(removeFitting('mesh-1')(meshed)).toEqual(gore);
  });

  test('stock brings its bore and goes along in the file while a line is cut from it', () => {
    const cut = withStock('feed-1', found<'line'>('profile-15'))(gore);
    expect(cut.lines[0]).toMatchObject({ stockId: 'profile-15', bore: 0.015 });
    expect(cut.materials.some(({ id }) => id === 'profile-15')).toBe(true);
    const typed = withStock('feed-1', null)(cut);
    expect(typed.lines[0]).toMatchObject({ stockId: null, bore: 0.015 });
    expect(typed.materials.some(({ id }) => id === 'profile-15')).toBe(false);
  });

  test('a bend goes into the nearest segment; a point has none', () => {
    const bent = bendLine('feed-1', { x: 0.3, y: 0.5 })(gore);
    expect(bent.lines[0]!.points).toEqual([
      gore.lines[0]!.points[0],
      { x: 0.3, y: 0.5 },
      gore.lines[0]!.points[1],
    ]);
    const point = updateLine('feed-1', { points: [at] })(gore);
    expect(bendLine('feed-1', at)(point)).toBe(point);
  });
});

describe('turns of a sequence', () => {
  const job: Job = {
    ...addMark({ x: 2, y: 0.6 })(gore),
    lines: gore.lines.map((line) =>
      line.id === 'feed-1'
        ? { ...line, actions: [{ opening: 0, when: { kind: 'opened', what: 'feed-2', delay: 0 } }] }
        : line.id === 'feed-2'
          ? { ...line, actions: [{ opening: 1, when: { kind: 'time', time: 1200 } }] }
          : line.id === 'feed-3'
            ? {
                ...line,
                actions: [{ opening: 1, when: { kind: 'passed', what: 'mark-1', distance: 0, delay: 0 } }],
              }
            : line,
    ),
  };
  const turns: Turn[] = [
    { lineId: 'feed-2', action: 0 },
    { lineId: 'feed-1', action: 0 },
    { lineId: 'feed-3', action: 0 },
  ];
  const actionsOf = (of: Job) => Object.fromEntries(of.lines.map(({ id, actions }) => [id, actions]));

  test('a dragged row takes the turn it is dropped on; what is waited for stays in its place', () => {
    const moved = actionsOf(moveTurn(turns, 2, 0)(job));
    expect(moved['feed-3']).toEqual([{ opening: 1, when: { kind: 'time', time: 1200 } }]);
    // Feed 2 now has the turn that waited for its own opening: it waits for the line that had it.
    expect(moved['feed-2']).toEqual([{ opening: 1, when: { kind: 'opened', what: 'feed-1', delay: 0 } }]);
    expect(moved['feed-1']).toEqual([
      { opening: 0, when: { kind: 'passed', what: 'mark-1', distance: 0, delay: 0 } },
    ]);
    expect(readJob(JSON.parse(JSON.stringify(moveTurn(turns, 2, 0)(job)))).ok).toBe(true);
  });

  test('a row dropped where it was, or off the list, changes nothing', () => {
    expect(moveTurn(turns, 1, 1)(job)).toBe(job);
    expect(moveTurn(turns, 0, 7)(job)).toBe(job);
  });

  test('later and sooner: a typed minute moves, a trigger gets a delay that cannot go below none', () => {
    expect(actionsOf(shiftTurn(turns[0]!, 130)(job))['feed-2']![0]!.when).toEqual({
      kind: 'time',
      time: 1335,
    });
    expect(actionsOf(shiftTurn(turns[2]!, 61)(job))['feed-3']![0]!.when).toMatchObject({ delay: 60 });
    expect(actionsOf(shiftTurn(turns[2]!, -500)(job))['feed-3']![0]!.when).toMatchObject({ delay: 0 });
  });
});

describe('layouts that wait', () => {
  const kept = copyLayout(
    {
      ...addMark({ x: 2, y: 0.6 })(addFitting('pot', at)(addMeshArea(box)(gore))),
      lines: gore.lines.map((line) =>
        line.id === 'feed-3'
          ? {
              ...line,
              actions: [
                { opening: 1, when: { kind: 'passed' as const, what: 'mark-1', distance: 0, delay: 0 } },
              ],
            }
          : line,
      ),
    },
    null,
  );
  const valid = (job: Job) => {
    const read = readJob(JSON.parse(JSON.stringify(job)));
    expect(read.ok ? '' : read.message).toBe('');
  };

  test('lose what waited for a mark that goes, but not what waits for a line of their own', () => {
    const bare = removeMark('mark-1')(kept);
    expect(bare.variants[0]!.lines[2]!.actions).toEqual([]);
    valid(bare);
    const fewer = removeLine('feed-2')(kept);
    expect(fewer.variants[0]!.lines[1]!.actions).toEqual(gore.lines[1]!.actions);
    valid(adoptLayout(fewer, 'A', null));
  });

  test('keep their brakes’ ids to themselves, and drop base plies that are no longer there', () => {
    const braked = copyLayout(addZone(box, { purpose: 'brake' })(gore), null);
    const cleared = { ...braked, zones: gore.zones };
    const zoned = addZone(box)(cleared);
    expect(zoned.zones.at(-1)!.id).not.toBe(braked.variants[0]!.brakes.at(-1)!.id);
    valid(adoptLayout(zoned, 'A', null));
    const [first, ...others] = gore.laminate.plies;
    const thinner = { ...zoned, laminate: { ...zoned.laminate, plies: others } };
    const back = adoptLayout({ ...thinner, zones: [] }, 'A', null);
    const through = back.zones.flatMap(({ laminate }) =>
      laminate.plies.flatMap((ply) => ('through' in ply ? [ply.through] : [])),
    );
    expect(through).not.toContain(first!.id);
  });

  test('go along when the plan is moved or made for the other hand', () => {
    const twice = mirrorJob(mirrorJob(kept));
    expect(twice.variants).toEqual(kept.variants);
    const moved = moveRing({ kind: 'outline' }, { x: 1, y: 0 })(kept);
    expect(moved.stations[0]!.place.x).toBeCloseTo(at.x + 1, 9);
    expect(moved.variants[0]!.stations[0]!.place.x).toBeCloseTo(at.x + 1, 9);
    expect(moved.meshAreas[0]!.outline[0]!.x).toBeCloseTo(at.x + 1, 9);
    expect(moved.variants[0]!.brakes[0]!.outline[0]!.x).toBeCloseTo(gore.zones[0]!.outline[0]!.x + 1, 9);
  });
});
