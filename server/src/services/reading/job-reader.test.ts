import { afterAll, describe, expect, test } from '@jest/globals';
import type { Job } from '@wick/contract/job/job';
import { usualShop } from '@wick/contract/shop';
import { demoJobs } from '@wick/plan/demo/jobs';
import { createJobReader, readHere } from './job-reader.ts';

const small = demoJobs[0]!;
/** Of so many corners under so many plies. */
const largeJob = (corners: number, plies: number): Job => ({
  ...small,
  part: {
    ...small.part,
    outline: Array.from({ length: corners }, (_, i) => ({
      x: 2 + Math.cos((2 * Math.PI * i) / corners),
      y: 2 + Math.sin((2 * Math.PI * i) / corners),
    })),
    holes: [],
  },
  laminate: {
    ...small.laminate,
    plies: Array.from({ length: plies }, (_, i) => ({ ...small.laminate.plies[0]!, id: `ply-${i}` })),
  },
  zones: [],
});
const large = largeJob(1500, 200);

const reader = createJobReader();
afterAll(() => reader.close());

describe('large documents are read aside', () => {
  test('and come to the same as here', async () => {
    const here = await readHere.readAndSummarise(large, usualShop);
    expect(here).toMatchObject({ ok: true });
    expect(await reader.readAndSummarise(large, usualShop)).toEqual(here);
    expect(await reader.readFile(JSON.stringify(large), usualShop)).toEqual(here);
    const wrong = { ...large, name: 7 };
    expect(await reader.read(wrong)).toEqual(await readHere.read(wrong));
    expect(await reader.read(wrong)).toMatchObject({ ok: false, code: 'BAD_JOB' });
  });

  test('while what is asked later is answered before', async () => {
    const answered: string[] = [];
    const ask = async (name: string, job: Job) => {
      await reader.readAndSummarise(job, usualShop);
      answered.push(name);
    };
    await Promise.all([ask('large', large), ask('small', small), ask('small', small)]);
    expect(answered).toEqual(['small', 'small', 'large']);
  });

  test('for a minute at most; the next one is read all the same', async () => {
    const hasty = createJobReader({ longest: 1 });
    await expect(hasty.read(large)).rejects.toMatchObject({ code: 'TOO_LARGE' });
    expect(await hasty.read(small)).toMatchObject({ ok: true });
    await hasty.close();
  });

  test('a reading that ends its thread is one failed request, not the end of the server', async () => {
    const narrow = createJobReader({ memory: 24 });
    const endless = Array.from({ length: 1e6 }, (_, i) => ({ i, list: [i] }));
    await expect(narrow.read(endless)).rejects.toThrow(/memory/);
    expect(await narrow.read(large)).toMatchObject({ ok: true });
    await narrow.close();
  });
});
