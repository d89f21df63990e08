import { createHash, randomUUID } from 'node:crypto';
import { existsSync, mkdirSync, readFileSync, renameSync, writeFileSync } from 'node:fs';
import { join } from 'node:path';
import { deserialize, serialize } from 'node:v8';
import type { Shop } from '@wick/contract/shop';
import type { Fineness } from '@wick/core/flow/problem';
import type { LaidJob } from '../../job/laid.ts';
import { shapesFor } from '../operator.ts';
import type { SolvedShape } from '../problem-shapes.ts';

/** A folder of what these very sources solved; named by jest-setup.mjs, and nothing is kept without it. */
const folder = process.env.WICK_SOLVED;
const known = new Map<string, SolvedShape[]>();

/** The ways in which a part may be, solved once for every test that asks for the same job at the same fineness. */
export function solvedOnce(job: LaidJob, shop: Shop, fineness: Fineness): SolvedShape[] {
  const asked = JSON.stringify({ job, shop, fineness });
  const key = createHash('sha256').update(asked).digest('hex').slice(0, 24);
  let shapes = known.get(key);
  if (!shapes) known.set(key, (shapes = kept(key, () => shapesFor(job, shop, fineness))));
  return shapes;
}

function kept(key: string, solve: () => SolvedShape[]): SolvedShape[] {
  if (!folder) return solve();
  const path = join(folder, key);
  if (existsSync(path)) return deserialize(readFileSync(path)) as SolvedShape[];
  const shapes = solve();
  mkdirSync(folder, { recursive: true });
  // Another process may solve the same; whichever is whole last stays.
  const own = `${path}.${randomUUID()}`;
  writeFileSync(own, serialize(shapes));
  renameSync(own, path);
  return shapes;
}
