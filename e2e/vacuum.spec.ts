import type { Page } from '@playwright/test';
import { expect, openCopy, saved, test } from './support/fixtures.ts';

const pane = (page: Page, name: string) => page.getByRole('tab', { name }).click();
const press = (page: Page, name: string) => page.getByRole('button', { name, exact: true }).click();
const verdictOf = (page: Page) => page.getByTestId('drop-verdict');

/** A copy of a demo job, under Vacuum, rehearsed sixty times as quick by somebody with a name. */
async function rehearse(page: Page, home: string, name = 'Dome gore 7') {
  await openCopy(page, home, name);
  await page.getByRole('button', { name: /^6 Vacuum/ }).click();
  await page.getByPlaceholder('your name').first().fill('Ada');
  await page.keyboard.press('Tab');
  await page.getByLabel('Rehearse').selectOption({ label: 'sixty times as quick' });
  await expect(page.getByText('Rehearsal: nothing here is a real part.')).toBeVisible();
  await expect(page.getByTestId('reading')).toContainText(/9\d\d/);
}

const readingOf = async (page: Page) =>
  Number.parseFloat((await page.getByTestId('reading').textContent()) ?? 'x');
/** Pulled until it stands at the best that can be reached. */
async function pullDown(page: Page, name: 'Pull' | 'Pull again') {
  await press(page, name);
  await expect.poll(() => readingOf(page)).toBeLessThan(2);
}

test('pulled, shut and read: a leak is found on the walk and sealed, the next test passes and the forecast runs on it', async ({
  page,
  home,
}) => {
  await rehearse(page, home);
  await pullDown(page, 'Pull');
  await pane(page, 'Gauges');
  await page.getByLabel('Where it leaks').selectOption({ label: 'Tape corner 3' });
  await press(page, 'A leak');
  await pane(page, 'Drop test');
  await press(page, 'Shut the valve');
  await expect(verdictOf(page)).toHaveText(/voids, more than the 0.5.% this part takes. Find the leak.$/, {
    timeout: 60_000,
  });
  await expect(page.getByText('Most of the rise is a leak: it goes on straight.')).toBeVisible();
  await press(page, 'Write it down');
  await expect(page.getByRole('button', { name: /^6 Vacuum/ })).toContainText('leaks');

  await pane(page, 'Leak walk');
  // The listener is loudest where it leaks.
  const level = async (place: string) => {
    await page.getByRole('button', { name: `Listen at ${place}` }).click();
    await expect(page.getByText(`, at ${place}`)).toBeVisible();
    await expect(page.locator('.level .number')).toHaveText(/\d/);
    return Number.parseFloat((await page.locator('.level .number').textContent()) ?? 'x');
  };
  const [far, near] = [await level('Tape corner 1'), await level('Tape corner 3')];
  expect(near).toBeGreaterThan(far + 4);
  await page.getByRole('button', { name: 'Leak found: Tape corner 3' }).click();
  await expect(page.getByTestId('walk-next')).toHaveText('Seal Tape corner 3, then test again.');
  await page.getByRole('button', { name: 'Sealed: Tape corner 3' }).click();
  await expect(page.getByTestId('walk-next')).not.toContainText('Seal');

  await pane(page, 'Drop test');
  await pullDown(page, 'Pull again');
  await press(page, 'Shut the valve');
  await expect(verdictOf(page)).toHaveText(/^Lets in no more than .* voids. Passes.$|^Lets in .* Passes.$/, {
    timeout: 100_000,
  });
  await press(page, 'Write it down');
  await expect(page.getByRole('button', { name: /^6 Vacuum/ })).toContainText('tight');
  // Both tests are kept, in order.
  await expect(page.getByRole('button', { name: /^1. at/ }).locator('..')).toContainText('leaks');
  await expect(page.getByRole('button', { name: /^2. at/ }).locator('..')).toContainText('passes');
  await page.getByRole('button', { name: /^Take .* into the forecast/ }).click();
  await expect(page.getByText('The forecast runs on the vacuum that was measured here.')).toBeVisible();
  await saved(page);
  await page.getByRole('button', { name: /^4 Lines/ }).click();
  await pane(page, 'Hoses');
  await expect(page.getByLabel(/^Vacuum at the vents, absolute/)).not.toHaveValue('18 mbar');
  // All of it is there again after the page was loaded anew.
  await page.getByRole('button', { name: /^6 Vacuum/ }).click();
  await page.reload();
  await expect(page.getByRole('button', { name: /^2. at/ }).locator('..')).toContainText('passes');
});

