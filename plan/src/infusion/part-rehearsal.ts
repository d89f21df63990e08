import type { EntryBody } from '@wick/contract/run/run';
import type { Shop } from '@wick/contract/shop';
import { clockOf } from '@wick/core/verdict/verdict';
import type { LaidJob } from '../job/laid.ts';
import { runConditionsOf } from '../resin/run.ts';
import { createPartWorld, type PartWorld } from './part-world.ts';
import { drawFaults, drawTruth, raceAlongSide, type DrawnFault } from './truth.ts';

type Trouble = Extract<EntryBody, { kind: 'trouble' }>;

/** Nodes of the part: the same on every screen and on the server, so that all see the same. */
const NODES = 300;
/** A race that is asked for, by the gap that is entered. */
const RACE = 1.6;

/**
 * The part of a rehearsal from before anything is mixed: it is made when the first feed opens, with what was drawn by then. The same seed and
 * the same log come to the same.
 * @param limit of the leak that the part can take, Pa m3/s
 */
export function createPartRehearsal(job: LaidJob, shop: Shop, seed: number, limit: number) {
  const before: { readonly time: number; readonly body: EntryBody }[] = [];
  const feeds = new Set(job.lines.filter(({ kind }) => kind === 'feed').map(({ id }) => id));
  const troubles: Trouble[] = [];
  let time = 0;
  let world: PartWorld | null = null;
  let faults: readonly DrawnFault[] = [];
  /** What befalls the bag, and when. */
  let coming: { readonly at: number; readonly body: Trouble }[] = [];

  function make(): PartWorld {
    faults = troubles.flatMap((trouble) => faultsOf(job, trouble));
    const made = createPartWorld(drawTruth(job, shop, seed, faults), shop, NODES);
    for (const one of before) {
      made.pass(one.time, 0);
      made.hear(one.body);
    }
    made.pass(time, 0);
    const run = runConditionsOf(job, shop)!;
    const span = clockOf(run).gelTime - run.openTime;
    coming = faults.flatMap((fault) => {
      const body = befalls(fault, limit);
      return body && 'at' in fault ? [{ at: time + 0.6 * fault.at * span, body }] : [];
    });
    return made;
  }

  return {
    hear(body: EntryBody): void {
      if (body.kind === 'trouble') troubles.push(body);
      if (
        !world &&
        body.kind === 'valve' &&
        body.opening > 0 &&
        feeds.has(body.lineId) &&
        runConditionsOf(job, shop)
      )
        world = make();
      if (world) world.hear(body);
      else before.push({ time, body });
    },
    /** @param to s since the start  @param pressure in the bag, Pa absolute */
    pass(to: number, pressure: number): void {
      time = Math.max(time, to);
      world?.pass(to, pressure);
    },
    /** What befalls the bag by now; each once. */
    troublesBy(now: number): Trouble[] {
      const due = coming.filter(({ at }) => at <= now).map(({ body }) => body);
      coming = coming.filter(({ at }) => at > now);
      return due;
    },
    world: () => world,
    faults: () => faults,
  };
}

/** What an entry of the log makes the part suffer. */
function faultsOf(job: LaidJob, { what, amount }: Trouble): DrawnFault[] {
  const drawn = drawFaults(job, Math.round(amount));
  switch (what) {
    case 'day':
      return drawn;
    case 'coldResin':
      return [{ kind: 'coldResin', by: amount }];
    case 'dryBucket':
      return [{ kind: 'dryBucket', share: Math.min(1, Math.max(0.1, amount)) }];
    case 'race':
      return raceAlongSide(job, Math.round(amount), RACE);
    default:
      return [];
  }
}

function befalls(fault: DrawnFault, limit: number): Trouble | null {
  if (fault.kind === 'pumpDies') return { kind: 'trouble', what: 'pumpDies', placeId: null, amount: 0 };
  if (fault.kind === 'leak')
    return { kind: 'trouble', what: 'leak', placeId: null, amount: fault.amount * limit };
  return null;
}
