import { createServer, type IncomingMessage } from 'node:http';
import type { AddressInfo } from 'node:net';
import { fileURLToPath } from 'node:url';
import { expect, test } from '@jest/globals';
import { readReadingLines } from '@wick/plan/run/reading-lines';
import { main } from './main.ts';

const job = fileURLToPath(new URL('../../demo/dome-gore-7.wick.json', import.meta.url));

async function textOf(request: IncomingMessage): Promise<string> {
  let text = '';
  for await (const chunk of request) text += String(chunk);
  return text;
}

/** A server that takes, refuses, or is away, as it is told. */
async function aServer(statusOf: (n: number) => number) {
  const bodies: string[] = [];
  const words: (string | undefined)[] = [];
  const server = createServer((request, response) => {
    void textOf(request).then((text) => {
      const status = statusOf(bodies.push(text));
      words.push(request.headers.authorization);
      response.writeHead(status, { 'content-type': 'application/json' });
      const kept = text.split('\n').length - 2;
      response.end(
        JSON.stringify(
          status === 200 ? { kept, known: 0, refused: [], clockOffset: 0 } : { detail: `no, ${status}` },
        ),
      );
    });
  }).listen(0, '127.0.0.1');
  await new Promise((resolve) => server.once('listening', resolve));
  const url = `http://127.0.0.1:${(server.address() as AddressInfo).port}`;
  return { url, bodies, words, close: () => server.close() };
}

async function wick(...args: string[]) {
  const [lines, errors]: [string[], string[]] = [[], []];
  const code = await main(args, { out: (text) => lines.push(text), err: (text) => errors.push(text) });
  return { code, out: lines.join('\n'), err: errors.join('\n') };
}

test('posts its clock and a reading a second, each with an id of its own', async () => {
  const server = await aServer(() => 200);
  const { code, out } = await wick('gauge', job, '--word', 'g.secret', '--url', server.url, '--for', '0.06');
  server.close();
  expect(code).toBe(0);
  expect(out).toMatch(/mbar {2}\d+ new, \d+ in all/);
  expect(server.words.every((word) => word === 'Bearer g.secret')).toBe(true);
  const read = server.bodies.map((text) =>
    readReadingLines(text, { measures: 'absolutePressure', unit: 'mbar' }, Date.now()),
  );
  expect(read.every(({ refused, clockOffset }) => refused.length === 0 && clockOffset !== null)).toBe(true);
  const ids = read.flatMap(({ readings }) => readings.map(({ id }) => id));
  expect(ids.length).toBeGreaterThanOrEqual(3);
  expect(new Set(ids).size).toBe(ids.length);
});

test('what a server that is away has not taken is kept and sent again', async () => {
  const server = await aServer((n) => (n < 2 ? 503 : 200));
  const { code, err } = await wick('gauge', job, '--word', 'g.secret', '--url', server.url, '--for', '0.09');
  server.close();
  expect(code).toBe(0);
  expect(err).toMatch(/no, 503 \d+ readings are kept and sent again/);
  const idsIn = (text: string) =>
    readReadingLines(text, { measures: 'absolutePressure', unit: 'Pa' }, Date.now()).readings.map(
      ({ id }) => id,
    );
  const taken = server.bodies.slice(1).flatMap(idsIn);
  for (const id of idsIn(server.bodies[0]!)) expect(taken).toContain(id);
});

test('a word that is not good ends it with what the server says; without one it says where one is made', async () => {
  const server = await aServer(() => 401);
  const refused = await wick('gauge', job, '--word', 'g.wrong', '--url', server.url, '--for', '1');
  server.close();
  expect(refused).toMatchObject({ code: 3, err: 'no, 401' });
  expect(await wick('gauge', job)).toMatchObject({ code: 2, err: expect.stringContaining('Vacuum, Gauges') });
  expect((await wick('gauge', job, '--word', 'x', '--leak', 'much')).err).toMatch(/--leak takes a number/);
});
