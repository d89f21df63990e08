import { expect, test } from '@jest/globals';
import { demoJobs } from '@wick/contract/demo/jobs';
import { readJob } from '@wick/contract/job-file';
import { closePrevious, closesPrevious, doingWords, freshTrigger, triggerKinds } from './sequence-words.ts';

const gore = demoJobs[0]!;

test('both schools are one click apart and give valid jobs', () => {
  const shut = closePrevious(gore, true);
  expect(closesPrevious(gore)).toBe(false);
  expect(closesPrevious(shut)).toBe(true);
  expect(readJob(shut).ok).toBe(true);
  // Feed 1 shuts as feed 2 opens, feed 2 as feed 3 opens; the last stays open.
  const shutters = shut.lines.map((line) =>
    line.actions.filter(({ opening }) => opening === 0).map(({ when }) => when),
  );
  expect(shutters.slice(0, 3)).toEqual([
    [{ kind: 'opened', what: 'feed-2', delay: 0 }],
    [{ kind: 'opened', what: 'feed-3', delay: 0 }],
    [],
  ]);
  expect(closePrevious(shut, false)).toEqual(gore);
});

test('every trigger on offer is valid at once, or not offered where there is nothing to wait on', () => {
  for (const { kind } of triggerKinds) {
    const when = freshTrigger(kind, gore, 'feed-1');
    expect(when).not.toBeNull();
    const lines = gore.lines.map((line) =>
      line.id === 'feed-1' ? { ...line, actions: [{ opening: 0, when }] } : line,
    );
    expect(readJob({ ...gore, lines }).ok).toBe(true);
  }
  expect(freshTrigger('zoneFull', { ...gore, zones: [] }, 'feed-1')).toBeNull();
  expect(freshTrigger('opened', { ...gore, lines: [gore.lines[0]!] }, 'feed-1')).toBeNull();
  expect([0, 1, 0.4].map((opening) => doingWords({ opening }))).toEqual([
    'shuts',
    'opens',
    'throttles to 40 %',
  ]);
});
