import { createServer } from 'node:http';

/** Names this address's answers while the program is got ready, so that the page knows when the program itself answers. */
const PROGRESS = '/getting-ready';

/**
 * Answers at the address of the program until the program can: says what is being done, and how far it is.
 * @param steps their words in order, by a name each
 * @throws where the address cannot be had
 */
export async function openFrontDesk({ port, host, steps }) {
  const state = Object.entries(steps).map(([name, words]) => ({
    ...{ name, words, is: 'waiting', done: 0, all: 0, began: 0, took: 0 },
  }));
  const rowOf = (name) => state.find((row) => row.name === name);
  const server = createServer((request, response) => {
    if (request.method !== 'GET' && request.method !== 'HEAD') return response.writeHead(503).end();
    if (request.url === PROGRESS) {
      response.writeHead(200, { 'content-type': 'application/json', 'cache-control': 'no-store' });
      return response.end(JSON.stringify(state));
    }
    const isPage = (request.headers.accept ?? '').includes('text/html');
    response.writeHead(isPage ? 200 : 503, {
      ...{ 'content-type': 'text/html; charset=utf-8', 'cache-control': 'no-store', 'retry-after': '5' },
      'content-security-policy':
        "default-src 'none'; style-src 'unsafe-inline'; script-src 'unsafe-inline'; connect-src 'self'",
    });
    response.end(PAGE);
  });
  await new Promise((resolve, reject) => {
    server.once('error', reject);
    server.listen(port, host, resolve);
  });
  return {
    begin: (name) => Object.assign(rowOf(name), { is: 'running', began: Date.now() }),
    tell: (name, done, all = 0) => Object.assign(rowOf(name), { done, all }),
    end(name) {
      const row = rowOf(name);
      Object.assign(row, { is: 'done', took: row.began ? Date.now() - row.began : 0 });
    },
    /** Gives the address up. */
    close: () =>
      new Promise((resolve) => {
        server.close(resolve);
        server.closeAllConnections();
      }),
  };
}

const PAGE = `<!doctype html>
<html lang="en">
<meta charset="utf-8" />
<meta name="viewport" content="width=device-width, initial-scale=1" />
<title>Vivid Wick is getting ready</title>
<style>
  :root { color-scheme: light dark; --paper: #f6f3ec; --ink: #1e2a2f; --quiet: #55605f; --resin: #c77700; --moss: #3f6b4f; --rule: #d9d2c3; }
  @media (prefers-color-scheme: dark) { :root { --paper: #10181b; --ink: #e8e2d4; --quiet: #a9b1ae; --rule: #2b383c; --moss: #86b594; } }
  body { margin: 0; background: var(--paper); color: var(--ink); font: 17px/1.5 system-ui, sans-serif; }
  main { max-width: 36rem; margin: 12vh auto 0; padding: 0 1.5rem; }
  h1 { font-size: 1.7rem; margin: 0 0 0.25rem; }
  p { margin: 0 0 1.75rem; color: var(--quiet); }
  ol { list-style: none; margin: 0; padding: 0; }
  li { display: grid; grid-template-columns: 1fr auto; gap: 0 1rem; padding: 0.7rem 0; border-top: 1px solid var(--rule); color: var(--quiet); }
  li.running, li.done { color: var(--ink); }
  li span { font-variant-numeric: tabular-nums; }
  li.done span { color: var(--moss); }
  progress { grid-column: 1 / -1; width: 100%; height: 4px; margin-top: 0.5rem; accent-color: var(--resin); }
</style>
<main>
  <h1>Vivid Wick is getting ready</h1>
  <p id="word" aria-live="polite">The first start lays everything out; later ones take seconds.</p>
  <ol id="steps"></ol>
</main>
<script>
  const seconds = (ms) => Math.max(1, Math.round(ms / 1000)) + ' s';
  const figure = (row) =>
    row.is === 'done' ? (row.took ? 'done in ' + seconds(row.took) : 'done')
    : row.is === 'waiting' ? ''
    : row.all ? row.done + ' of ' + row.all
    : row.done ? row.done + ' files' : seconds(Date.now() - row.began);
  const word = document.getElementById('word');
  let unanswered = 0;
  async function look() {
    try {
      const answer = await fetch('${PROGRESS}', { cache: 'no-store' });
      const kind = answer.headers.get('content-type') || '';
      if (!answer.ok || !kind.includes('json')) return location.reload();
      unanswered = 0;
      const list = document.getElementById('steps');
      list.replaceChildren(...(await answer.json()).map((row) => {
        const item = document.createElement('li');
        item.className = row.is;
        const words = document.createElement('div');
        words.textContent = row.words;
        const number = document.createElement('span');
        number.textContent = figure(row);
        item.append(words, number);
        if (row.is === 'running') {
          const bar = document.createElement('progress');
          if (row.all) { bar.max = row.all; bar.value = row.done; }
          item.append(bar);
        }
        return item;
      }));
    } catch {
      unanswered += 1;
      word.textContent = unanswered < 20 ? 'Waiting for the program to answer.' : 'It has stopped. The terminal in which it was started says why.';
    }
    setTimeout(look, 400);
  }
  look();
</script>
</html>`;
