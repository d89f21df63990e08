import { demoJobs } from '@wick/plan/demo/jobs';
import type { Page } from '@playwright/test';
import { launchKnowing } from './support/browser.ts';
import { expect, openCopy, saved, test } from './support/fixtures.ts';
import { newFolder, startServer } from './support/server.ts';

const pane = (page: Page, name: string) => page.getByRole('tab', { name, exact: true }).click();
const press = (page: Page, name: string | RegExp) => page.getByRole('button', { name, exact: true }).click();
const next = (page: Page) => page.getByTestId('next-step');
const openRun = (page: Page) => page.getByRole('button', { name: /^7 Run/ }).click();

async function ofName(page: Page, name: string) {
  await page.getByPlaceholder('your name').first().fill(name);
  await page.keyboard.press('Tab');
}
/** The step that is next, ticked off; the one after it is then asked for. */
async function done(page: Page, title: string | RegExp) {
  await expect(next(page).locator('.title').first()).toHaveText(title);
  await next(page).getByRole('button', { name: 'Done', exact: true }).click();
  await expect(next(page).locator('.title').first()).not.toHaveText(title);
}
async function leaveOutRest(page: Page, phase: string, why: string) {
  await page
    .getByRole('navigation', { name: 'Phases' })
    .getByRole('button', { name: new RegExp(`^${phase}`) })
    .click();
  await page.getByRole('button', { name: /^Leave out the \d+ that are open/ }).click();
  await page.getByLabel('Why they are left out').fill(why);
  await press(page, 'Leave them out');
  await expect(page.getByRole('button', { name: /^Leave out the/ })).toBeHidden();
}

