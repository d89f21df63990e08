import { afterAll, beforeAll, expect, test } from '@jest/globals';
import { usualShop } from '@wick/contract/shop';
import { demoJobs } from '@wick/plan/demo/jobs';
import { summaryOf } from '@wick/plan/job/summary';
import { sql } from 'drizzle-orm';
import type { OpenedDatabase } from './database.ts';
import { openEmpty } from '../test/database.ts';
import { createJobRepo } from './job-repo.ts';

let opened: OpenedDatabase;
const jobToKeep = (name: string) => {
  const document = { ...demoJobs[0]!, name };
  return { document, summary: summaryOf(document, usualShop) };
};
beforeAll(async () => {
  opened = await openEmpty();
  for (const name of ['Whole', 'Hurt', 'Sound']) await createJobRepo(opened.database).add(jobToKeep(name));
});
afterAll(() => opened.close());

test('one row that holds nonsense hides none of the others', async () => {
  await opened.database.execute(sql`update jobs set sketch = '{"outline": 5}' where name = 'Hurt'`);
  const list = await createJobRepo(opened.database).list();
  expect(list.map(({ name, isDamaged }) => [name, isDamaged])).toEqual([
    ['Sound', false],
    ['Hurt', true],
    ['Whole', false],
  ]);
});

test('nor does one that the database itself cannot read', async () => {
  const failing = new Proxy(opened.database, {
    get(target, key, receiver) {
      if (key !== 'select') return Reflect.get(target, key, receiver) as unknown;
      return (fields: Record<string, unknown>) =>
        target.select(
          ('row' in fields
            ? {
                row: sql`case when name = 'Hurt' then json_build_object('id', 1 / (length(name) - 4))::text else ${fields.row} end`,
              }
            : fields) as never,
        );
    },
  });
  const list = await createJobRepo(failing).list();
  expect(list.map(({ name, isDamaged }) => [name, isDamaged])).toEqual([
    ['Sound', false],
    ['A job that cannot be read', true],
    ['Whole', false],
  ]);
});

test('where nothing can be read at all that is said', async () => {
  const dead = new Proxy(opened.database, {
    get: (target, key, receiver) =>
      key === 'select'
        ? () => {
            throw new Error('gone');
          }
        : (Reflect.get(target, key, receiver) as unknown),
  });
  await expect(createJobRepo(dead).list()).rejects.toThrow('gone');
});
