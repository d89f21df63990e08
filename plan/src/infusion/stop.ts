import type { StopSchool } from '@wick/contract/run/infusion-bodies';
import type { FlowForecast } from '@wick/core/flow/forecast';
import type { SettledLaminate } from '@wick/core/flow/settled';
import type { Mesh } from '@wick/core/geometry/mesh';
import { placeOf } from '@wick/core/geometry/mesh-places';
import { distance, type Point } from '@wick/core/geometry/polygon';
import type { Fineness, FlowProblem } from '@wick/core/flow/problem';
import type { LaidJob } from '../job/laid.ts';
import { asItWent, onFromHere, type AsItWent, type Turn } from './as-it-went.ts';
import { openingNow, type Infusion } from './infusion.ts';
import type { LiveClock } from './live-clock.ts';

export interface StopRequest {
  readonly job: LaidJob;
  /** Of the way that is believed, with a laminate that gives. */
  readonly problem: FlowProblem;
  readonly infusion: Infusion;
  readonly clock: LiveClock;
  /** On its permeability, by what the marks tell. */
  readonly factor: number;
  /** s since first contact */
  readonly now: number;
  readonly fineness: Fineness;
}

/** How a fill ends by one school. Times s since first contact. */
export interface Ending {
  readonly school: StopSchool;
  /** Earliest moment to shut the feed at which what is behind still fills the rest; null where it never does by itself. */
  readonly shutAt: number | null;
  /** How far the front is then still from the end, m. */
  readonly left: number;
  /** Wet in the end, 0-1. */
  readonly wet: number;
  readonly mesh: Mesh;
  readonly final: SettledLaminate | null;
  /** Middle of the fibre fraction, and the loosest tenth, with where that lies. */
  readonly fraction: { readonly middle: number; readonly loose: number; readonly place: Point } | null;
}

/** Before the end, m; common practice, no source. */
export const USUAL_LEFT = [0.05, 0.075] as const;
const HALVINGS = 5;

/**
 * Both schools from how the front stands: feed shut so early that what lies behind still fills the rest, then until gel with the vent open
 * or shut.
 * @throws ModelError as asItWent; NEEDS_RESIN
 */
export function endingsOf(request: StopRequest): Ending[] {
  const went = softState(request);
  const open = whole(request, went);
  const shutAt = open.isFilled ? earliestShut(request, went, open) : null;
  const schools: StopSchool[] = ['keepVacuum', 'shutBoth'];
  return schools.map((school) => endingOf(request, went, open, school, shutAt));
}

function softState({ problem, infusion, clock, factor, now, fineness }: StopRequest): AsItWent {
  const went = asItWent(problem, factor, { infusion, clock, now, fineness });
  return { ...went, problem: { ...went.problem, settles: true } };
}

const whole = ({ fineness }: StopRequest, went: AsItWent) => onFromHere(went, [], fineness);

const openFeeds = ({ job, infusion }: StopRequest) =>
  job.lines.filter((line) => line.kind === 'feed' && openingNow(infusion, line) > 0);
const vents = ({ job }: StopRequest) => job.lines.filter(({ kind }) => kind === 'vent');

const shutting = (lines: readonly { readonly id: string }[], at: number): Turn[] =>
  lines.map(({ id }) => ({ lineId: id, opening: 0, at }));

/** Halves the time between now and the last corner. */
function earliestShut(request: StopRequest, went: AsItWent, open: FlowForecast): number {
  let late = went.times.timeOf(open.fillTime);
  let early = request.now;
  const fillsFrom = (at: number) =>
    onFromHere(went, shutting(openFeeds(request), at), request.fineness).isFilled;
  if (late === Infinity) return late;
  if (fillsFrom(early + 1)) return early;
  for (let n = 0; n < HALVINGS; n++) {
    const middle = (early + late) / 2;
    if (fillsFrom(middle)) late = middle;
    else early = middle;
  }
  return late;
}

function endingOf(
  request: StopRequest,
  went: AsItWent,
  open: FlowForecast,
  school: StopSchool,
  shutAt: number | null,
): Ending {
  const feedsShut = shutAt ?? Math.min(went.times.timeOf(open.fillTime), went.times.timeOf(went.start.time));
  const wetAt = open.isFilled ? went.times.timeOf(open.fillTime) : feedsShut;
  const turns = [
    ...(Number.isFinite(feedsShut) ? shutting(openFeeds(request), Math.max(request.now, feedsShut)) : []),
    ...(school === 'shutBoth' && Number.isFinite(wetAt)
      ? shutting(vents(request), Math.max(wetAt, feedsShut))
      : []),
  ];
  const flow = onFromHere(went, turns, request.fineness);
  return {
    ...{ school, shutAt: shutAt === Infinity ? null : shutAt, mesh: flow.mesh, final: flow.final },
    left: shutAt === null || shutAt === Infinity ? NaN : leftAt(open, went.times.at(shutAt)),
    wet: flow.samples.at(-1)!.wet,
    fraction: fractionOf(flow),
  };
}

/** How far the farthest dry place then is from the front, m. */
function leftAt({ mesh, arrival }: FlowForecast, time: number): number {
  const places = Array.from(arrival.keys());
  const dry = places.filter((i) => arrival[i]! > time).map((i) => placeOf(mesh, i));
  const wet = places.filter((i) => arrival[i]! <= time).map((i) => placeOf(mesh, i));
  return dry.reduce(
    (most, p) =>
      Math.max(
        most,
        wet.reduce((least, q) => Math.min(least, distance(p, q)), Infinity),
      ),
    0,
  );
}

const LOOSEST = 0.1;

function fractionOf({ final, mesh }: FlowForecast): Ending['fraction'] {
  if (!final) return null;
  const order = Array.from(final.fraction.keys())
    .filter((i) => final.fraction[i]! > 0)
    .sort((a, b) => final.fraction[a]! - final.fraction[b]!);
  if (order.length === 0) return null;
  const at = (share: number) => order[Math.floor(share * (order.length - 1))]!;
  return {
    middle: final.fraction[at(0.5)]!,
    loose: final.fraction[at(LOOSEST)]!,
    place: placeOf(mesh, at(LOOSEST / 2)),
  };
}
