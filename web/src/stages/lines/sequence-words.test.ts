import { expect, test } from '@jest/globals';
import { demoJobs } from '@wick/plan/demo/jobs';
import { laidOut } from '@wick/plan/job/laid';
import { closePrevious } from '@wick/plan/layout/sequence';
import { act, faultIn, faultInLaid, withLine } from '@wick/plan/test/laid-demos';
import { closesPrevious, doingWords, freshTrigger, triggerKinds } from './sequence-words.ts';

const job = demoJobs[0]!;
const gore = laidOut(job);

test('both schools are one click apart and give valid jobs', () => {
  const closed = closePrevious(true)(job);
  const shut = laidOut(closed);
  expect(closesPrevious(gore)).toBe(false);
  expect(closesPrevious(shut)).toBe(true);
  expect(faultIn(closed)).toBe('');
  // Feed 1 shuts as feed 2 opens, feed 2 as feed 3 opens; the last stays open.
  const shutters = shut.lines.map((line) =>
    line.actions.filter(({ opening }) => opening === 0).map(({ when }) => when),
  );
  expect(shutters.slice(0, 3)).toEqual([
    [{ kind: 'opened', what: 'feed-2', delay: 0 }],
    [{ kind: 'opened', what: 'feed-3', delay: 0 }],
    [],
  ]);
  expect(closePrevious(false)(closed)).toEqual(job);
});

test('every trigger on offer is valid at once, or not offered where there is nothing to wait on', () => {
  for (const { kind } of triggerKinds) {
    const when = freshTrigger(kind, gore, 'feed-1');
    expect(when).not.toBeNull();
    expect(faultInLaid(withLine(gore, 'feed-1', { actions: [act('shuts', 0, when!)] }))).toBe('');
  }
  expect(freshTrigger('zoneFull', { ...gore, zones: [] }, 'feed-1')).toBeNull();
  expect(freshTrigger('opened', { ...gore, lines: [gore.lines[0]!] }, 'feed-1')).toBeNull();
  expect([0, 1, 0.4].map((opening) => doingWords({ opening }))).toEqual([
    'shuts',
    'opens',
    'throttles to 40 %',
  ]);
});
