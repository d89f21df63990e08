import type { Shop } from '@wick/contract/shop';
import type { FlowProblem } from '@wick/core/flow/problem';
import { ledgerRequestOf } from '../resin/ledger.ts';
import { runConditionsOf } from '../resin/run.ts';
import type { LaidJob } from '../job/laid.ts';
import { partSums } from '../laminate/ply-book.ts';
import { doubtOf } from './doubt.ts';
import { problemOf } from './problem.ts';

/**
 * The identity of a flow problem, and so of every forecast of it: equal for equal problems, sixteen hexadecimal digits.
 * Names serve messages only and do not count.
 */
export const keyOf = (problem: FlowProblem): string => hashOf(problem);

/** The identity of what a layout comes to: its flow, its resin's clock, the doubts, the rule it is judged by, and the resin that it takes. */
export function outcomeKeyOf(job: LaidJob, shop: Shop): string {
  const ledger = ledgerRequestOf(job, partSums(job, shop));
  return hashOf([
    problemOf(job, shop),
    runConditionsOf(job, shop),
    doubtOf(job),
    shop.judging,
    ledger,
    job.lines.map((l) => l.tee),
  ]);
}

/** Numbers are told apart to twelve digits: two machines may differ in the last ones. */
const DIGITS = 12;

/** Two 32-bit hashes over the canonical text (FNV-1a, Fowler, Noll & Vo), one forwards and one backwards. */
export function hashOf(value: unknown): string {
  const text = canonical(value);
  let [low, high] = [0x811c9dc5, 0x1b873593];
  for (let i = 0; i < text.length; i++) {
    low = Math.imul(low ^ text.charCodeAt(i), 0x01000193);
    high = Math.imul(high ^ text.charCodeAt(text.length - 1 - i), 0x01000193);
  }
  return (low >>> 0).toString(16).padStart(8, '0') + (high >>> 0).toString(16).padStart(8, '0');
}

/** Fields in a fixed order, nothing that is undefined, no names, numbers rounded. */
function canonical(value: unknown): string {
  if (typeof value === 'number') return Number.isInteger(value) ? `${value}` : value.toPrecision(DIGITS);
  if (typeof value !== 'object' || value === null) return JSON.stringify(value) ?? 'null';
  if (Array.isArray(value)) return `[${value.map(canonical).join()}]`;
  if (ArrayBuffer.isView(value)) return canonical(Array.from(value as unknown as ArrayLike<number>));
  return `{${Object.keys(value)
    .filter((key) => key !== 'name' && (value as Record<string, unknown>)[key] !== undefined)
    .sort()
    .map((key) => `${key}:${canonical((value as Record<string, unknown>)[key])}`)
    .join()}}`;
}
