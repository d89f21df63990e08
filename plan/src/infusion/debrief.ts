import type { Entry } from '@wick/contract/run/run';
import type { Shop } from '@wick/contract/shop';
import { settle } from '../settle.ts';
import { doubtOf } from '../forecast/doubt.ts';
import type { LaidJob } from '../job/laid.ts';
import { runStateOf } from '../run/state.ts';
import { infusionOf, type Infusion } from './infusion.ts';
import { driveShareOf, liveClockOf, priorOf, WEAK_DRIVE, type BagReading } from './live-clock.ts';
import { rehearse, type Rehearsed } from './operator.ts';
import type { PartTruth } from './part-world.ts';
import type { SolvedShape } from './problem-shapes.ts';
import { LIKELY, reforecast } from './reforecast.ts';
import { wordsOfDrawn, type DrawnFault } from './truth.ts';

/** One thing that was drawn, and what became of it. Times s since first contact; null for never. */
export interface DebriefedFault {
  readonly fault: DrawnFault;
  readonly words: string;
  /** When it could first have been seen, and by what. */
  readonly seenFrom: number | null;
  readonly by: string;
  readonly answeredAt: number | null;
}

export interface Debrief {
  readonly isSaved: boolean;
  readonly filledAt: number | null;
  readonly gelTime: number;
  readonly filledShare: number;
  readonly drewAirAt: number | null;
  readonly faults: readonly DebriefedFault[];
  /** The same part by somebody who does what is advised, and by the plan alone. */
  readonly advised: Rehearsed;
  readonly planned: Rehearsed;
}

/** Distance of ln of the factor, in deviations of what was thought, from which a slow part is plain to see; kelvin from which cold resin is. */
const PLAIN = 1.3;
const COLD = 1.5;

/** Entries and readings of a rehearsal; what was drawn and what became of it; the shapes it was re-forecast with. */
export interface DebriefRequest {
  readonly job: LaidJob;
  readonly shop: Shop;
  readonly seed: number;
  readonly faults: readonly DrawnFault[];
  readonly truth: PartTruth;
  readonly entries: readonly Entry[];
  readonly readings: readonly BagReading[];
  readonly shapes: readonly SolvedShape[];
}

/** What a rehearsal came to, what was missed in it, and what the best answer would have given. @throws ModelError as rehearse */
export function debriefOf(request: DebriefRequest): Debrief {
  const { job, shop, seed, faults, truth, shapes } = request;
  const state = runStateOf(request.entries);
  const infusion = infusionOf(state, job);
  const { filledAt, gelTime, filledShare, drewAirAt } = truth;
  const again = (policy: 'planned' | 'follow') => rehearse(job, shop, { seed, policy, shapes, faults });
  return {
    ...{ gelTime, filledShare, drewAirAt },
    isSaved: filledAt <= gelTime && drewAirAt === null,
    filledAt: Number.isNaN(filledAt) ? null : filledAt,
    faults: faults.map((fault) => ({
      fault,
      words: wordsOfDrawn(fault),
      ...seenIn(fault, request, infusion),
      answeredAt: answeredAt(fault, infusion),
    })),
    advised: again('follow'),
    planned: again('planned'),
  };
}

type Seen = Pick<DebriefedFault, 'seenFrom' | 'by'>;

function seenIn(fault: DrawnFault, request: DebriefRequest, infusion: Infusion): Seen {
  const since = (ms: number) => (ms - (infusion.contactAt ?? 0)) / 1000;
  switch (fault.kind) {
    case 'pumpDies':
    case 'leak': {
      const shareAt = driveShareOf(request.job, request.shop);
      const weak = request.readings.find(
        ({ at, pressure }) =>
          infusion.openedAt !== null && at > infusion.openedAt && shareAt(pressure) < WEAK_DRIVE,
      );
      return { seenFrom: weak ? since(weak.at) : null, by: 'the gauge' };
    }
    case 'coldResin': {
      const planned = settle(request.job, request.shop)['resin.temperature'].value;
      const cold = request.entries.find(
        ({ body }) => body.kind === 'warmth' && body.temperature < planned - COLD,
      );
      return cold
        ? { seenFrom: Math.max(0, since(Date.parse(cold.at))), by: 'the thermometer' }
        : byMarks(request, infusion, (answer, prior) => Math.log(answer.factor.middle) < -PLAIN * prior);
    }
    case 'dryBucket': {
      const weighed = infusion.potLeft[0];
      return { seenFrom: weighed ? since(weighed.at) : null, by: 'the scale under the pot' };
    }
    case 'race':
    case 'bridge':
      return byMarks(request, infusion, ({ events }) =>
        events.some(({ event, belief }) => event.kind === 'race' && belief > LIKELY),
      );
    case 'gelsEarly':
    case 'permeabilityOff':
      return byMarks(
        request,
        infusion,
        (answer, prior) => Math.abs(Math.log(answer.factor.middle)) > PLAIN * prior,
      );
  }
}

/** The first mark after which the re-forecast said so. */
function byMarks(
  { job, shop, entries, readings, shapes }: DebriefRequest,
  infusion: Infusion,
  isSeen: (answer: ReturnType<typeof reforecast>, prior: number) => boolean,
): Seen {
  const state = runStateOf(entries);
  const clock = liveClockOf(job, shop, infusion, state, readings);
  if (!clock) return { seenFrom: null, by: 'the marks' };
  const prior = priorOf(job, clock);
  for (let n = 1; n <= infusion.seen.length; n++) {
    const seen = infusion.seen.slice(0, n);
    const now = (seen.at(-1)!.at - clock.zero) / 1000;
    const answer = reforecast({
      ...{ shapes, clock, prior, now, infusion: { seen, turned: infusion.turned, allWetAt: null } },
      gelDoubt: doubtOf(job).gelTime,
    });
    if (isSeen(answer, prior)) return { seenFrom: now, by: `mark ${n}` };
  }
  return { seenFrom: null, by: 'the marks' };
}

/** When somebody did something about it. */
function answeredAt(fault: DrawnFault, infusion: Infusion): number | null {
  const since = (ms: number | undefined) =>
    ms === undefined || infusion.contactAt === null ? null : (ms - infusion.contactAt) / 1000;
  const sheets = {
    pumpDies: ['pumpStopped'],
    leak: ['leakInFill', 'pumpStopped'],
    race: ['race'],
    dryBucket: ['bucketLow'],
    coldResin: ['frontStalls', 'gelsEarly'],
    permeabilityOff: ['frontStalls', 'gelsEarly'],
    gelsEarly: ['gelsEarly', 'potWarm'],
    bridge: ['race'],
  }[fault.kind];
  const bySheet = infusion.faults.find((one) => sheets.includes(one.fault))?.at;
  const isSlow = fault.kind === 'coldResin' || fault.kind === 'permeabilityOff' || fault.kind === 'race';
  const byDecision = isSlow ? infusion.decided[0] && Date.parse(infusion.decided[0].at) : undefined;
  const byPouring = fault.kind === 'dryBucket' ? infusion.poured[1]?.at : undefined;
  const all = [bySheet, byDecision, byPouring].filter((at) => at !== undefined);
  return all.length > 0 ? since(Math.min(...all)) : null;
}
