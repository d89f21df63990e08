import { describe, expect, test } from '@jest/globals';
import type { Job } from '@wick/contract/job/job';
import type { MaterialOf } from '@wick/contract/materials';
import { demoJobs } from '../demo/jobs.ts';
import { demoMaterials } from '../demo/materials.ts';
import { jobOf } from '../job/laid.ts';
import { act, faultIn, laidDemos } from '../test/laid-demos.ts';
import { bendLine, updateLine, withHose, withStock } from './edits.ts';
import {
  addFitting,
  addMeshArea,
  addTee,
  moveFitting,
  removeFitting,
  updateStation,
  updateTee,
} from './fittings.ts';
import { addMark } from './marks.ts';
import { moveTurn, shiftTurn, type Turn } from './sequence.ts';
import { meshAreasOf } from './mesh-areas.ts';

const gore = demoJobs[0]!;
const at = { x: -0.4, y: 0.6 };
const box = [at, { x: 1, y: 0 }, { x: 1, y: 1 }];
const found = <K extends 'line' | 'hose'>(id: string) =>
  demoMaterials.find((m) => m.id === id) as MaterialOf<K>;
const only = (job: Job) => job.layouts[0]!;

describe('edits of a layout', () => {
  test('none of them touches the job it is given, each result is a valid job, and the same every time', () => {
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
      shiftTurn({ lineId: 'feed-2', actionId: 'feed-2-opens' }, 120),
    ];
    for (const edit of edits) {
      expect(faultIn(edit(gore))).toBe('');
      expect(edit(gore)).toEqual(edit(gore));
    }
    expect(JSON.stringify(gore)).toBe(before);
  });

  test('fittings get names of their own, move by hand, and leave no loose end', () => {
    const set = addFitting('pot', at, 'pot-2')(addFitting('pot', at, 'pot-1')(gore));
    expect(only(set).stations.map(({ name }) => name)).toEqual(['Pot 1', 'Pot 2']);
    const moved = moveFitting('pot-1', { x: 0.1, y: -0.1 })(set);
    expect(only(moved).stations.map(({ place }) => place)).toEqual([{ x: -0.3, y: 0.5 }, at]);
    const used = updateLine('feed-1', { stationId: 'pot-1' })(updateStation('pot-1', { level: -0.1 })(moved));
    expect(only(removeFitting('pot-1')(used)).lines[0]!.stationId).toBeNull();
    const teed = updateLine('feed-1', { tee: 'tee-1' })(addTee(null, 'tee-1')(gore));
    // A tee that has no place yet is the one that is put down.
    const placed = addFitting('tee', at)(teed);
    expect(only(placed).tees).toEqual([{ ...only(teed).tees[0], place: at, hoseLength: null }]);
    expect(only(updateTee('tee-1', { hoseBore: 0.02 })(placed)).tees[0]!.hoseBore).toBe(0.02);
    expect(only(removeFitting('tee-1')(placed)).lines[0]!.tee).toBeNull();
    const meshed = addMeshArea(box, 'mesh-1')(gore);
    expect(meshAreasOf(only(moveFitting('mesh-1', { x: 1, y: 0 })(meshed)))[0]!.outline[0]).toEqual({
      x: 0.6,
      y: 0.6,
    });
    expect(removeFitting('mesh-1')(meshed)).toEqual(gore);
  });

  test('stock brings its bore and goes along in the file while a line is cut from it', () => {
    const cut = withStock('feed-1', found<'line'>('profile-15'))(gore);
    expect(only(cut).lines[0]).toMatchObject({ stockId: 'profile-15', bore: 0.015 });
    expect(cut.materials.some(({ id }) => id === 'profile-15')).toBe(true);
    const typed = withStock('feed-1', null)(cut);
    expect(only(typed).lines[0]).toMatchObject({ stockId: null, bore: 0.015 });
    expect(typed.materials.some(({ id }) => id === 'profile-15')).toBe(false);
  });

  test('a bend goes into the nearest segment; a point has none', () => {
    const [a, b] = only(gore).lines[0]!.points;
    expect(only(bendLine('feed-1', { x: 0.3, y: 0.5 })(gore)).lines[0]!.points).toEqual([
      a,
      { x: 0.3, y: 0.5 },
      b,
    ]);
    const point = updateLine('feed-1', { points: [at] })(gore);
    expect(bendLine('feed-1', at)(point)).toEqual(point);
  });
});

describe('turns of a sequence', () => {
  const waits: Record<string, ReturnType<typeof act>> = {
    'feed-1': act('shuts-1', 0, { kind: 'opened', what: 'feed-2', delay: 0 }),
    'feed-2': act('opens-2', 1, { kind: 'time', time: 1200 }),
    'feed-3': act('opens-3', 1, { kind: 'passed', what: 'mark-1', distance: 0, delay: 0 }),
  };
  const plain = laidDemos[0]!;
  const job = addMark(
    { x: 2, y: 0.6 },
    'mark-1',
  )(
    jobOf({
      ...plain,
      lines: plain.lines.map((line) => (waits[line.id] ? { ...line, actions: [waits[line.id]!] } : line)),
    }),
  );
  const turns: Turn[] = [
    { lineId: 'feed-2', actionId: 'opens-2' },
    { lineId: 'feed-1', actionId: 'shuts-1' },
    { lineId: 'feed-3', actionId: 'opens-3' },
  ];
  const actionsOf = (of: Job) => Object.fromEntries(only(of).lines.map(({ id, actions }) => [id, actions]));

  test('a dragged row takes the turn it is dropped on; what is waited for stays in its place', () => {
    const moved = actionsOf(moveTurn(turns, 2, 0)(job));
    expect(moved['feed-3']).toEqual([act('opens-3', 1, { kind: 'time', time: 1200 })]);
    // Feed 2 now has the turn that waited for its own opening: it waits for the line that had it.
    expect(moved['feed-2']).toEqual([act('opens-2', 1, { kind: 'opened', what: 'feed-1', delay: 0 })]);
    expect(moved['feed-1']).toEqual([
      act('shuts-1', 0, { kind: 'passed', what: 'mark-1', distance: 0, delay: 0 }),
    ]);
    expect(faultIn(moveTurn(turns, 2, 0)(job))).toBe('');
  });

  test('a row dropped where it was, or off the list, changes nothing', () => {
    expect(moveTurn(turns, 1, 1)(job)).toBe(job);
    expect(moveTurn(turns, 0, 7)(job)).toBe(job);
  });

  test('later and sooner: a typed minute moves, a trigger gets a delay that cannot go below none', () => {
    const whenOf = (by: number, turn: number) =>
      actionsOf(shiftTurn(turns[turn]!, by)(job))[turns[turn]!.lineId]![0]!.when;
    expect(whenOf(130, 0)).toEqual({ kind: 'time', time: 1335 });
    expect(whenOf(61, 2)).toMatchObject({ delay: 60 });
    expect(whenOf(-500, 2)).toMatchObject({ delay: 0 });
  });
});
