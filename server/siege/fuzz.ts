import { readFileSync } from 'node:fs';
import { request } from 'node:http';
import { gzipSync } from 'node:zlib';
import { routes } from '@wick/contract/api';
import type { Route } from '@wick/contract/route';
import { jobSchema } from '@wick/contract/job/job';
import { readingLineSchema } from '@wick/contract/run/instrument';
import { demoJobs } from '@wick/plan/demo/jobs';
import { z } from 'zod';
import { anyOf, pick, type Luck } from './any-of.ts';

/** Longest that an answer may take, ms. */
const SLOW = 2000;
const AT_ONCE = 8;
const NO_ANSWER = 15_000;

export interface FuzzResult {
  readonly requests: number;
  readonly byStatus: Readonly<Record<number, number>>;
  /** Answers from 500 on; what took too long; what was never answered. */
  readonly failures: readonly string[];
  readonly slow: number;
  readonly longest: number;
  /** MB, before and after. */
  readonly memory: readonly [number, number];
}

/** Hostile requests over all routes, generated from what each takes. */
export async function siegeByRequests(
  server: { readonly url: string; readonly pid: number },
  count: number,
  seed: number,
): Promise<FuzzResult> {
  const luck = seeded(seed);
  const word = await wordFor(server.url);
  const byStatus: Record<number, number> = {};
  const failures: string[] = [];
  const ids = ['nobody'];
  let [slow, longest, sent] = [0, 0, 0];
  // Warm, so that what a server takes at its first requests does not count as what hostile ones leave behind.
  const shoot = async () => {
    const asked = anyRequest(luck, ids, word);
    const started = performance.now();
    const answer = await send(server.url, asked).catch((error: unknown) => ({
      status: 0,
      text: String(error),
    }));
    const took = performance.now() - started;
    longest = Math.max(longest, took);
    byStatus[answer.status] = (byStatus[answer.status] ?? 0) + 1;
    const [, made] = (answer.status === 201 && /^\{"id":"([^"]+)"/.exec(answer.text)) || [];
    if (made && ids.length < 40) ids.push(made);
    if (took > SLOW) slow += 1;
    // A request that is cut off on purpose has no answer.
    if (answer.status >= 500 || took > SLOW || (answer.status === 0 && !asked.isCutOff))
      failures.push(
        `${asked.method} ${asked.path.slice(0, 80)} ${JSON.stringify(asked.headers)}: ${answer.status} in ${Math.round(took)} ms ${answer.text.slice(0, 200)}`,
      );
  };
  const crowd = async (until: number) => {
    await Promise.all(
      Array.from({ length: AT_ONCE }, async () => {
        while (sent < until) {
          sent += 1;
          await shoot();
        }
      }),
    );
  };
  await crowd(Math.min(500, count / 4));
  const before = memoryOf(server.pid);
  await crowd(count);
  await new Promise((resolve) => setTimeout(resolve, Math.min(20_000, count)));
  return { requests: sent, byStatus, failures, slow, longest, memory: [before, memoryOf(server.pid)] };
}

/** Resident, MB; 0 where the system does not say. */
export function memoryOf(pid: number): number {
  try {
    return Math.round(Number(/VmRSS:\s+(\d+)/.exec(readFileSync(`/proc/${pid}/status`, 'utf8'))![1]) / 1000);
  } catch {
    return 0;
  }
}

interface HostileRequest {
  readonly method: string;
  readonly path: string;
  readonly headers: Record<string, string>;
  readonly body: Buffer | null;
  readonly isCutOff: boolean;
}

const NASTY_IDS = [
  '%',
  '%zz',
  '%00',
  '%ED%A0%80',
  '..%2f..',
  'a'.repeat(5000),
  '%F0%9F%94%A5',
  "'--",
  '-1',
  '💥',
];
const NASTY_TYPES = [
  'text/plain',
  'application/json; charset=utf-9',
  'application/json;charset=latin1',
  'multipart/form-data',
  '',
  'application/xml',
];
const NASTY_BODIES = [
  '',
  '{',
  '[',
  'null',
  '"\\ud800"',
  '{"revision":1e999}',
  '['.repeat(200_000),
  `{"a":${'{"a":'.repeat(5000)}1${'}'.repeat(5000)}}`,
  'x'.repeat(300_000),
].map((text) => Buffer.from(text));

function anyRequest(luck: Luck, ids: readonly string[], word: string): HostileRequest {
  const route: Route = pick(luck, Object.values(routes));
  const isRestore = route.path === routes.restoreBackup.path;
  const id = luck() < 0.7 ? pick(luck, ids) : pick(luck, NASTY_IDS);
  const query =
    luck() < 0.5
      ? `?revision=${pick(luck, ['1', '2', '0', '-1', 'x', '99999999999', '1e3', '%00', '1&revision=2'])}`
      : '';
  const headers: Record<string, string> = {
    'content-type': isRestore ? 'application/zip' : 'application/json',
  };
  if (luck() < 0.05) headers['content-type'] = pick(luck, NASTY_TYPES);
  const isPosted = route.path === routes.postReadings.path;
  if (isPosted) headers.authorization = `Bearer ${luck() < 0.8 ? word : word.slice(0, 20)}`;
  let body = isPosted ? anyLines(luck) : route.body || isRestore ? bodyOf(route, luck) : null;
  if (body && luck() < 0.05) {
    headers['content-encoding'] = pick(luck, ['gzip', 'br', 'deflate', 'zstd', 'x']);
    if (luck() < 0.3) body = gzipSync(body);
  }
  if (luck() < 0.03) headers.origin = pick(luck, ['null', 'http://evil.test', '::::', 'http://127.0.0.1']);
  if (luck() < 0.03) headers.cookie = pick(luck, ['wick=%', 'wick=a.b', `wick=${'x'.repeat(3000)}`]);
  if (luck() < 0.03)
    headers.host = pick(
      luck,
      ['evil.test', '', '127.0.0.1:99999', '[::1', 'a b'].filter((host) => host !== 'a b'),
    );
  const isCutOff = body !== null && luck() < 0.02;
  if (isCutOff) headers['content-length'] = String(body!.length + 1000);
  return {
    method: luck() < 0.97 ? route.method : pick(luck, ['PATCH', 'HEAD', 'OPTIONS', 'PUT', 'POST']),
    path: `${route.path.replace(':id', id.replace('💥', '%F0%9F%92%A5'))}${query}`,
    headers,
    body,
    isCutOff,
  };
}

