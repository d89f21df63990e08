import { createServer, type Server } from 'node:http';
import { launchKnowing } from './support/browser.ts';
import { expect, test } from './support/fixtures.ts';
import { newFolder, startServer } from './support/server.ts';

/** A page of someone else's, at an origin of its own. */
function evilPage(port: number, script: string): Promise<Server> {
  return new Promise((resolve) => {
    const server = createServer((_request, response) => {
      response.setHeader('content-type', 'text/html');
      response.end(`<!doctype html><body><script>${script}</script></body>`);
    });
    server.listen(port, '127.0.0.1', () => resolve(server));
  });
}

test('a page of another site reads nothing and writes nothing, by whatever a browser lets it send', async ({
  page,
  home,
}) => {
  const jobs = async () => (await page.request.get(`${home}/api/jobs`)).json() as Promise<{ id: string }[]>;
  const before = await jobs();
  const evil = await evilPage(
    4360,
    `
    const target = ${JSON.stringify(home)};
    const body = JSON.stringify({ name: 'Planted' });
    window.done = (async () => {
      const found = [];
      const attempt = async (what) => { try { found.push(await what()); } catch { found.push('refused'); } };
      await attempt(() => fetch(target + '/api/jobs').then((r) => r.text()));
      await attempt(() => fetch(target + '/api/jobs', { mode: 'no-cors' }).then((r) => r.text()));
      await attempt(() => fetch(target + '/api/jobs', { method: 'POST', mode: 'no-cors', headers: { 'content-type': 'text/plain' }, body }).then((r) => r.type));
      await attempt(() => fetch(target + '/api/jobs/import', { method: 'POST', mode: 'no-cors', body: new Blob([body], { type: 'text/plain' }) }).then((r) => r.type));
      await attempt(() => fetch(target + '/api/jobs', { method: 'POST', headers: { 'content-type': 'application/json' }, body }).then((r) => r.status));
      navigator.sendBeacon(target + '/api/jobs', new Blob([body], { type: 'text/plain' }));
      const form = document.createElement('form');
      Object.assign(form, { method: 'POST', action: target + '/api/jobs', enctype: 'text/plain', target: 'frame' });
      form.innerHTML = '<input name=\\'{"name":"Planted","x":"\\' value=\\'"}\\'>';
      const frame = Object.assign(document.createElement('iframe'), { name: 'frame' });
      document.body.append(frame, form);
      form.submit();
      await new Promise((resolve) => setTimeout(resolve, 1500));
      return found;
    })();`,
  );
  await page.goto('http://localhost:4360/');
  const found = await page.evaluate(() => (window as unknown as { done: Promise<string[]> }).done);
  evil.close();
  expect(found.join(' ')).not.toContain('Dome gore');
  expect(await jobs()).toEqual(before);
});

test('under a name that was turned to this machine nothing is answered', async ({ home }) => {
  const { port } = new URL(home);
  const browser = await launchKnowing('evil.test');
  const page = await browser.newPage();
  const answer = await page.goto(`http://evil.test:${port}/api/jobs`);
  expect(answer!.status()).toBe(403);
  expect(await page.textContent('body')).not.toContain('Dome gore');
  expect((await page.goto(`http://evil.test:${port}/`))!.status()).toBe(403);
  await browser.close();
});

test('on the network a device is let in by the pass phrase, another by a code, a wall screen by a link, and sent away', async () => {
  const folder = newFolder();
  const server = await startServer(folder, 4361, {
    HOST: '0.0.0.0',
    TLS: 'off',
    WICK_NAMES: 'shop.test',
    WICK_PASS_PHRASE: 'gelcoat over seven rivers',
  });
  const browser = await launchKnowing('shop.test');
  const home = 'http://shop.test:4361';
  const open = async () => {
    const context = await browser.newContext({ viewport: { width: 1280, height: 800 } });
    return { context, page: await context.newPage() };
  };
  const { page: office } = await open();
  await office.goto(home);
  await expect(office.getByText('This device is not let in yet')).toBeVisible();
  await office.getByLabel('What this device is called').fill('Office');
  const word = office.getByLabel('Pass phrase or code');
  await word.fill('gelcoat under seven rivers');
  await office.getByRole('button', { name: 'Enter' }).click();
  await expect(office.getByRole('alert')).toContainText('not right');
  await word.fill('gelcoat over seven rivers');
  await office.getByRole('button', { name: 'Enter' }).click();
  await expect(office.getByRole('link', { name: 'Dome gore 7' })).toBeVisible();

  await office.goto(`${home}/shop`);
  await office.getByRole('button', { name: 'Let one more device in' }).click();
  const code = (await office.locator('.code').textContent())!;
  const tablet = await open();
  await tablet.page.goto(`${home}/enter#${code}`);
  await tablet.page.getByLabel('What this device is called').fill('Tablet');
  await tablet.page.getByRole('button', { name: 'Enter' }).click();
  await expect(tablet.page.getByRole('link', { name: 'Hydro spinner' })).toBeVisible();

  await office.getByLabel('Name of the screen').fill('Wall');
  await office.getByRole('button', { name: 'Make a link to look only' }).click();
  const link = (await office.locator('code').textContent())!;
  const wall = await open();
  await wall.page.goto(link);
  await expect(wall.page.getByRole('link', { name: 'Dome gore 7' })).toBeVisible();
  await wall.page
    .getByRole('row', { name: /Hydro spinner/ })
    .getByRole('button', { name: 'Delete' })
    .click();
  await expect(wall.page.getByTestId('message')).toContainText('to look only');

  // A cookie that was copied is good for nothing once its device is sent away.
  const stolen = await open();
  await stolen.context.addCookies(await tablet.context.cookies());
  await stolen.page.goto(home);
  await expect(stolen.page.getByRole('link', { name: 'Dome gore 7' })).toBeVisible();
  await office.reload();
  await office
    .getByRole('row', { name: /Tablet/ })
    .getByRole('button', { name: 'Send it away' })
    .click();
  await expect(office.getByRole('row', { name: /Tablet/ })).toHaveCount(0);
  for (const { page } of [tablet, stolen]) {
    await page.goto(home);
    await expect(page.getByText('This device is not let in yet')).toBeVisible();
  }
  await expect(office.getByText('Who was let in')).toBeVisible();
  await browser.close();
  await server.kill();
});

test('a backup is saved, and put in the place of what has changed since', async ({ page }) => {
  const server = await startServer(newFolder(), 4362);
  await page.goto(`${server.url}/shop`);
  const [download] = await Promise.all([
    page.waitForEvent('download'),
    page.getByRole('link', { name: 'Save a backup' }).click(),
  ]);
  const path = await download.path();
  await page.goto(server.url);
  await page
    .getByRole('row', { name: /Hydro spinner/ })
    .getByRole('button', { name: 'Delete' })
    .click();
  await expect(page.getByRole('link', { name: 'Hydro spinner' })).toHaveCount(0);
  await page.goto(`${server.url}/shop`);
  await page
    .getByLabel('Backup to restore')
    .setInputFiles({ name: 'no.zip', mimeType: 'application/zip', buffer: Buffer.from('no') });
  await page.getByRole('button', { name: 'Put it in their place' }).click();
  await expect(page.getByRole('alert')).toContainText('The backup is not used');
  await page.getByLabel('Backup to restore').setInputFiles(path);
  await page.getByRole('button', { name: 'Put it in their place' }).click();
  await expect(page.getByText('is in place')).toBeVisible();
  await page.goto(server.url);
  await expect(page.getByRole('link', { name: 'Hydro spinner' })).toBeVisible();
  await server.kill();
});
