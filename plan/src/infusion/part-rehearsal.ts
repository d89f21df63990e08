import type { EntryBody } from '@wick/contract/run/run';
import type { Shop } from '@wick/contract/shop';
import type { LaidJob } from '../job/laid.ts';
import { runConditionsOf } from '../resin/run.ts';
import { createPartWorld, type PartWorld } from './part-world.ts';
import { createBefalling, drawFaults, drawTruth, raceAlongSide, type DrawnFault } from './truth.ts';

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
  const said: Trouble[] = [];
  let time = 0;
  let world: PartWorld | null = null;
  let faults: readonly DrawnFault[] = [];
  let befalling: ReturnType<typeof createBefalling> | null = null;

  function make(): PartWorld {
    faults = said.flatMap((trouble) => faultsOf(job, trouble));
    const made = createPartWorld(drawTruth(job, shop, seed, faults), shop, NODES);
    for (const one of before) {
      made.pass(one.time, 0);
      made.hear(one.body);
    }
    made.pass(time, 0);
    befalling = createBefalling(faults, limit);
    return made;
  }

  return {
    hear(body: EntryBody): void {
      if (body.kind === 'trouble') said.push(body);
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
    troubles: (): Trouble[] => befalling?.(world!.truth().filledShare) ?? [],
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
