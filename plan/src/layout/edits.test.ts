import { describe, expect, test } from '@jest/globals';
import { demoJobs } from '../demo/jobs.ts';
import { demoMaterials } from '../demo/materials.ts';
import { readJob } from '../files/job-file.ts';
import { withDoubt, withForecast, withResinSystem } from '../job/edits.ts';
import { emptyJob } from '../job/new-job.ts';
import { act } from '../test/laid-demos.ts';
import { addLine, moveLine, newLine, removeLine, updateLine } from './edits.ts';
import { addMark, moveMark, removeMark } from './marks.ts';
import { addTee, removeTee } from './fittings.ts';
import { moveCorner, removeCorner, splitEdgeAt } from '../part/edits.ts';
import { addPly } from '../laminate/edits.ts';
import type { MaterialOf } from '@wick/contract/materials';
import { withMesh } from '../stack/mesh.ts';

const gore = demoJobs[0]!;
const material = (id: string) => demoMaterials.find((item) => item.id === id)!;
const found = (id: string) => material(id) as MaterialOf<'flowMesh'>;

describe('edits of a job', () => {
  test('none of them touches the job it is given, and each result is a valid job', () => {
    const before = JSON.stringify(gore);
    const edits = [
      moveCorner({ kind: 'outline' }, 0, { x: -0.1, y: 0 }),
      splitEdgeAt({ kind: 'outline' }, 0),
      removeCorner({ kind: 'outline' }, 3),
      moveLine('feed-1', { x: 0.01, y: 0 }),
      removeLine('feed-2'),
      addPly(null, material('woven-glass-300'), 0),
      withMesh(found('mesh-fine'), 'new-mesh'),
      withResinSystem(material('epoxy-slow-s3')),
      addMark({ x: 1, y: 0.5 }),
      addTee(),
      withForecast({ layers: true }),
      withDoubt({ raceChance: 0.3 }),
    ];
    for (const edit of edits) {
      const after = edit(gore);
      expect(after).not.toEqual(gore);
      expect(readJob(JSON.parse(JSON.stringify(after))).ok).toBe(true);
    }
    expect(JSON.stringify(gore)).toBe(before);
  });

  test('materials follow use: brought in when chosen, dropped when nothing needs them, never swapped under a job', () => {
    const meshed = withMesh(found('mesh-fine'), 'new-mesh')(gore);
    expect(meshed.materials.map((item) => item.id)).toContain('mesh-fine');
    expect(meshed.materials.map((item) => item.id)).not.toContain('mesh-open');
    const newer = { ...material('quad-glass-850'), name: 'Changed in the library' };
    const plied = addPly(null, newer, 0)(gore);
    expect(plied.materials.find((item) => item.id === 'quad-glass-850')!.name).toBe('Quad glass 850');
  });

  test('what goes takes along what waited for it: lines, marks and tees leave no loose end', () => {
    const waiting = act('shuts', 0, { kind: 'opened', what: 'feed-2', delay: 0 });
    const job = updateLine('feed-1', { tee: 'tee-1', actions: [waiting] })(
      addTee(null, 'tee-1')(addMark({ x: 1, y: 0.5 }, 'mark-1')(gore)),
    );
    expect(readJob(job).ok).toBe(true);
    const bare = removeTee('tee-1')(removeMark('mark-1')(removeLine('feed-2')(job)));
    expect(readJob(bare).ok).toBe(true);
    const { tees, lines } = bare.layouts[0]!;
    expect([tees, bare.marks, lines[0]!.actions, lines[0]!.tee]).toEqual([[], [], [], null]);
    expect(moveMark('mark-1', { x: 0.1, y: 0 })(job).marks[0]).toMatchObject({ x: 1.1, y: 0.5 });
  });

  test('materials of zones count as used', () => {
    expect(removeLine('feed-2')(gore).materials).toEqual(gore.materials);
    const plied = addPly(null, material('biax-glass-600'), 0)(gore);
    expect(plied.materials.map(({ id }) => id)).toEqual([
      ...gore.materials.map(({ id }) => id),
      'biax-glass-600',
    ]);
  });

  test('a part keeps three corners; positions keep a tenth of a millimetre', () => {
    let job = emptyJob('x');
    for (let i = 0; i < 4; i++) job = removeCorner({ kind: 'outline' }, 0)(job);
    expect(job.part.outline).toHaveLength(3);
    expect(moveCorner({ kind: 'outline' }, 0, { x: 0.123456, y: 1 / 3 })(job).part.outline[0]).toEqual({
      x: 0.1235,
      y: 0.3333,
    });
  });

  test('new lines take the next free name; only the first feed opens at the start', () => {
    let job = emptyJob('x');
    for (const kind of ['feed', 'feed', 'vent'] as const)
      job = addLine(newLine(job, kind, [{ x: 0, y: 0 }]))(job);
    const { lines } = job.layouts[0]!;
    expect(lines.map((line) => [line.name, line.startsOpen, line.actions.length])).toEqual([
      ['Feed 1', true, 0],
      ['Feed 2', false, 1],
      ['Vent 1', true, 0],
    ]);
    const fewer = removeLine(lines[0]!.id)(job);
    const again = newLine(fewer, 'feed', []);
    expect(again.name).toBe('Feed 1');
    // The name is free again; the id never is.
    expect(again.id).not.toBe(lines[0]!.id);
  });
});