test('with the needle alone the gauge cannot tell yet, and says how long to wait', async ({ page, home }) => {
  await rehearse(page, home);
  await pullDown(page, 'Pull');
  await pane(page, 'Gauges');
  await page.getByLabel('Where Absolute gauge hangs').selectOption({ label: 'not here' });
  await pane(page, 'Drop test');
  await expect(page.getByText('Read by Needle gauge')).toBeVisible();
  await press(page, 'Shut the valve');
  await expect(verdictOf(page)).toHaveText(/The gauge cannot tell yet: wait \d[\d.]* (min|h) more.$/, {
    timeout: 60_000,
  });
  await press(page, 'Write it down');
  await expect(page.getByRole('button', { name: /^6 Vacuum/ })).toContainText('not told');
});

test('a wet core rises and is not called a leak', async ({ page, home }) => {
  await rehearse(page, home);
  await pane(page, 'Gauges');
  await press(page, 'A wet core');
  await pane(page, 'Drop test');
  await press(page, 'Pull');
  await expect.poll(() => readingOf(page)).toBeLessThan(12);
  await press(page, 'Shut the valve');
  const said: string[] = [];
  // Twenty minutes of it, looked at all the while.
  for (let n = 0; n < 20; n++) {
    await page.waitForTimeout(1000);
    said.push((await verdictOf(page).textContent()) ?? '');
  }
  expect(said.filter((words) => words.includes('Find the leak'))).toEqual([]);
  await expect(page.getByText(/(M|m)ost of the rise is moisture or outgassing: it flattens./)).toBeVisible();
});

test('the pump dies: every screen is called, one answers by name, and the card says what to do', async ({
  page,
  home,
  browser,
}) => {
  // Nothing holds its vacuum when the pump stops.
  await rehearse(page, home, 'Footbridge kerb plate');
  await pullDown(page, 'Pull');
  await press(page, 'Take the watch');
  await page.getByLabel('Call above, in the bag').fill('30 mbar');
  await page.getByLabel('Call when silent for').fill('10 min');
  await page.keyboard.press('Tab');
  await press(page, 'Ada watches');
  await expect(page.getByText('Ada watches', { exact: false }).first()).toBeVisible();
  const other = await browser.newPage();
  await other.goto(`${home}/library`);
  await pane(page, 'Gauges');
  await press(page, 'The pump dies');
  const alarm = (on: Page) => on.getByRole('alertdialog');
  await expect(alarm(page)).toContainText(/mbar in the bag/, { timeout: 60_000 });
  await expect(alarm(page)).toContainText('Ada watches.');
  await expect(alarm(other)).toContainText(/mbar in the bag/);
  await alarm(other).getByLabel('Your name').fill('Ben');
  await alarm(other).getByRole('button', { name: 'I see to it' }).click();
  await expect(alarm(other)).toBeHidden();
  await expect(alarm(page)).toBeHidden();
  await other.close();
  await pane(page, 'If the pump stops');
  await expect(page.getByText('Clamp the vent hose at the bag, at once', { exact: false })).toBeVisible();
  await expect(page.getByTestId('hold-verdict')).toHaveText(
    'Without a check valve the vacuum is gone in seconds.',
  );
  await pane(page, 'Drop test');
  await page.getByPlaceholder('your name').first().fill('Ben');
  await page.keyboard.press('Tab');
  await press(page, 'Take it over, or set limits');
  await press(page, 'Ben watches');
  await expect(page.getByText('watches, after Ada', { exact: false })).toBeVisible();
  await press(page, 'End it');
  await expect(page.getByText('Nobody watches. An alarm', { exact: false })).toBeVisible();
});