test('a part released, gel-coated past its window, laid up, held at the leak check, gone past by name, and printed', async ({
  page,
  home,
}) => {
  test.setTimeout(240_000);
  // The workshop's own way: its wax is good for ten minutes.
  await page.goto(`${home}/steps`);
  await page.getByPlaceholder('your name').fill('Ada');
  await page.keyboard.press('Tab');
  await pane(page, 'Release systems');
  await page.getByLabel('What follows within (blank: any time)').first().fill('10 min');
  await page.getByLabel('What follows within (blank: any time)').first().press('Enter');
  await press(page, 'Save as revision 2');
  await expect(page.getByRole('button', { name: 'Save as revision 3' })).toBeDisabled();

  await openCopy(page, home, 'Dome gore 7');
  await openRun(page);
  await expect(page.getByText('No part of this job has been begun.')).toBeVisible();
  await pane(page, 'Preparation');
  await page.getByLabel('Release system').selectOption('Wax');
  await expect(page.getByTestId('coats').getByRole('row')).toHaveCount(1 + 5 + 1);
  await saved(page);
  await pane(page, 'Card');
  await ofName(page, 'Ada');
  await page.getByLabel('Rehearse').selectOption({ label: 'sixty times as quick' });

  await done(page, 'Look the mould over');
  await done(page, 'Clean and polish it');
  await done(page, 'Mask the land for the tape');
  for (let coat = 1; coat <= 5; coat++) await done(page, `Lay on wax, coat ${coat} of 5`);

  // Ten seconds later its window has closed: called on the page, and nothing is ticked past it.
  const hold = page.getByTestId('hold');
  await expect(hold).toContainText('Hold: Gel coat inside its window', { timeout: 60_000 });
  await expect(page.getByTestId('calls')).toContainText('It has closed: Release is ready');
  await page.getByTestId('calls').getByRole('button', { name: 'Heard' }).click();
  await expect(next(page).getByRole('button', { name: 'Done', exact: true })).toBeHidden();
  await expect(page.getByRole('button', { name: 'Gel coat pass 1 of 4: tick it off' })).toBeDisabled();
  await press(page, 'One more coat is on');
  await expect(hold).toBeHidden();
  for (let pass = 1; pass <= 4; pass++) await done(page, `Gel coat pass ${pass} of 4`);

  await pane(page, 'Gel coat');
  for (const [x, film] of [
    [200, '0.5 mm'],
    [300, '0.4 mm'],
  ] as const) {
    await page.getByTestId('run-plan').click({ position: { x, y: 120 } });
    await page.getByLabel('Last tooth that is wet').fill(film);
    await page.getByLabel('Last tooth that is wet').press('Enter');
    await expect(page.getByTestId('run-plan')).toContainText(film);
  }
  await expect(page.getByTestId('comb-verdict')).toContainText('1 of 2 outside: Thin');
  await page.getByRole('button', { name: /^Comes off on the finger/ }).click();
  await pane(page, 'Lay-up');
  await expect(hold).toContainText('It still comes off on the finger.');
  await pane(page, 'Card');
  await done(page, 'Read the film with the comb');
  await next(page)
    .getByRole('button', { name: /^Tacky/ })
    .click();
  await done(page, 'Touch it');

  await done(page, 'Lay the whole pile out dry and turn it over');
  await pane(page, 'Lay-up');
  const ply = page.getByTestId('ply');
  await press(page, 'Done');
  for (const n of [1, 2]) {
    await expect(ply).toContainText(`ply ${n} of 5`);
    await expect(page.getByRole('button', { name: '1 corner to press' })).toBeDisabled();
    await page.getByRole('button', { name: /Turn-up at the foot/ }).click();
    await press(page, 'Laid');
  }
  await expect(ply).toContainText('Fit the core');
  await pane(page, 'Card');
  await leaveOutRest(page, 'Lay-up', 'laid up yesterday');
  await leaveOutRest(page, 'Bag', 'bagged as drawn');
  await leaveOutRest(page, 'Leak check', 'the gauge is away');

  await expect(hold).toContainText('Hold: The bag holds');
  await expect(hold).toContainText('No drop test of this part has been judged.');
  const id = /jobs\/([^/]+)/.exec(page.url())![1]!;
  await page.goto(`${home}/jobs/${id}/mix`);
  await expect(hold).toContainText('Hold: The bag holds');
  await expect(page.getByRole('button', { name: 'Begin this batch' })).toBeHidden();
  await page.goto(`${home}/jobs/${id}/run`);
  await press(page, 'Go on past it …');
  await hold.getByLabel('Name of who goes on past it').fill('');
  await expect(hold.getByRole('button', { name: 'Go on past it', exact: true })).toBeDisabled();
  await hold.getByLabel('Name of who goes on past it').fill('Bo');
  await hold.getByLabel('Reason for going on past it').fill('Held an hour this morning');
  await press(page, 'Bo goes on past it');
  await done(page, /^Fetch resin and hardener/);
  await expect(page.getByTestId('holds')).toContainText(/Bo, \d\d:\d\d: Held an hour this morning/);

  await pane(page, 'Log');
  await expect(page.getByTestId('log')).toContainText(
    'Went on past “The bag holds”: Held an hour this morning',
  );
  const coming = page.waitForEvent('download');
  await press(page, 'CSV');
  expect((await coming).suggestedFilename()).toMatch(/try-out-rehearsal-1-log\.csv$/);

  await page.goto(`${home}/jobs/${id}/traveller`);
  const paper = page.getByTestId('traveller');
  await expect(paper).toContainText('Gone past by Bo: Held an hour this morning.');
  await expect(paper).toContainText(/☐\s*Weigh it, flange on or off/);
  for (const format of ['A4', 'Letter']) {
    await page.getByLabel('Paper').selectOption(format);
    const pdf = (await page.pdf({ preferCSSPageSize: true })).toString('latin1');
    expect(pdf.match(/\/Type\s*\/Page\b(?!s)/g)!.length).toBeGreaterThan(1);
    const [, width] = /MediaBox \[0 0 (\d+)/.exec(pdf)!;
    // Points: 210 mm and 8.5 in.
    expect(Math.abs(Number(width) - (format === 'A4' ? 595 : 612))).toBeLessThan(2);
  }
});

test('the job changes while its part is made: the run keeps its plan until the newer one is taken, with its differences', async ({
  page,
  home,
}) => {
  await openCopy(page, home, 'Footbridge kerb plate');
  await openRun(page);
  await ofName(page, 'Ada');
  await press(page, 'Begin a part');
  await expect(next(page)).toContainText('Look the mould over');
  await pane(page, 'Preparation');
  await page.getByRole('button', { name: 'With a gel coat' }).click();
  await saved(page);
  await pane(page, 'Card');
  const newer = page.getByTestId('newer-plan');
  await expect(newer).toContainText('one difference');
  const phases = page.getByRole('navigation', { name: 'Phases' });
  await expect(phases).not.toContainText('Gel coat');
  await newer.getByRole('button', { name: 'Look at them' }).click();
  await expect(newer).toContainText('gel coat');
  await newer.getByRole('button', { name: 'Go on by the newer plan' }).click();
  await expect(phases).toContainText('Gel coat');
  await expect(newer).toBeHidden();
  await pane(page, 'Log');
  await expect(page.getByTestId('log')).toContainText('Goes on by plan 2');

  // By daylight, and in the dark again, every part of the screen changes.
  const button = page.getByRole('button', { name: 'Next part' });
  const light = () => button.evaluate((own) => getComputedStyle(own).backgroundColor);
  // The sheets of both themes, #172226 and #FBFAF6.
  const [night, day] = ['rgb(23, 34, 38)', 'rgb(251, 250, 246)'];
  await expect.poll(light).toBe(night);
  await press(page, 'Daylight');
  await expect.poll(light).toBe(day);
  await press(page, 'Night');
  await expect.poll(light).toBe(night);
  // Under another stage it is day.
  await page.getByRole('button', { name: /^6 Vacuum/ }).click();
  await expect.poll(light).toBe(day);
});

for (const [width, height] of [
  [1024, 768],
  [390, 844],
] as const)
  test(`at ${width} by ${height} in the dark nothing runs off the side, and what is tapped is 44 px high`, async ({
    page,
    home,
  }) => {
    await openCopy(page, home, 'Dome gore 7');
    await page.setViewportSize({ width, height });
    await page.goto(page.url().replace(/lines$/, 'run'));
    await ofName(page, 'Ada');
    await press(page, 'Begin a part');
    await done(page, 'Look the mould over');
    await expect(page.locator('html')).toHaveAttribute('data-light', 'night');
    const stage = page.locator('.run-stage');
    for (const name of ['Card', 'Gel coat', 'Lay-up', 'Log', 'Preparation']) {
      await pane(page, name);
      await expect(page.getByRole('tab', { name, exact: true })).toHaveAttribute('aria-selected', 'true');
      const low = await stage.evaluate((root) =>
        Array.from(root.querySelectorAll<HTMLElement>('button, select, label.picture, input[type=text]'))
          .filter((own) => own.offsetParent !== null)
          .map((own) => ({ what: own.textContent?.trim() ?? '', height: own.getBoundingClientRect().height }))
          .filter((own) => own.height < 43.5),
      );
      expect([name, low]).toEqual([name, []]);
      const over = await stage.evaluate((root) => root.scrollWidth - root.clientWidth);
      expect([name, over <= 1]).toEqual([name, true]);
    }
  });

test.describe('with the network gone', () => {
  test.use({ serviceWorkers: 'allow' });

  test('the card goes on, says what has not been sent, outlives a reload, and is sent once when the server is back', async ({
    page,
  }) => {
    test.setTimeout(180_000);
    const folder = newFolder();
    let server = await startServer(folder, 4396);
    await openCopy(page, server.url, 'Dome gore 7');
    await openRun(page);
    await ofName(page, 'Ada');
    await press(page, 'Begin a part');
    await done(page, 'Look the mould over');
    const worker = await page.evaluate(async () => (await navigator.serviceWorker.ready).active!.scriptURL);
    expect(worker).toMatch(/sw\.js$/);
    // What the page asks for from now on is kept.
    await page.reload();
    await expect(next(page)).toContainText('Clean and polish it');
    await page.waitForTimeout(1500);

    await server.kill();
    await done(page, 'Clean and polish it');
    await done(page, 'Mask the land for the tape');
    const photo = await page.screenshot({ clip: { x: 0, y: 0, width: 60, height: 40 } });
    await next(page)
      .locator('input[type=file]')
      .setInputFiles({ name: 'mould.png', mimeType: 'image/png', buffer: photo });
    // Two steps, a picture and what is said of it.
    await expect(page.getByTestId('unsent')).toContainText(
      /^4 entries have not been sent: the server does not answer/,
    );
    await page.reload();
    await expect(next(page)).toContainText('Lay on sealer, coat 1 of 2');
    await expect(page.getByTestId('waiting')).toHaveText('4 not sent yet');

    server = await startServer(folder, 4396);
    await expect(page.getByTestId('waiting')).toBeHidden();
    await expect(page.getByTestId('unsent')).toBeHidden();
    await pane(page, 'Log');
    await expect(
      page.getByTestId('log').getByText('Mask the land for the tape', { exact: true }),
    ).toHaveCount(1);
    const picture = page.getByTestId('log').getByRole('img', { name: 'Picture taken then' });
    await expect.poll(() => picture.evaluate((img: HTMLImageElement) => img.naturalWidth)).toBe(60);
    await expect(picture).toHaveAttribute('src', /\/photos\/.*size=small/);
    await server.kill();
  });
});

test('a paired device runs all of it, another sees it at once, and one that is not let in sees nothing', async () => {
  test.setTimeout(180_000);
  const server = await startServer(newFolder(), 4397, {
    HOST: '0.0.0.0',
    TLS: 'off',
    WICK_NAMES: 'shop.test',
    WICK_PASS_PHRASE: 'gelcoat over seven rivers',
  });
  const home = 'http://shop.test:4397';
  const browser = await launchKnowing('shop.test');
  const enter = async (path: string, name: string, word?: string) => {
    const page = await (await browser.newContext({ viewport: { width: 1024, height: 768 } })).newPage();
    await page.goto(`${home}${path}`);
    await page.getByLabel('What this device is called').fill(name);
    if (word) await page.getByLabel('Pass phrase or code').fill(word);
    await page.getByRole('button', { name: 'Enter' }).click();
    await expect(page.getByRole('link', { name: 'Dome gore 7' })).toBeVisible();
    return page;
  };
  const office = await enter('/', 'Office', 'gelcoat over seven rivers');
  /** As the page itself asks: by its own name of the server, with its own cookie. */
  const ask = (page: Page, path: string, body?: unknown) =>
    page.evaluate(
      async ([to, sent]) => {
        const answer = await fetch(to!, {
          method: sent === null ? 'GET' : 'POST',
          ...(sent === null ? {} : { headers: { 'content-type': 'application/json' }, body: sent }),
        });
        const text = answer.status === 200 || answer.status === 201 ? await answer.text() : '{}';
        return { status: answer.status, body: JSON.parse(text) as unknown };
      },
      [path, body === undefined ? null : JSON.stringify(body)] as const,
    );
  const made = await ask(office, '/api/jobs/import', { ...demoJobs[0]!, name: 'Paired' });
  const { id } = made.body as { id: string };
  await office.goto(`${home}/shop`);
  await office.getByRole('button', { name: 'Let one more device in' }).click();
  const code = (await office.locator('.code').textContent())!;
  const tablet = await enter(`/enter#${code}`, 'Tablet');

  await tablet.goto(`${home}/jobs/${id}/run`);
  await ofName(tablet, 'Bo');
  await press(tablet, 'Begin a part');
  await done(tablet, 'Look the mould over');
  const photo = await tablet.screenshot({ clip: { x: 0, y: 0, width: 60, height: 40 } });
  await next(tablet)
    .locator('input[type=file]')
    .setInputFiles({ name: 'a.png', mimeType: 'image/png', buffer: photo });
  await office.goto(`${home}/jobs/${id}/run?pane=log`);
  const log = office.getByTestId('log');
  await expect(log).toContainText('Look the mould over');
  await expect(log).toContainText('Tablet');
  await done(tablet, 'Clean and polish it');
  await expect(log).toContainText('Clean and polish it');
  await tablet.goto(`${home}/jobs/${id}/traveller`);
  await expect(tablet.getByTestId('traveller')).toContainText(/☑\s*Look the mould over/);

  const [{ id: runId }] = (await ask(office, `/api/jobs/${id}/runs`)).body as [{ id: string }];
  const stranger = await (await browser.newContext()).newPage();
  for (const path of [`/jobs/${id}/run`, `/jobs/${id}/traveller`, '/steps']) {
    await stranger.goto(`${home}${path}`);
    await expect(stranger.getByText('This device is not let in yet')).toBeVisible();
    await expect(stranger.locator('body')).not.toContainText('Look the mould over');
  }
  for (const path of [
    `/api/jobs/${id}/runs`,
    ...['entries', 'plan', 'photos/any'].map((own) => `/api/runs/${runId}/${own}`),
    ...['/api/steps', '/api/steps/history', '/api/watches', '/api/stream'],
  ])
    expect([path, (await ask(stranger, path)).status]).toEqual([path, 401]);
  const entry = { id: 'x', at: new Date().toISOString(), by: 'x', body: { kind: 'note', text: 'x' } };
  const said = await ask(stranger, `/api/runs/${runId}/entries`, { entries: [entry] });
  expect(said.status).toBe(401);
  await browser.close();
  await server.kill();
});
