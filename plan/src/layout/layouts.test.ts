import { describe, expect, test } from '@jest/globals';
import { MOST_LAYOUTS, type Job } from '@wick/contract/job/job';
import { demoJobs, demoShop } from '../demo/jobs.ts';
import { COARSE, forecastJob } from '../forecast/assess.ts';
import { currentLayout, jobOf, laidOut } from '../job/laid.ts';
import { removePly } from '../laminate/edits.ts';
import { mirrorJob, moveRing } from '../part/edits.ts';
import { addZone, raiseZone, removeRing, withPurpose } from '../part/zones.ts';
import { act, faultIn, laidDemos, withLine } from '../test/laid-demos.ts';
import { removeLine } from './edits.ts';
import { addFitting, addMeshArea, removeTee } from './fittings.ts';
import { adoptLayout, addLayout, copyLayout, removeLayout, renameLayout } from './layouts.ts';
import { addMark, removeMark } from './marks.ts';
import { meshAreasOf } from './mesh-areas.ts';

const gore = demoJobs[0]!;
const at = { x: -0.4, y: 0.6 };
const box = [at, { x: 1, y: 0 }, { x: 1, y: 1 }];
const idsIn = (value: unknown): string[] =>
  typeof value !== 'object' || value === null
    ? []
    : Object.entries(value).flatMap(([key, item]) =>
        key === 'id' ? [String(item)] : key === 'materials' || key === 'mould' ? [] : idsIn(item),
      );

describe('layouts of one job', () => {
  test('a copy goes on under the next letter with ids of its own, and fills as the first did', () => {
    const copied = copyLayout('one feed', 'second')(gore);
    expect(copied.layouts.map(({ letter, name }) => [letter, name])).toEqual([
      ['A', ''],
      ['B', 'one feed'],
    ]);
    expect(copied.currentLayoutId).toBe('second');
    expect(faultIn(copied)).toBe('');
    expect(new Set(idsIn(copied)).size).toBe(idsIn(copied).length);
    // Its actions wait for its own lines, not for those of the first.
    const own = new Set(currentLayout(copied).lines.map(({ id }) => id));
    for (const { actions } of currentLayout(copied).lines)
      for (const { when } of actions) expect('what' in when && own.has(when.what)).toBe(true);
    const [first, second] = copied.layouts.map(
      ({ id }) => forecastJob(laidOut(copied, id), demoShop, COARSE).fillTime,
    );
    expect(second).toBe(first);
  });

  test('taking the first up again brings everything back as it was', () => {
    const bare = removeRing({ kind: 'zone', id: currentLayout(copyLayout()(gore)).brakes[0]!.id });
    const both = bare(copyLayout('', 'second')(gore));
    const back = adoptLayout('layout-a')(both);
    expect(currentLayout(back)).toEqual(currentLayout(gore));
    expect(adoptLayout('nobody')(back)).toBe(back);
  });

  test('what was proposed elsewhere is taken up with ids of its own', () => {
    const laid = withLine(laidDemos[0]!, 'feed-3', { points: [{ x: 2, y: 0.5 }] });
    const taken = addLayout(laid, 'moved')(gore);
    expect(faultIn(taken)).toBe('');
    expect(currentLayout(taken).lines[2]!.points).toEqual([{ x: 2, y: 0.5 }]);
    expect(currentLayout(gore).lines[2]!.points).not.toEqual([{ x: 2, y: 0.5 }]);
  });

  test('letters go on from the first that is free, and end when there is no room for more', () => {
    let job: Job = gore;
    for (let n = 0; n < 20; n++) job = copyLayout()(job);
    expect(job.layouts).toHaveLength(MOST_LAYOUTS);
    expect(copyLayout()(job)).toBe(job);
    expect(new Set(job.layouts.map(({ letter }) => letter)).size).toBe(MOST_LAYOUTS);
    const fewer = removeLayout(job.layouts[1]!.id)(job);
    const refilled = copyLayout()(fewer);
    expect(currentLayout(refilled).letter).toBe('B');
    expect(job.layouts.some(({ id }) => id === refilled.currentLayoutId)).toBe(false);
  });

  test('the one worked on cannot go; any can be renamed', () => {
    expect(removeLayout(gore.currentLayoutId)(gore)).toBe(gore);
    expect(currentLayout(renameLayout('layout-a', 'First')(gore)).name).toBe('First');
  });

  test('a file with two layouts of one letter, or a loose end in one that waits, is refused in a sentence', () => {
    const copied = copyLayout()(gore);
    const lettered = { ...copied, layouts: copied.layouts.map((layout) => ({ ...layout, letter: 'A' })) };
    expect(faultIn(lettered)).toContain('Two layouts are called A');
    const inFirst = (changes: object) => ({
      ...copied,
      layouts: copied.layouts.map((layout, n) =>
        n === 0 ? { ...layout, lines: layout.lines.map((line) => ({ ...line, ...changes })) } : layout,
      ),
    });
    expect(faultIn(inFirst({ tee: 'gone' }))).toContain('hangs on the tee "gone"');
    expect(faultIn(inFirst({ stationId: 'pot-9' }))).toContain('runs to "pot-9"');
    expect(faultIn({ ...gore, layouts: [gore.layouts[0], gore.layouts[0]] })).toContain('is used twice');
  });
});

