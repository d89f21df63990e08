import { mkdirSync, writeFileSync } from 'node:fs';
import { z } from 'zod';
import { demoJobs } from '../src/demo/jobs.ts';
import { jobFileSchema } from '@wick/contract/api';

/** Writes the JSON Schema of a job file to docs/ and the demo jobs to demo/, both from the one Zod schema. */
const root = new URL('../../', import.meta.url);
const write = (path: string, value: unknown) =>
  writeFileSync(new URL(path, root), JSON.stringify(value, null, 2) + '\n');
mkdirSync(new URL('demo/', root), { recursive: true });
write('docs/job-file.schema.json', z.toJSONSchema(jobFileSchema));
for (const job of demoJobs) write(`demo/${job.name.toLowerCase().replaceAll(' ', '-')}.wick.json`, job);
console.log('docs/job-file.schema.json and demo/ written');
