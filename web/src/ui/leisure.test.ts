import { expect, test } from '@jest/globals';
import { fetchRest, later } from './leisure.ts';

test('what is left out of the first view is fetched at leisure, one after the other, and what that brings in too', async () => {
  const order: string[] = [];
  const load = (name: string, more?: () => void) =>
    later(async () => {
      order.push(name);
      await Promise.resolve();
      more?.();
      order.push(`${name} there`);
      return name;
    });
  load('pane', () => void load('chart'));
  later(() => Promise.reject(new Error('the server is away')));
  const own = load('dialog');
  await fetchRest();
  expect(order).toEqual(['pane', 'pane there', 'dialog', 'dialog there', 'chart', 'chart there']);
  // Fetched once at leisure; shown, the page's own store of modules has it.
  await fetchRest();
  expect(order).toHaveLength(6);
  expect(await own()).toBe('dialog');
});
