import { emptyJob } from '../job/new-job.ts';
import { readFileSync } from 'node:fs';
import { describe, expect, test } from '@jest/globals';
import { z } from 'zod';
import { brokenJobFiles } from './test/broken-job-files.ts';
import { demoJobs } from '../demo/jobs.ts';
import { demoMaterials } from '../demo/materials.ts';
import { jobFileSchema } from '@wick/contract/api';
import { outcomeSchema } from '@wick/contract/job/result';
import { readJobFile, writeJobFile } from './job-file.ts';
import { materialSchema } from '@wick/contract/materials';

describe('reading a job file', () => {
  test.each(demoJobs.map((job) => [job.name, job] as const))('%s comes back as it went out', (_, job) => {
    const read = readJobFile(JSON.stringify(job));
    expect(read).toEqual({ ok: true, value: { job, results: [] } });
  });

  test('an empty job and one saved with a byte-order mark are fine', () => {
    expect(readJobFile(`\uFEFF${JSON.stringify(emptyJob('New'))}`).ok).toBe(true);
  });

  test('results go out and come in with the job; those of layouts that are not there are left behind', () => {
    const job = demoJobs[0]!;
    const outcome = outcomeSchema.parse({
      band: 'tight',
      fillTime: 60,
      gelTime: 90,
      earliest: 50,
      latest: null,
      chance: 0.9,
      dryArea: 0,
      wetShare: 1,
      wastedResin: 0.4,
      lineLength: 3,
      hoseLength: 2,
      operatorActions: 3,
    });
    const result = (layoutId: string) => ({ layoutId, key: '0123456789abcdef', outcome });
    const read = readJobFile(writeJobFile({ job, results: [result('layout-a'), result('gone')] }));
    expect(read).toEqual({ ok: true, value: { job, results: [result('layout-a')] } });
  });

  test.each(brokenJobFiles())('$name: $says', ({ text, says }) => {
    const read = readJobFile(text);
    expect(read.ok).toBe(false);
    if (!read.ok) {
      expect(read.message).toContain(says);
      expect(read.message).toMatch(/\.$/);
    }
  });
});

describe('published files', () => {
  const published = (path: string): unknown =>
    JSON.parse(readFileSync(new URL(`../../../${path}`, import.meta.url), 'utf8'));

  test('docs/job-file.schema.json is the schema of this version', () => {
    expect(published('docs/job-file.schema.json')).toEqual(
      JSON.parse(JSON.stringify(z.toJSONSchema(jobFileSchema))),
    );
  });

  test('demo/ holds the demo jobs', () => {
    expect(published('demo/dome-gore-7.wick.json')).toEqual(JSON.parse(JSON.stringify(demoJobs[0])));
    expect(published('demo/footbridge-kerb-plate.wick.json')).toEqual(
      JSON.parse(JSON.stringify(demoJobs[2])),
    );
    expect(published('demo/hydro-spinner.wick.json')).toEqual(JSON.parse(JSON.stringify(demoJobs[1])));
  });

  test('every demo material is a valid entry with a source', () => {
    for (const material of demoMaterials) expect(materialSchema.parse(material).source).not.toBe('');
  });
});
