import { readdirSync, statSync } from 'node:fs';
import { join } from 'node:path';
import type { JobListItem, StoredJob } from '@wick/contract/api';
import { demoJobs } from '@wick/plan/demo/jobs';
import { ask, type RunningServer } from './running-server.ts';
import { memoryOf } from './fuzz.ts';

export interface SoakResult {
  readonly requests: number;
  readonly failures: number;
  /** ms */
  readonly median: number;
  readonly p99: number;
  readonly longest: number;
  /** Bytes of the database's folder at its largest and in the end, and of what is kept in it as JSON. */
  readonly folderMost: number;
  readonly folderEnd: number;
  readonly content: number;
  /** MB at its most. */
  readonly memory: number;
}

const pause = (ms: number) => new Promise((resolve) => setTimeout(resolve, ms));

/** So many clients at work for so long, ms: each opens a job, changes it as a hand does, looks at the list now and then. */
export async function soak(
  server: RunningServer,
  folder: string,
  clients: number,
  duration: number,
): Promise<SoakResult> {
  const times: number[] = [];
  let [failures, folderMost, memory] = [0, 0, 0];
  const end = Date.now() + duration;
  async function timed<T>(path: string, method = 'GET', body?: unknown) {
    const started = performance.now();
    const answer = await ask<T>(`${server.url}${path}`, method, body);
    times.push(performance.now() - started);
    if (answer.status >= 300) failures += 1;
    return answer.body;
  }
  const watch = (async () => {
    while (Date.now() < end) {
      folderMost = Math.max(folderMost, sizeOf(join(folder, 'database')));
      memory = Math.max(memory, memoryOf(server.pid));
      await pause(1000);
    }
  })();
  await Promise.all([
    watch,
    ...Array.from({ length: clients }, async (_, client) => {
      const made = await timed<StoredJob>('/api/jobs', 'POST', { name: `Client ${client}` });
      let { revision } = made;
      for (let n = 0; Date.now() < end; n++) {
        const document = {
          ...demoJobs[(client + n) % demoJobs.length]!,
          name: `Client ${client} write ${n}`,
        };
        ({ revision } = await timed<{ revision: number }>(`/api/jobs/${made.id}`, 'PUT', {
          revision,
          document,
        }));
        if (n % 5 === 0) await timed('/api/jobs');
        if (n % 7 === 0) await timed(`/api/jobs/${made.id}`);
        // A hand that drags: a write each half second or so.
        await pause(200 + 400 * Math.random());
      }
    }),
  ]);
  times.sort((a, b) => a - b);
  return {
    requests: times.length,
    failures,
    median: times[Math.floor(times.length / 2)]!,
    p99: times[Math.floor(0.99 * times.length)]!,
    longest: times.at(-1)!,
    folderMost,
    folderEnd: sizeOf(join(folder, 'database')),
    content: await contentOf(server.url),
    memory,
  };
}

/** What is kept, as text: every job with its earlier versions. */
async function contentOf(url: string): Promise<number> {
  let sum = 0;
  for (const { id } of (await ask<JobListItem[]>(`${url}/api/jobs`)).body) {
    const size = JSON.stringify((await ask<StoredJob>(`${url}/api/jobs/${id}`)).body).length;
    const versions = (await ask<unknown[]>(`${url}/api/jobs/${id}/revisions`)).body.length;
    sum += size * (1 + versions);
  }
  return sum;
}

function sizeOf(path: string): number {
  try {
    if (!statSync(path).isDirectory()) return statSync(path).size;
    return readdirSync(path).reduce((sum, name) => sum + sizeOf(join(path, name)), 0);
  } catch {
    // Gone between the look and the count.
    return 0;
  }
}
