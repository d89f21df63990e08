import { booksOf, checkOfBook } from './books.ts';
import { emptyJob } from '../job/new-job.ts';
import { describe, expect, test } from '@jest/globals';
import { demoJobs } from '../demo/jobs.ts';
import { demoMaterials } from '../demo/materials.ts';
import { type Job } from '@wick/contract/job/job';
import { readJob } from '../files/job-file.ts';
import { laidOut } from '../job/laid.ts';
import {
  addPly,
  keyOf,
  laminateAt,
  mirrorStack,
  movePly,
  removePly,
  repeatPly,
  setThrough,
  stagger,
  updatePly,
  withLaminate,
} from './edits.ts';

const tray = demoJobs.find(({ name }) => name === 'Rescue sled tray')!;
const material = (id: string) => demoMaterials.find((item) => item.id === id)!;
const keys = (job: Job, book: string | null) => laminateAt(job, book).plies.map(keyOf);
const sound = (job: Job) => {
  expect(readJob(JSON.parse(JSON.stringify(job)))).toMatchObject({ ok: true });
  return job;
};

describe('edits of the ply book', () => {
  test('a new base ply runs through zones that have the whole base, and stops at the others', () => {
    const partial = sound(removePly('lashing', 0)(tray));
    const more = sound(addPly(null, material('twill-carbon-200'), 0)(partial));
    const added = more.laminate.plies.at(-1)!.id;
    expect(keys(more, 'floor')).toContain(added);
    expect(keys(more, 'lashing')).not.toContain(added);
  });

  test('the first plies of an empty job run into its empty zones', () => {
    const blank = emptyJob('x');
    const zoned: Job = {
      ...blank,
      zones: [
        {
          ...tray.zones[0]!,
          laminate: { ...tray.zones[0]!.laminate, plies: [], coreId: null },
        },
      ],
    };
    expect(keys(addPly(null, material('biax-glass-600'), 0)(zoned), 'floor')).toHaveLength(1);
  });

  test('a ply taken out of the base is gone from every zone', () => {
    const less = sound(removePly(null, 1)(tray));
    expect(keys(less, 'floor')).toEqual(['ply-1', 'ply-3', 'ply-4']);
    expect(keys(less, 'lashing')).toEqual(['ply-1', 'lash-1', 'lash-2', 'ply-3', 'ply-4']);
  });

  test('moved by one place; beyond the ends nothing happens', () => {
    expect(keys(movePly(null, 0, 2)(tray), null)).toEqual(['ply-2', 'ply-3', 'ply-1', 'ply-4']);
    expect(keys(movePly('lashing', 2, 5)(tray), 'lashing').at(-1)).toBe('lash-1');
    expect(movePly(null, 0, 9)(tray)).toBe(tray);
    expect(movePly(null, 1, 1)(tray)).toBe(tray);
  });

  test('changed in a zone, a ply that runs through is changed in the base', () => {
    const turned = updatePly('floor', 0, { angle: 1.2 })(tray);
    expect(turned.laminate.plies[0]!.angle).toBe(1.2);
    expect(turned.zones).toEqual(tray.zones);
    const own = updatePly('lashing', 2, { inset: 0.03 })(tray);
    expect(own.laminate).toEqual(tray.laminate);
  });

  test('exchanged cloth is brought in, and what nothing needs any more is dropped', () => {
    const uni = material('woven-glass-300');
    const swapped = sound(
      updatePly('lashing', 2, { materialId: uni.id }, [uni])(
        updatePly('lashing', 3, { materialId: uni.id }, [uni])(tray),
      ),
    );
    const ids = swapped.materials.map(({ id }) => id);
    expect(ids).toContain('woven-glass-300');
    expect(ids).not.toContain('uni-carbon-300');
  });

  test('repeated, a ply that runs through becomes one of the zone’s own', () => {
    const repeated = sound(repeatPly('floor', 0)(tray));
    expect(laminateAt(repeated, 'floor').plies[1]).toMatchObject({ materialId: 'twill-carbon-200' });
    expect(repeated.laminate).toEqual(tray.laminate);
  });

  test('five plies at once are five plies with ids of their own, in the base and run through', () => {
    const more = sound(addPly(null, material('twill-carbon-200'), 0.5, 5)(tray));
    expect(more.laminate.plies).toHaveLength(tray.laminate.plies.length + 5);
    expect(keys(more, 'floor').slice(-5)).toEqual(keys(more, null).slice(-5));
    expect(
      sound(repeatPly(null, 1, 3)(tray))
        .laminate.plies.map(({ angle }) => angle)
        .slice(1, 5),
    ).toEqual(Array.from({ length: 4 }, () => tray.laminate.plies[1]!.angle));
  });

  test('stopped at a zone and let run again, a ply is back in its place', () => {
    const stopped = sound(setThrough('lashing', 'ply-3', false)(tray));
    expect(keys(stopped, 'lashing')).toEqual(['ply-1', 'ply-2', 'lash-1', 'lash-2', 'ply-4']);
    expect(keys(setThrough('lashing', 'ply-3', true)(stopped), 'lashing')).toEqual(keys(tray, 'lashing'));
  });

  test('mirrored it is symmetric; staggered each own ply steps back once more', () => {
    const spinner = demoJobs.find(({ name }) => name === 'Hydro spinner')!;
    const mirrored = sound(mirrorStack(null)(spinner));
    const laid = laidOut(mirrored);
    expect(checkOfBook(laid, booksOf(laid)[0]!).isSymmetric).toBe(true);
    expect(mirrored.laminate.plies).toHaveLength(10);
    const stepped = stagger('lashing', 0.01)(tray);
    expect(
      laminateAt(stepped, 'lashing').plies.flatMap((ply) => ('through' in ply ? [] : [ply.inset])),
    ).toEqual([0, 0.01]);
    expect(stagger(null, 0.02)(tray).laminate.plies.map((ply) => ply.inset)).toEqual([0, 0.02, 0.04, 0.06]);
  });

  test('fibre volume and pressure: a file that states both is refused', () => {
    const both = withLaminate(null, { fibreVolumeFraction: 0.5, compactionPressure: 5e4 })(tray);
    const read = readJob(both);
    expect(!read.ok && read.message).toContain('state one of them');
    const lost = {
      ...tray,
      zones: [
        { ...tray.zones[0]!, laminate: { ...tray.zones[0]!.laminate, plies: [{ through: 'nobody' }] } },
      ],
    };
    const missing = readJob(lost);
    expect(!missing.ok && missing.message).toContain('which the base laminate does not have');
  });
});
