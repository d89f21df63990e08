import { readdirSync, rmSync, statSync } from 'node:fs';
import { join } from 'node:path';
import type { ReadingWindow, Samples, Taken } from '@wick/contract/run/instrument';
import { ask, newHome, spawnServer } from './running-server.ts';

const BATCH = 5000;
/** Readings lie so far apart, ms: a million over four days. */
const APART = 333;
const ALL_TIME = 'from=1&to=8000000000000';

interface ReadingsFound {
  readonly readings: number;
  readonly kills: number;
  readonly sentAgain: number;
  /** Batches that were acknowledged and not there later; readings in all, by their sums and by themselves. */
  readonly lost: number;
  readonly kept: number;
  readonly keptTwice: number;
  /** Any window of a thousand places, ms. */
  readonly windows: { readonly median: number; readonly most: number };
  readonly samples: { readonly median: number; readonly most: number };
  /** Readings a second, the kills and starts not counted. */
  readonly pace: number;
  readonly folderMb: number;
  /** Of a start with all of it, s. */
  readonly start: number;
}

/** A device posts readings in batches while the server is killed again and again; what was not answered it sends again. */
export async function siegeByReadings(count: number, kills: number): Promise<ReadingsFound> {
  const { home, folder } = await newHome('readings');
  let server = await spawnServer(folder).ready;
  const made = await ask<{ word: string }>(`${server.url}/api/instruments`, 'POST', {
    ...{ id: 'gauge', name: 'Gauge', measures: 'absolutePressure', unit: 'Pa', kind: 'device' },
    ...{ resolution: 10, noise: 5 },
  });
  const { word } = made.body;
  const began = Date.now() - count * APART;
  const batchCount = Math.ceil(count / BATCH);
  const linesOf = (batch: number) =>
    Array.from({ length: Math.min(BATCH, count - batch * BATCH) }, (_, i) => {
      const n = batch * BATCH + i;
      return `{"id":${n},"at":"${new Date(began + n * APART).toISOString()}","value":${valueOf(n)}}`;
    }).join('\n') + '\n';
  const killAt = new Set(
    Array.from({ length: kills }, (_, n) => Math.floor(((n + Math.random()) * batchCount) / kills)),
  );
  const acknowledged = new Set<number>();
  let [sentAgain, lost, keptTwice, busy] = [0, 0, 0, 0];
  for (let batch = 0; batch < batchCount;) {
    const body = linesOf(batch);
    const sent = performance.now();
    const answer = post(server.url, word, body);
    if (killAt.delete(batch)) {
      await new Promise((resolve) => setTimeout(resolve, 400 * Math.random()));
      await server.kill();
      const taken = await answer;
      if (taken) acknowledged.add(batch);
      server = await spawnServer(folder).ready;
      // One that was answered has to be known now, to the last reading.
      if (batch > 0 && acknowledged.has(batch - 1)) {
        const known = await post(server.url, word, linesOf(batch - 1));
        lost += known!.kept;
      }
      continue;
    }
    const taken = await answer;
    if (!taken) throw new Error('a batch was not answered by a server that was not killed');
    if (acknowledged.has(batch)) lost += taken.kept;
    if (taken.known > 0) sentAgain += 1;
    acknowledged.add(batch);
    busy += performance.now() - sent;
    batch += 1;
  }
  for (const batch of [0, Math.floor(batchCount / 2), batchCount - 1])
    keptTwice += (await post(server.url, word, linesOf(batch)))!.kept;
  const { body: samples } = await ask<Samples>(
    `${server.url}/api/instruments/gauge/samples?${ALL_TIME}&most=4000`,
  );
  const windows: number[] = [];
  const singles: number[] = [];
  for (let n = 0; n < 200; n++) {
    // From some seconds to all of it, anywhere.
    const span = Math.exp(Math.log(10_000) + Math.random() * Math.log((count * APART) / 10_000));
    const from = Math.round(began + Math.random() * (count * APART - span));
    const to = Math.round(from + span);
    const asked = performance.now();
    await ask<ReadingWindow>(`${server.url}/api/instruments/gauge/window?from=${from}&to=${to}&places=1000`);
    windows.push(performance.now() - asked);
    if (n % 10 > 0) continue;
    const again = performance.now();
    await ask(
      `${server.url}/api/instruments/gauge/samples?from=${from}&to=${Math.min(to, from + 8 * 3_600_000)}&most=3000`,
    );
    singles.push(performance.now() - again);
  }
  await server.kill();
  const starting = performance.now();
  server = await spawnServer(folder).ready;
  const start = Math.round((performance.now() - starting) / 100) / 10;
  await server.kill();
  const folderMb = Math.round(sizeOf(folder) / 1e6);
  rmSync(home, { recursive: true, force: true });
  return {
    ...{ readings: count, kills, sentAgain, lost, kept: samples.count, keptTwice },
    windows: { median: middle(windows), most: Math.round(Math.max(...windows)) },
    samples: { median: middle(singles), most: Math.round(Math.max(...singles)) },
    ...{ pace: Math.round(count / (busy / 1000)), folderMb, start },
  };
}

const valueOf = (n: number) => Math.round(1500 + 400 * Math.sin(n / 50_000) + (n % 7));
const middle = (list: number[]) => Math.round([...list].sort((a, b) => a - b)[Math.floor(list.length / 2)]!);

/** null where no answer came. */
async function post(url: string, word: string, body: string): Promise<Taken | null> {
  try {
    const response = await fetch(`${url}/api/readings`, {
      method: 'POST',
      headers: { authorization: `Bearer ${word}`, 'content-type': 'application/x-ndjson' },
      body,
    });
    if (!response.ok) throw new Error(`a batch was answered ${response.status}: ${await response.text()}`);
    return (await response.json()) as Taken;
  } catch (error) {
    if ((error as Error).message.startsWith('a batch')) throw error;
    return null;
  }
}

function sizeOf(path: string): number {
  const found = statSync(path);
  if (!found.isDirectory()) return found.size;
  return readdirSync(path).reduce((sum, name) => sum + sizeOf(join(path, name)), 0);
}
