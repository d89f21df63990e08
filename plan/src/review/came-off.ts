import type { Mould } from '@wick/contract/mould';
import type { Entry, EntryBody, Run } from '@wick/contract/run/run';
import type { Shop } from '@wick/contract/shop';
import { infusionOf } from '../infusion/infusion.ts';
import type { LaidJob } from '../job/laid.ts';
import { createRehearsal } from '../run/rehearsal.ts';
import { leakPlacesOf } from '../vacuum/places.ts';
import { foundOn } from './found.ts';
import { asSaid } from './as-said.ts';

export interface CameOffRequest {
  readonly job: LaidJob;
  readonly shop: Shop;
  readonly mould: Mould | null;
  readonly run: Pick<Run, 'id' | 'startedAt' | 'speed' | 'seed'>;
  readonly entries: readonly Entry[];
}

/** Readings between two looks at a rehearsal that is gone through again. */
const MOST = 2000;

/**
 * What somebody would find on the part of a rehearsal: it is gone through again as it was logged, until its resin has gelled. The same
 * log comes to the same.
 * @returns null where no feed was opened @throws ModelError as createRehearsal
 * Checked by came-off.test.ts.
 */
export function cameOff({ job, shop, mould, run, entries }: CameOffRequest): EntryBody[] | null {
  const rehearsal = createRehearsal(job, shop, run, leakPlacesOf(job, shop, mould));
  const goOn = (to: number) => {
    while (rehearsal.pass(to, entries, MOST).length >= MOST);
  };
  const { contactAt, openedAt } = infusionOf({ entries }, job);
  goOn(Math.max(...entries.map(({ at }) => Date.parse(at))));
  const world = rehearsal.part.world();
  if (!world || contactAt === null || openedAt === null) return null;
  goOn(contactAt + 1000 * world.truth().gelTime + 1000);
  const { throughput, limit } = rehearsal.truth();
  const { filledAt, gelTime } = world.truth();
  const drawn = rehearsal.part.faults();
  const opensAt = entries.find(({ body }) => body.kind === 'trouble' && body.what === 'leak')?.at;
  const filled = contactAt + 1000 * (Number.isNaN(filledAt) ? gelTime : filledAt);
  const said = opensAt ? (Date.parse(opensAt) - openedAt) / Math.max(1, filled - openedAt) : 0;
  // Whatever made it leak, as it leaks in the end: what was sealed in time leaves nothing.
  const at = drawn.find((fault) => fault.kind === 'leak')?.at ?? Math.min(1, Math.max(0, said));
  const leak = throughput > limit ? [{ kind: 'leak' as const, at, amount: throughput / limit }] : [];
  return foundOn({
    ...{ job, shop, seed: run.seed, faults: [...drawn.filter(({ kind }) => kind !== 'leak'), ...leak] },
    ...{ seen: world.seen(), truth: world.truth(), openTime: (openedAt - contactAt) / 1000 },
  }).map((body) => asSaid(body, job));
}
