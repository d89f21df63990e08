import { expect, test } from '@jest/globals';
import { cardOf } from '../card/card.ts';
import { usualSteps } from '../card/usual-steps.ts';
import { jobOf } from '../job/laid.ts';
import { handTurn, stepIdOf, valveOf } from './card-valves.ts';
import { demo, shop } from './test/plate.ts';

test('every valve step of a card is a turn of a line, and that turn leads back to the step', () => {
  const gore = demo('Dome gore 7');
  const card = cardOf({ job: jobOf(gore), shop, mould: null, steps: usualSteps });
  const valves = card.steps.filter(({ each }) => each === 'valve');
  expect(valves.map(({ id }) => valveOf(gore, id)?.lineId)).toEqual(['vent-1', 'feed-1', 'feed-2', 'feed-3']);
  for (const { id } of valves) expect(stepIdOf(valveOf(gore, id)!)).toBe(id);
  expect(valveOf(gore, 'hold')).toBeNull();
});

test('a feed opened by hand is the plan’s opening while that waits, and one of its own after it or otherwise', () => {
  const gore = demo('Dome gore 7');
  const none = { turned: [] };
  expect(handTurn(gore, none, 'feed-2', 1).actionId).toBe('feed-2-opens');
  expect(handTurn(gore, none, 'feed-2', 0.5).actionId).toBeNull();
  const done = { turned: [{ entryId: 'e', at: 0, lineId: 'feed-2', opening: 1, actionId: 'feed-2-opens' }] };
  expect(handTurn(gore, done, 'feed-2', 1).actionId).toBeNull();
  expect(handTurn(gore, none, 'nowhere', 1)).toEqual({
    kind: 'valve',
    lineId: 'nowhere',
    opening: 1,
    actionId: null,
  });
});