function bodyOf({ body }: Route, luck: Luck): Buffer {
  if (luck() < 0.15) return pick(luck, NASTY_BODIES);
  if (luck() < 0.05) return Buffer.from(Array.from({ length: 200 }, () => Math.floor(256 * luck())));
  const wild = pick(luck, [0, 0.02, 0.2]);
  const ofFile = body === null || body instanceof z.ZodString;
  const value = ofFile ? anyJob(luck, wild) : anyOf(body, luck, wild);
  if (typeof value === 'object' && value !== null && 'document' in value && luck() < 0.8)
    (value as { document: unknown }).document = anyJob(luck, wild);
  return Buffer.from(JSON.stringify(value) ?? 'null');
}

/** Readings as a device might post them, some cut short. */
function anyLines(luck: Luck): Buffer {
  if (luck() < 0.2) return pick(luck, NASTY_BODIES);
  const lines = Array.from({ length: Math.floor(20 * luck()) }, () =>
    JSON.stringify(anyOf(readingLineSchema, luck, pick(luck, [0, 0.1, 0.5]))),
  );
  const text = `${lines.join('\n')}\n`;
  return Buffer.from(luck() < 0.3 ? text.slice(0, Math.floor(text.length * luck())) : text);
}

/** Of a device that is let in, so that hostile readings come as far as they can. */
async function wordFor(url: string): Promise<string> {
  const answer = await fetch(`${url}${routes.addInstrument.path}`, {
    method: 'POST',
    headers: { 'content-type': 'application/json' },
    body: JSON.stringify({
      ...{ id: `siege-${Date.now()}`, name: 'Siege', measures: 'absolutePressure', unit: 'mbar' },
      ...{ resolution: 10, noise: 0, kind: 'device' },
    }),
  });
  return ((await answer.json()) as { word: string }).word;
}

/** A demo job with some of its values exchanged, or one made up from the schema. */
function anyJob(luck: Luck, wild: number): unknown {
  if (luck() < 0.2) return anyOf(jobSchema, luck, wild);
  const job = structuredClone(pick(luck, demoJobs)) as unknown as Record<string, unknown>;
  const changes = Math.floor(4 * luck());
  for (let n = 0; n < changes; n++) {
    let at = job;
    for (;;) {
      const key = pick(luck, Object.keys(at));
      const next = at[key];
      if (typeof next === 'object' && next !== null && Object.keys(next).length > 0 && luck() < 0.8)
        at = next as Record<string, unknown>;
      else {
        at[key] = anyOf(z.unknown(), luck, 1);
        break;
      }
    }
  }
  return job;
}

function send(
  url: string,
  { method, path, headers, body, isCutOff }: HostileRequest,
): Promise<{ status: number; text: string }> {
  return new Promise((resolve, reject) => {
    const { hostname, port } = new URL(url);
    const asked = request({ hostname, port, method, path, headers, agent: false }, (response) => {
      const chunks: Buffer[] = [];
      // A stream never ends by itself: that it begins is its answer.
      if (response.headers['content-type'] === 'text/event-stream') {
        resolve({ status: response.statusCode!, text: '' });
        return void asked.destroy();
      }
      response.on('data', (chunk: Buffer) => chunks.push(chunk));
      response.on('end', () =>
        resolve({ status: response.statusCode!, text: Buffer.concat(chunks).toString('utf8', 0, 2000) }),
      );
      response.on('error', reject);
    });
    // However it ends, it ends: an answer may break off half-way as well.
    const limit = setTimeout(() => {
      asked.destroy();
      reject(new Error('no answer in 15 s'));
    }, NO_ANSWER);
    asked.on('error', reject);
    asked.on('close', () => {
      clearTimeout(limit);
      reject(new Error('closed without an answer'));
    });
    if (isCutOff) {
      asked.write(body!);
      setTimeout(() => asked.destroy(new Error('cut off')), 20);
    } else asked.end(body ?? undefined);
  });
}

/** Mulberry32: the same requests for the same seed. */
function seeded(seed: number): Luck {
  let state = seed >>> 0;
  return () => {
    state = (state + 0x6d2b79f5) >>> 0;
    let t = state;
    t = Math.imul(t ^ (t >>> 15), t | 1);
    t ^= t + Math.imul(t ^ (t >>> 7), t | 61);
    return ((t ^ (t >>> 14)) >>> 0) / 4294967296;
  };
}
