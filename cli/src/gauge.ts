import { setTimeout as pause } from 'node:timers/promises';
import { routes } from '@wick/contract/api';
import { takenSchema } from '@wick/contract/run/instrument';
import type { Entry, EntryBody } from '@wick/contract/run/run';
import { leakPlacesOf } from '@wick/plan/vacuum/places';
import { createRehearsal } from '@wick/plan/run/rehearsal';
import { instrumentIn } from '@wick/plan/run/simulated';
import { CliError, type Output } from './exit-codes.ts';
import { numberIn, readJobAt, shopOf, type ShopOptions } from './read-job.ts';

interface GaugeOptions extends ShopOptions {
  word?: string;
  url?: string;
  for?: string;
  'pull-for'?: string;
  leak?: string;
  wet?: string;
}

/** Readings that are sent at once, and kept while the server is away. */
const BATCH = 500;
const MOST_KEPT = 100_000;
const AWAY = 3000;

const URL_ASKED = 'http://127.0.0.1:4173';

/**
 * A simulated vacuum gauge on the bag of a job file, posting to a running server as a real one would: a reading a second, an id each,
 * what the server has not taken kept and sent again.
 */
export async function gauge(file: string, options: GaugeOptions, { out, err }: Output): Promise<number> {
  const { word, url = URL_ASKED } = options;
  if (!word)
    throw new CliError(
      'usage',
      'Show the word of the gauge: --word. It is made under Vacuum, Gauges, with a new instrument.',
    );
  const minutes = numberIn(options.for ?? '60', '--for', 0.01, 10_000);
  const pullFor = numberIn(options['pull-for'] ?? '5', '--pull-for', 0, 10_000);
  const job = readJobAt(file);
  const shop = shopOf(options);
  const start = Date.now();
  const run = { id: 'wick', startedAt: new Date(start).toISOString(), speed: 1, seed: start % 2 ** 31 };
  const bag = createRehearsal(job, shop, run, leakPlacesOf(job, shop, null));
  const entries = [
    said(start, 1, { kind: 'pull' }),
    said(start, 2, trouble('leak', numberIn(options.leak ?? '0', '--leak', 0, 1e4) / 10)),
    said(start, 3, trouble('wetCore', numberIn(options.wet ?? '0', '--wet', 0, 1e4) * 100)),
    said(start + pullFor * 60_000, 4, { kind: 'shut' }),
  ];
  const waiting: { id: string; at: string; value: number; unit: string }[] = [];
  const until = start + minutes * 60_000;
  let sentCount = 0;
  while (Date.now() < until) {
    for (const { id, at, value, instrumentId } of bag.pass(Date.now(), entries))
      if (instrumentId === instrumentIn(run, 'gauge'))
        waiting.push({ id: `${start}-${id}`, at: new Date(at).toISOString(), value, unit: 'Pa' });
    waiting.splice(0, waiting.length - MOST_KEPT);
    const answer = await post(url, word, waiting.slice(0, BATCH));
    if (answer.kind === 'refused') throw new CliError('file', answer.why);
    if (answer.kind === 'away') {
      err(`${answer.why} ${waiting.length} readings are kept and sent again.`);
      await pause(AWAY);
      continue;
    }
    const sent = waiting.splice(0, BATCH);
    sentCount += sent.length;
    const last = sent.at(-1);
    if (last)
      out(`${last.at}  ${(last.value / 100).toFixed(1)} mbar  ${answer.kept} new, ${sentCount} in all`);
    if (waiting.length === 0) await pause(1000);
  }
  return 0;
}

const trouble = (what: 'leak' | 'wetCore', amount: number): EntryBody => ({
  ...{ kind: 'trouble', what, placeId: null, amount },
});
const said = (at: number, order: number, body: EntryBody): Entry => ({
  ...{ id: `${order}`, runId: 'wick', order, by: '', device: '', body },
  at: new Date(at).toISOString(),
  writtenAt: new Date(at).toISOString(),
});

type Answer =
  | { readonly kind: 'taken'; readonly kept: number }
  /** The server will not take them, now or later. */
  | { readonly kind: 'refused'; readonly why: string }
  | { readonly kind: 'away'; readonly why: string };

/** What the clock of the device shows goes first: the server puts the times right by it. */
async function post(url: string, word: string, readings: readonly object[]): Promise<Answer> {
  const lines = [{ now: new Date().toISOString() }, ...readings].map((line) => JSON.stringify(line));
  try {
    const response = await fetch(new URL(routes.postReadings.path, url), {
      method: 'POST',
      headers: { authorization: `Bearer ${word}`, 'content-type': 'application/x-ndjson' },
      body: `${lines.join('\n')}\n`,
    });
    const body = (await response.json()) as { detail?: string };
    if (response.ok) return { kind: 'taken', kept: takenSchema.parse(body).kept };
    const why = body.detail ?? `The server answered ${response.status}.`;
    return response.status === 429 || response.status >= 500
      ? { kind: 'away', why }
      : { kind: 'refused', why };
  } catch {
    return { kind: 'away', why: `No server answers at ${url}.` };
  }
}
