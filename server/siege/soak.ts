import { readdirSync, readFileSync, statSync } from 'node:fs';
import { join } from 'node:path';
import type { JobListItem, StoredJob } from '@wick/contract/api';
import type { Job, JobLine } from '@wick/contract/job/job';
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
  /** Share of the processors' time that the machine's host gave to others meanwhile: what was slow for that is not the program's. */
  readonly stolen: number;
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
  const [before, end] = [processorTimes(), Date.now() + duration];
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
        const document = changed(demoJobs[client % demoJobs.length]!, `Client ${client} write ${n}`, n);
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
    stolen: stolenSince(before),
  };
}

/** Of all processors since the machine was started, in ticks; none where the system does not tell. */
function processorTimes(): number[] {
  try {
    return readFileSync('/proc/stat', 'utf8').split('\n')[0]!.trim().split(/\s+/).slice(1).map(Number);
  } catch {
    return [];
  }
}

/** The eighth of Linux's times is what a virtual machine was not given. */
function stolenSince(before: readonly number[]): number {
  const passed = processorTimes().map((ticks, i) => ticks - (before[i] ?? 0));
  const all = passed.slice(0, 8).reduce((sum, ticks) => sum + ticks, 0);
  return all > 0 ? (passed[7] ?? 0) / all : NaN;
}

/** With its lines where a hand has dragged them to. */
function changed(job: Job, name: string, n: number): Job {
  const by = (n % 50) * 1e-3;
  const dragged = ({ points, ...line }: JobLine) => ({
    ...line,
    points: points.map(({ x, y }) => ({ x: x + by, y })),
  });
  return {
    ...job,
    name,
    layouts: job.layouts.map((layout) => ({ ...layout, lines: layout.lines.map(dragged) })),
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
