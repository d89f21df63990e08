import { describe, expect, test } from '@jest/globals';
import { demoJobs } from '../demo/jobs.ts';
import { currentLayout } from '../job/laid.ts';
import { removeLine } from './edits.ts';
import { addAction, closePrevious, moveTurn, removeAction, shiftTurn, updateAction } from './sequence.ts';

const gore = demoJobs[0]!;
const lineOf = (job: typeof gore, id: string) => currentLayout(job).lines.find((line) => line.id === id)!;
const actionsOf = (job: typeof gore, id: string) => lineOf(job, id).actions;
const turn = (lineId: string) => ({ lineId, actionId: actionsOf(gore, lineId)[0]!.id });

describe('each feed shut as the next one opens', () => {
  const closing = closePrevious(true, 'seed')(gore);

  test('every feed but the last waits to be shut by the next', () => {
    const shuts = (id: string) => actionsOf(closing, id).filter(({ opening }) => opening === 0);
    expect(shuts('feed-1')).toMatchObject([{ when: { kind: 'opened', what: 'feed-2', delay: 0 } }]);
    expect(shuts('feed-2')).toMatchObject([{ when: { kind: 'opened', what: 'feed-3', delay: 0 } }]);
    expect(shuts('feed-3')).toEqual([]);
    expect(lineOf(closing, 'vent-1')).toBe(lineOf(gore, 'vent-1'));
    expect(actionsOf(closing, 'feed-2').filter(({ opening }) => opening === 1)).toEqual(
      actionsOf(gore, 'feed-2'),
    );
  });

  test('asked twice it is there once, and it goes as it came', () => {
    expect(actionsOf(closePrevious(true, 'other')(closing), 'feed-1')).toHaveLength(1);
    expect(closePrevious(false)(closing)).toEqual(gore);
  });

  test('a feed that has gone shuts nothing more', () => {
    expect(actionsOf(removeLine('feed-2')(closing), 'feed-1')).toEqual([]);
  });
});

describe('turns', () => {
  test('an action is added, changed and taken away where it stands', () => {
    const added = addAction('feed-1', { id: 'mine', opening: 0, when: { kind: 'full', delay: 0 } })(gore);
    expect(actionsOf(added, 'feed-1')).toHaveLength(1);
    const at = { lineId: 'feed-1', actionId: 'mine' };
    expect(actionsOf(updateAction(at, { opening: 0.5 })(added), 'feed-1')[0]).toMatchObject({
      id: 'mine',
      opening: 0.5,
    });
    expect(removeAction(at)(added)).toEqual(gore);
    expect(lineOf(added, 'feed-2')).toBe(lineOf(gore, 'feed-2'));
  });

  test('a typed time is shifted by quarter minutes and never below zero; anything else is delayed', () => {
    const at = turn('feed-2');
    const timed = updateAction(at, { when: { kind: 'time', time: 600 } })(gore);
    const timeAfter = (by: number) => actionsOf(shiftTurn(at, by)(timed), 'feed-2')[0]!.when;
    expect(timeAfter(52)).toEqual({ kind: 'time', time: 645 });
    expect(timeAfter(-5000)).toEqual({ kind: 'time', time: 0 });
    expect(actionsOf(shiftTurn(at, 40)(gore), 'feed-2')[0]!.when).toMatchObject({
      kind: 'passed',
      delay: 45,
    });
  });

  test('a line that takes another turn waits for what stood there', () => {
    const turns = [turn('feed-2'), turn('feed-3')];
    const before = turns.map(({ lineId }) => actionsOf(gore, lineId)[0]!.when);
    const swapped = moveTurn(turns, 0, 1)(gore);
    const [second, third] = ['feed-2', 'feed-3'].map((id) => actionsOf(swapped, id)[0]!.when);
    expect([second!.kind, third!.kind]).toEqual(before.map(({ kind }) => kind));
    expect(moveTurn(turns, 1, 1)(gore)).toEqual(gore);
  });
});
