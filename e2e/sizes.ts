import { createServer, request } from 'node:http';
import { chromium } from '@playwright/test';
import { launchOptions } from './support/browser.ts';
import { workshopFolder } from '../scripts/workshop.mjs';
import { beginWith, newFolder, startServer } from './support/server.ts';

/**
 * What travels over the wire until a page stands, with an empty cache, in kB of 1000 bytes. Counted by a relay
 * between browser and server: the browser's own figures leave out what its workers fetch.
 */
beginWith(await workshopFolder());
const server = await startServer(newFolder(), 4393);
const jobs = (await (await fetch(`${server.url}/api/jobs`)).json()) as { id: string; name: string }[];
const gore = jobs.find(({ name }) => name === 'Dome gore 7')!.id;

const pages = [
  { name: 'list of jobs', limit: 250, path: '/', stands: 'text=Dome gore 7' },
  { name: 'a job', limit: 400, path: `/jobs/${gore}/lines`, stands: '[data-testid=verdict]' },
];

/** Time, ms, in which the rest comes by itself. */
const LEISURE = 8000;

const bytes = new Map<string, number>();
const files = new Map<string, number>();
/** Files named one by one, largest first, with --files. */
const LARGEST = process.argv.includes('--files') ? 20 : 0;
const relay = createServer((asked, answer) => {
  const onward = request(server.url + asked.url, { method: asked.method, headers: asked.headers });
  onward.on('response', (got) => {
    answer.writeHead(got.statusCode!, got.headers);
    const [kind] = (got.headers['content-type'] ?? 'other').split(';');
    const add = (to: Map<string, number>, key: string, size: number) =>
      to.set(key, (to.get(key) ?? 0) + size);
    got.on('data', (chunk: Buffer) => {
      add(bytes, kind!, chunk.length);
      add(files, asked.url!.replace(/-[\w-]{8}\./, '.'), chunk.length);
    });
    got.pipe(answer);
  });
  asked.pipe(onward);
}).listen(4394);

const browser = await chromium.launch(launchOptions);
for (const { name, limit, path, stands } of pages) {
  bytes.clear();
  files.clear();
  const page = await browser.newPage({ viewport: { width: 1280, height: 800 } });
  await page.goto(`http://127.0.0.1:4394${path}`);
  await page.locator(stands).first().waitFor({ timeout: 60_000 });
  const total = [...bytes.values()].reduce((sum, size) => sum + size, 0);
  const parts = [...bytes].map(([kind, size]) => `${kind} ${(size / 1000).toFixed(0)}`);
  console.log(
    `${name}: ${(total / 1000).toFixed(0)} kB over the wire (${limit} wanted): ${parts.join(', ')}`,
  );
  for (const [name, size] of [...files].sort((a, b) => b[1] - a[1]).slice(0, LARGEST))
    console.log(`  ${(size / 1000).toFixed(1).padStart(6)} kB  ${name}`);
  await page.waitForTimeout(LEISURE);
  const later = [...bytes.values()].reduce((sum, size) => sum + size, 0) - total;
  console.log(`  fetched at leisure afterwards: ${(later / 1000).toFixed(0)} kB`);
  await page.close();
}
await browser.close();
relay.close();
await server.kill();
process.exit(0);
