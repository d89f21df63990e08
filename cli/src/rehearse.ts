import { ModelError } from '@wick/core/model-error';
import {
  rehearse as run,
  rehearsedWords,
  shapesFor,
  type Policy,
  type Rehearsed,
} from '@wick/plan/infusion/operator';
import { tallyOf } from '@wick/plan/infusion/tally';
import { CliError, type Output } from './exit-codes.ts';
import { numberIn, readJobAt, requireFront, shopOf, type ShopOptions } from './read-job.ts';

interface RehearseOptions extends ShopOptions {
  seed?: string;
  policy?: string;
  runs?: string;
  nodes?: string;
  json?: boolean;
}

const POLICIES: readonly Policy[] = ['planned', 'follow'];

/** Infusions of the real part with drawn faults, without a screen. */
export function rehearse(file: string, options: RehearseOptions, { out }: Output): number {
  const { policy = 'planned' } = options;
  if (!POLICIES.includes(policy as Policy))
    throw new CliError('usage', `--policy is “planned” or “follow”, not “${policy}”.`);
  const seed = numberIn(options.seed ?? '1', '--seed', 0, 2 ** 31 - 1);
  const runs = numberIn(options.runs ?? '1', '--runs', 1, 10_000);
  const nodeCount = numberIn(options.nodes ?? '300', '--nodes', 50, 5000);
  const shop = shopOf(options);
  const job = readJobAt(file);
  requireFront(job, file);
  if (job.resin.materialId === null)
    throw new CliError('model', `${file}: A rehearsal runs on the resin’s clock. Choose a resin first.`);
  try {
    const fineness = { nodeCount, steps: 40 };
    const shapes = shapesFor(job, shop, fineness);
    const list: Rehearsed[] = [];
    for (let n = 0; n < runs; n++) {
      const one = run(job, shop, { seed: seed + n, policy: policy as Policy, shapes, fineness });
      list.push(one);
      out(
        options.json
          ? JSON.stringify({ ...one, log: undefined, readings: undefined, end: undefined })
          : lineOf(one),
      );
    }
    if (runs > 1 && !options.json) out(totalOf(list));
    return 0;
  } catch (error) {
    if (error instanceof ModelError) throw new CliError('model', `${file}: ${error.message}`);
    throw error;
  }
}

const minutes = (seconds: number) =>
  Number.isFinite(seconds) ? `${(seconds / 60).toFixed(1)} min` : 'never';

function lineOf(one: Rehearsed): string {
  const { seed, isSaved, filledAt, gelTime, filledShare, ranges } = one;
  const end = isSaved
    ? `full at ${minutes(filledAt)}, gel at ${minutes(gelTime)}`
    : `lost: ${Math.round(100 * filledShare)} % full at gel, ${minutes(gelTime)}`;
  const last = ranges.at(-1);
  const said = last
    ? `; said after ${last.marks} marks: ${minutes(last.last.early)} to ${minutes(last.last.late)}`
    : '';
  return `${seed}: ${end}${said}. ${rehearsedWords(one)}.`;
}

function totalOf(list: readonly Rehearsed[]): string {
  const { count, saved, asked, covered, widthBefore, widthAfter } = tallyOf(list);
  return [
    `${saved} of ${count} parts saved.`,
    `After three marks the range held the truth in ${covered} of ${asked}; it was ${(widthAfter / widthBefore).toFixed(2)} of the plan’s.`,
  ].join(' ');
}