test('a device posts with the word that is shown once; a value read by eye is typed beside it', async ({
  page,
  home,
}) => {
  await openCopy(page, home, 'Footbridge kerb plate');
  await page.getByRole('button', { name: /^6 Vacuum/ }).click();
  await expect(page.getByText('No gauge hangs on the bag.', { exact: false })).toBeVisible();
  await pane(page, 'Gauges');
  await page.getByPlaceholder('Gauge on the pot').fill('Pot gauge');
  await press(page, 'Add it');
  const word = (await page.getByTestId('word').textContent())!;
  await page.getByLabel('Where Pot gauge hangs').selectOption({ label: 'on the bag' });
  const post = (text: string, own = word) =>
    fetch(`${home}/api/readings`, {
      method: 'POST',
      headers: { authorization: `Bearer ${own}`, 'content-type': 'application/x-ndjson' },
      body: text,
    });
  expect((await post('{"id":"1","ago":0,"value":17.5}\n')).status).toBe(200);
  await expect(page.getByRole('row', { name: /Pot gauge/ })).toContainText('17.5 mbar');
  expect((await post('{"id":"2","ago":0,"value":3,"unit":"furlong"}\n')).status).toBe(422);
  // By eye, in the unit of its dial.
  await page.getByPlaceholder('Gauge on the pot').fill('Old needle');
  await page.getByLabel('It measures').selectOption({ label: 'vacuum, relative to the air' });
  await page.getByLabel('How it is read').selectOption({ label: 'is read by eye and typed' });
  await press(page, 'Add it');
  await page.getByLabel('Where Old needle hangs').selectOption({ label: 'on the bag' });
  await page.getByLabel('Old needle shows').fill('26 inHg');
  await page.keyboard.press('Enter');
  await expect(page.getByRole('row', { name: /Old needle/ })).toContainText('880.5 mbar');
  await pane(page, 'Drop test');
  await expect(page.getByTestId('reading')).toContainText('17.5 mbar absolute');
  // The two do not agree: 938.7 - 880.5 is 58.2 mbar, and 30 inHg would be more than there is.
  await expect(page.getByRole('alert')).toContainText('The relative gauge says 58.');
  // A step of the pull-down is written down, and struck out again.
  await pane(page, 'Pull-down');
  await page.getByLabel('What was worked in').fill('foot corner, let go once');
  await press(page, 'Write the step down');
  const steps = page.getByRole('table', { name: 'Steps of the pull-down' });
  await expect(steps).toContainText('foot corner, let go once');
  await steps.getByRole('button', { name: /^Strike out the step/ }).click();
  await expect(steps).toHaveCount(0);
  // The free volume by expansion: 1 L at 938.7 mbar into 17.5 mbar that ends at 90 mbar, 11.7 L.
  await page.getByRole('button', { name: /^Measure it/ }).click();
  await page.getByLabel('In the bag before').fill('17.5 mbar');
  await page.getByLabel('In the bag afterwards').fill('90 mbar');
  await press(page, 'Take it as measured');
  await expect(page.getByText('Measured; it counts').locator('..')).toContainText('11.71 L');
  // What is found on a real part's walk is the mould's to remember.
  await pane(page, 'Leak walk');
  await page.getByRole('button', { name: /^Leak found: Tape corner 1/ }).click();
  const leaks = async () => {
    const moulds = (await (await fetch(`${home}/api/moulds`)).json()) as {
      mould: { id: string; history: { kind: string; place?: { kind: string } }[] };
    }[];
    const { history } = moulds.find(({ mould }) => mould.id === 'flat-table')!.mould;
    return history.filter(({ kind, place }) => kind === 'leak' && place?.kind === 'tapeCorner').length;
  };
  await expect.poll(leaks).toBe(1);
  await pane(page, 'Gauges');
  await page.getByRole('button', { name: 'Put Pot gauge away' }).click();
  await press(page, 'Put it away');
  await expect.poll(async () => (await post('{"id":"3","ago":0,"value":17}\n')).status).toBe(401);
});
