import type { Shop } from '@wick/contract/shop';
import { distance, type Point } from '@wick/core/geometry/polygon';
import { readMix } from '@wick/core/mix/ratio';
import { driveShareOf, WEAK_DRIVE, type BagReading } from '../../infusion/live-clock.ts';
import { AIR } from '../../infusion/part-world.ts';
import { LIKELY } from '../../infusion/reforecast.ts';
import type { LaidJob } from '../../job/laid.ts';
import { materialOf } from '../../job/material-of.ts';
import { currentMixes, mixesOf } from '../../resin/mixing.ts';
import { ratioWindowOf } from '../../resin/ratio.ts';
import { isOf, type RunState } from '../../run/state.ts';
import { settledIn } from '../../settle.ts';
import type { FillReview } from '../fill-review.ts';
import { findingsOf, type Finding } from '../findings.ts';
import type { Compared } from '../compared.ts';

/** Answers to the questions that tell causes apart, by the question's id; what nobody looked at is left out. */
export type Answers = Readonly<Record<string, string>>;

export interface ObserveRequest {
  readonly job: LaidJob;
  readonly shop: Shop;
  readonly state: Pick<RunState, 'entries' | 'shutTimes'>;
  /** Of the bag, ascending. */
  readonly readings: readonly BagReading[];
  readonly fill: FillReview | null;
  readonly compared: readonly Compared[];
}

/** Share of the fill's time until which bubbles count as early. */
const EARLY = 0.3;
/** Share of the part's longest way within which a place counts as where the forecast ends. */
const NEAR = 0.22;
/** Dry places from which they count as scattered. */
const SEVERAL = 3;
/** Share of the part from which a plan counts as shutting air in. */
const SHUTS = 0.002;
/** |ln| of the factor from which a front counts as slow or quick. */
const OFF = 0.25;

/** What log, readings, measurements and findings say by themselves. Somebody's own answer to a question goes before. */
export function observed(request: ObserveRequest): Answers {
  const { state } = request;
  const own = Object.fromEntries(
    state.entries.filter(isOf('told')).map(({ body }) => [body.questionId, body.answer]),
  );
  const found = {
    ...ofAir(request),
    ...ofFindings(request),
    ...ofFigures(request),
    ...ofFront(request),
    ...ofMix(request),
  };
  return { ...found, ...own };
}

function ofAir({ job, shop, state, readings, fill }: ObserveRequest): Answers {
  if (!fill) return {};
  const { infusion } = fill;
  const opened = infusion.openedAt!;
  const end = (fill.wetAt ?? fill.endedAt) * 1000 + fill.clock.zero;
  const first = infusion.bubbles.find(({ at }) => Date.parse(at) <= end + 60_000);
  const bubbles = !first
    ? 'none'
    : first.body.where !== 'inlet'
      ? 'outlet'
      : (Date.parse(first.at) - opened) / (end - opened) < EARLY
        ? 'early'
        : 'late';
  const judged = state.shutTimes.findLast((one) => one.judged !== null)?.judged;
  const shareAt = driveShareOf(job, shop);
  const during = readings.filter(({ at }) => at >= opened && at <= end);
  const fell = during.filter(({ pressure }) => shareAt(pressure) < WEAK_DRIVE).length;
  const drewAir =
    infusion.faults.some(({ fault }) => fault === 'bucketLow') ||
    infusion.potLeft.some(({ mass }) => mass < AIR * settledIn(job, 'resin.heel'));
  return {
    bubbles,
    ...(judged ? { dropTest: judged.verdict === 'passes' ? 'passed' : 'leaked' } : {}),
    ...(during.length > 0 ? { pressure: fell > 1 && fell > during.length / 50 ? 'fell' : 'held' } : {}),
    ...(drewAir ? { pot: 'yes' } : infusion.potLeft.length > 0 ? { pot: 'no' } : {}),
  };
}

