import { expect, test } from '@jest/globals';
import type { Mould, MouldEvent } from '@wick/contract/mould';
import { demoMoulds } from '../demo/moulds.ts';
import { withEvent } from './edits.ts';

const [mould] = demoMoulds;
const event: Omit<MouldEvent, 'id'> = { date: '2026-11-27', kind: 'leak', text: 'Tape corner 3' };

test('what happens to a mould is added after all before it, under an id that none of them has', () => {
  const once = withEvent(mould!, event);
  const twice = withEvent(once, event);
  expect(twice.history.slice(0, -2)).toEqual(mould!.history);
  expect(new Set(twice.history.map(({ id }) => id)).size).toBe(twice.history.length);
  // One in the middle was deleted: its neighbours keep theirs.
  const shorter: Mould = { ...twice, history: twice.history.filter((_, n) => n !== 1) };
  const after = withEvent(shorter, event);
  expect(new Set(after.history.map(({ id }) => id)).size).toBe(after.history.length);
  expect(withEvent({ ...mould!, history: [] }, event).history).toHaveLength(1);
});
