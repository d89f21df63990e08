import { expect, test } from '@jest/globals';
import { createKeeper } from './keep-for-later.ts';

const list = ['/assets/a.js', '/assets/b.js', '/assets/c.css'];

/** A server that can be away, or send a page in place of a list; each answer takes a moment. */
function aServer() {
  const state = { isUp: true, isOdd: false };
  const log: string[] = [];
  let open = 0;
  return {
    state,
    log,
    async get(url: string): Promise<Response> {
      open += 1;
      expect(open).toBe(1);
      await new Promise((resolve) => setTimeout(resolve, 1));
      open -= 1;
      if (!state.isUp) throw new TypeError('no answer');
      log.push(url);
      if (url === '/kept.json') return new Response(state.isOdd ? '<!doctype html>' : JSON.stringify(list));
      return new Response('code');
    },
  };
}

test('what a job needs is fetched one after the other, once', async () => {
  const server = aServer();
  const keep = createKeeper(server.get);
  await Promise.all([keep(), keep()]);
  await keep();
  expect(server.log).toEqual(['/kept.json', ...list]);
});

test('a server that is away, or answers with something else, is asked again another time', async () => {
  const server = aServer();
  const keep = createKeeper(server.get);
  server.state.isUp = false;
  await keep();
  server.state.isUp = true;
  server.state.isOdd = true;
  await keep();
  expect(server.log).toEqual(['/kept.json']);
  server.state.isOdd = false;
  await keep();
  expect(server.log.slice(1)).toEqual(['/kept.json', ...list]);
});