/** Somebody looked the part over once anything was said of it: what was not found then is not there. */
function ofFindings({ state, fill, job }: ObserveRequest): Answers {
  const findings = findingsOf(state);
  const isLookedAt =
    findings.length > 0 ||
    state.entries.some(({ body }) => body.kind === 'weighed' || body.kind === 'booked');
  if (!isLookedAt) return {};
  const of = (...kinds: Finding['is'][]) => findings.filter(({ is }) => kinds.includes(is));
  const holes = of('pinholes').at(-1);
  const corner = of('bridge').length > 0 ? 'hollow' : of('richCorner').length > 0 ? 'rich' : 'sound';
  const isSoft = of('soft').length > 0;
  const dryPlace = dryPlaceOf(of('drySpot', 'dryCore'), fill, job);
  return {
    ...(dryPlace === null ? {} : { dryPlace }),
    pinholes: holes ? (holes.pattern === 'scattered' ? 'even' : (holes.pattern ?? 'even')) : 'none',
    corner,
    hardness: isSoft ? 'soft' : 'hard',
  };
}

/** Null where the plan does not say where it ends. */
function dryPlaceOf(dry: readonly Finding[], fill: FillReview | null, { part }: LaidJob): string | null {
  if (dry.length === 0) return 'none';
  const isMany =
    dry.length >= SEVERAL || dry.some(({ pattern }) => pattern === 'scattered' || pattern === 'even');
  if (isMany) return 'scattered';
  if (!fill) return null;
  // Where the plan ends, not the likeliest way: a race moves the end.
  const near = NEAR * acrossAll(part.outline);
  const isAtEnd = dry.every(({ path }) => path.some((corner) => distance(corner, fill.plannedEnd) < near));
  return isAtEnd ? 'farEnd' : 'elsewhere';
}

const acrossAll = (points: readonly Point[]) =>
  Math.max(...points.flatMap((a, i) => points.slice(i + 1).map((b) => distance(a, b))));

function ofFigures({ compared }: ObserveRequest): Answers {
  const side = (id: string, low: string, high: string): string | null => {
    const rows = compared.filter((row) => row.id.startsWith(id) && row.isInside !== null);
    if (rows.length === 0) return null;
    const off = rows.reduce((sum, { measured, planned }) => sum + measured / planned!.middle - 1, 0);
    return rows.every(({ isInside }) => isInside) ? 'planned' : off < 0 ? low : high;
  };
  const [weight, thickness] = [side('weight', 'light', 'heavy'), side('thickness', 'thin', 'thick')];
  return { ...(weight ? { weight } : {}), ...(thickness ? { thickness } : {}) };
}

function ofFront({ fill, state }: ObserveRequest): Answers {
  if (!fill) return {};
  const { answer, factor, wetAt } = fill;
  const [first] = answer.events;
  const isUneven = first?.event.kind === 'race' && first.belief > LIKELY;
  const pace =
    factor === null
      ? null
      : isUneven
        ? 'uneven'
        : Math.abs(factor.mean) < OFF
          ? 'planned'
          : factor.mean < 0
            ? 'slower'
            : 'faster';
  const isInTime = wetAt !== null && wetAt <= answer.gelTime;
  // Nobody may have said that it was wet: dry it is where it was found so.
  const isTold = wetAt !== null || findingsOf(state).some(({ is }) => is === 'drySpot' || is === 'dryCore');
  return {
    ...(pace ? { pace } : {}),
    ...(isTold ? { wetInTime: isInTime ? 'yes' : 'no' } : {}),
    forecastShuts: fill.plannedDry > SHUTS ? 'yes' : 'no',
  };
}

function ofMix({ job, state }: ObserveRequest): Answers {
  const resin = materialOf(job, job.resin.materialId, 'resin');
  const mixes = currentMixes(mixesOf(state.entries)).filter(
    ({ poured }) => poured.resin > 0 && poured.hardener > 0,
  );
  if (!resin || mixes.length === 0) return {};
  const isRight = mixes.every(
    ({ poured }) => readMix(poured, resin.hardenerParts, ratioWindowOf(resin)).isWithin,
  );
  return { ratio: isRight ? 'right' : 'off' };
}
