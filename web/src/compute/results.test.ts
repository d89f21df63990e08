import { describe, expect, jest, test } from '@jest/globals';
import type { JobResult } from '@wick/contract/job/result';
import { createResults } from './results.ts';

const result = (layoutId: string, key: string) => ({ layoutId, key, outcome: null }) as unknown as JobResult;

function shelf(read: () => Promise<JobResult[]>, keeps = true) {
  const keep = jest.fn<(results: JobResult[]) => Promise<void>>(() =>
    keeps ? Promise.resolve() : Promise.reject(new Error('down')),
  );
  return { ...createResults({ read, keep }), keep };
}

describe('results beside a job', () => {
  test('those of an earlier sitting are there again; one worked out meanwhile is newer', async () => {
    let answer: (list: JobResult[]) => void = () => undefined;
    const { byLayout, load, note } = shelf(() => new Promise((resolve) => (answer = resolve)));
    const loading = load();
    await note(result('A', 'fresh'));
    answer([result('A', 'old'), result('B', 'old')]);
    await loading;
    expect([...byLayout.value.values()].map(({ key }) => key)).toEqual(['fresh', 'old']);
  });

  test('what is known already is not written again; a new one of the layout is', async () => {
    const { note, keep, byLayout } = shelf(async () => []);
    await note(result('A', 'one'));
    await note(result('A', 'one'));
    expect(keep).toHaveBeenCalledTimes(1);
    await note(result('A', 'two'));
    expect(keep).toHaveBeenCalledTimes(2);
    expect(byLayout.value.get('A')!.key).toBe('two');
  });

  test('the same problem run more finely takes the place of the rougher answer, so that list and board agree', async () => {
    const rough = { ...result('A', 'one'), outcome: { chance: 0.44 } } as unknown as JobResult;
    const fine = { ...rough, outcome: { chance: 0.42 } } as unknown as JobResult;
    const { load, note, keep, byLayout } = shelf(async () => [rough]);
    await load();
    await note(fine);
    await note({ ...fine, outcome: { ...fine.outcome } });
    expect(keep).toHaveBeenCalledTimes(1);
    expect(byLayout.value.get('A')!.outcome.chance).toBe(0.42);
  });

  test('a server that does not answer costs nothing but that', async () => {
    const { load, note, byLayout } = shelf(() => Promise.reject(new Error('down')), false);
    await load();
    await note(result('A', 'one'));
    expect(byLayout.value.get('A')!.key).toBe('one');
  });
});