describe('layouts that wait', () => {
  const marked = addMark(
    { x: 2, y: 0.6 },
    'mark-1',
  )(
    jobOf(
      withLine(laidDemos[0]!, 'feed-3', {
        actions: [act('opens', 1, { kind: 'passed', what: 'mark-1', distance: 0, delay: 0 })],
      }),
    ),
  );
  const full = addFitting('tee', at, 'tee-1')(addFitting('pot', at, 'pot')(addMeshArea(box, 'mesh')(marked)));
  const kept = copyLayout()(full);
  const [waiting] = kept.layouts;

  test('lose what waited for a mark that goes, and nothing when a line of the other goes', () => {
    const bare = removeMark('mark-1')(kept);
    expect(bare.layouts.map(({ lines }) => lines[2]!.actions)).toEqual([[], []]);
    expect(faultIn(bare)).toBe('');
    const fewer = removeLine(currentLayout(kept).lines[1]!.id)(kept);
    expect(fewer.layouts[0]).toEqual(waiting);
    expect(faultIn(adoptLayout(waiting!.id)(fewer))).toBe('');
    expect(faultIn(removeTee(currentLayout(kept).tees[0]!.id)(kept))).toBe('');
  });

  test('keep brakes of their own, and drop base plies that are no longer there', () => {
    const braked = copyLayout()(addZone(box, { purpose: 'brake' }, 'strip')(gore));
    expect(braked.zones).toEqual([]);
    const cleared = currentLayout(braked).brakes.reduce(
      (job, { id }) => removeRing({ kind: 'zone', id })(job),
      braked,
    );
    expect(cleared.layouts.map(({ brakes }) => brakes.length)).toEqual([2, 0]);
    const thinner = removePly(null, 0)(cleared);
    expect(faultIn(adoptLayout('layout-a')(thinner))).toBe('');
    const through = thinner.layouts[0]!.brakes.flatMap(({ laminate }) => laminate.plies);
    expect(JSON.stringify(through)).not.toContain('"ply-1"');
  });

  test('a zone becomes a brake of this layout alone, and a zone of the part again', () => {
    const zoned = addZone(box, {}, 'pad')(kept);
    const braked = withPurpose('pad', 'brake')(zoned);
    expect(braked.zones).toEqual([]);
    expect(braked.layouts.map(({ brakes }) => brakes.some(({ id }) => id === 'pad'))).toEqual([false, true]);
    expect(withPurpose('pad', 'part')(braked)).toEqual(zoned);
    expect(withPurpose('pad', 'part')(zoned)).toBe(zoned);
    const two = addZone(box, { purpose: 'brake' }, 'over')(braked);
    expect(
      currentLayout(raiseZone('over', -1)(two))
        .brakes.map(({ id }) => id)
        .slice(-2),
    ).toEqual(['over', 'pad']);
  });

  test('go along when the plan is moved or made for the other hand', () => {
    expect(mirrorJob(mirrorJob(kept)).layouts).toEqual(kept.layouts);
    const moved = moveRing({ kind: 'outline' }, { x: 1, y: 0 })(kept);
    for (const { stations, layers, brakes } of moved.layouts) {
      expect(stations[0]!.place.x).toBeCloseTo(at.x + 1, 9);
      expect(meshAreasOf({ layers })[0]!.outline[0]!.x).toBeCloseTo(at.x + 1, 9);
      expect(brakes[0]!.outline[0]!.x).toBeCloseTo(currentLayout(gore).brakes[0]!.outline[0]!.x + 1, 9);
    }
  });
});
