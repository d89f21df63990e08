import type { FlowForecast } from '@wick/core/flow/forecast';
import type { FlowLayer } from '@wick/core/laminate/layers';
import { solveFlow, type Fineness, type FlowProblem } from '@wick/core/flow/problem';
import type { FillStart } from '@wick/core/flow/fill-types';
import type { LayoutAction, LayoutLine } from '@wick/core/flow/layout';
import type { Infusion } from './infusion.ts';
import type { LiveClock } from './live-clock.ts';

/** A fill as it has gone so far, and the plan of its rest. Runs in the time that drives the front, see runTimes. */
export interface AsItWent {
  /** The plan's problem with the factor that the marks tell, and with what was turned in place of what was planned. */
  readonly problem: FlowProblem;
  readonly start: FillStart;
  readonly times: RunTimes;
}

/** Run times of a problem at times since first contact, s, and back; Infinity past gel. */
export interface RunTimes {
  readonly at: (time: number) => number;
  readonly timeOf: (run: number) => number;
}

/** The laminate takes resin so many times better. */
const eased = (problem: FlowProblem, factor: number): FlowProblem => ({
  ...problem,
  zones: problem.zones.map((zone) => ({
    ...zone,
    layers: zone.layers.map((layer) => easedLayer(layer, factor)),
    uncovered: zone.uncovered?.map((other) => ({
      ...other,
      layers: other.layers.map((layer) => easedLayer(layer, factor)),
    })),
  })),
});

function easedLayer(layer: FlowLayer, by: number): FlowLayer {
  const { xx, yy, xy } = layer.transmissibility;
  return { ...layer, toNext: by * layer.toNext, transmissibility: { xx: by * xx, yy: by * yy, xy: by * xy } };
}

/**
 * The clock of the problem's runs: fluidity that has driven; where the plan itself waits for the clock, the resin's own; seconds where the
 * resin differs from place to place.
 */
export function runTimes(
  { run: clocked, moving }: Pick<FlowProblem, 'run' | 'moving'>,
  live: LiveClock,
): RunTimes {
  const { driven, run, clock } = live;
  const from = run.openTime;
  if (moving) return { at: (time) => Math.max(0, time - from), timeOf: (at) => from + at };
  if (!clocked) return { at: driven.at, timeOf: driven.timeOf };
  return {
    at: (time) => clock.fluidity({ from, to: Math.max(from, time) }),
    timeOf: (fluidity) => clock.timeAtFluidity({ from, fluidity }),
  };
}

/** By which pressure has driven less than planned so far, where the run's own clock does not tell. */
function meanShare(
  { run: clocked }: Pick<FlowProblem, 'run'>,
  { driven, clock, run }: LiveClock,
  now: number,
): number {
  const undriven = clock.fluidity({ from: run.openTime, to: Math.max(run.openTime + 1, now) });
  return clocked && undriven > 0 ? Math.max(0.05, driven.at(Math.max(run.openTime + 1, now)) / undriven) : 1;
}

/**
 * Solves the fill up to now with every turn that was made.
 * @param problem of the shape that is believed  @param factor on its permeability
 * @param now s since first contact
 * @throws ModelError as solveFlow
 */
export function asItWent(
  problem: FlowProblem,
  factor: number,
  {
    infusion,
    clock,
    now,
    fineness,
  }: {
    readonly infusion: Pick<Infusion, 'turned'>;
    readonly clock: LiveClock;
    readonly now: number;
    readonly fineness: Fineness;
  },
): AsItWent {
  const { own, forced, times, done } = asTurned(problem, factor, { infusion, clock, now });
  const planned = own.lines.flatMap(({ actions }) => actions.flatMap(({ id }) => id ?? []));
  const state = solveFlow(
    { ...own, lines: forced, done: planned, settles: false },
    { ...fineness, stopAt: Math.max(times.at(now), 1e-9) },
  ).state!;
  return { problem: { ...own, done, settles: false }, start: state, times };
}

/**
 * The whole fill with every turn that was made in place of what was planned, and the plan's own turns for the rest.
 * Parameters and errors as asItWent.
 */
export function wholeAsItGoes(
  problem: FlowProblem,
  factor: number,
  { fineness, ...request }: Parameters<typeof asItWent>[2],
): FlowForecast {
  const { own, forced, done } = asTurned(problem, factor, request);
  return solveFlow({ ...own, lines: forced, done, settles: false }, fineness);
}

/** The problem with its factor, and its lines turned as they were. */
function asTurned(
  problem: FlowProblem,
  factor: number,
  { infusion, clock, now }: Pick<Parameters<typeof asItWent>[2], 'infusion' | 'clock' | 'now'>,
) {
  const times = runTimes(problem, clock);
  const own = onLiveClock(eased(problem, factor * meanShare(problem, clock, now)), clock);
  const done = infusion.turned.flatMap(({ actionId }) => actionId ?? []);
  const turned = (line: LayoutLine) => infusion.turned.filter(({ lineId }) => lineId === line.id);
  const atRunTime = (ms: number) => times.at((ms - clock.zero) / 1000);
  const forced = own.lines.map((line): LayoutLine => ({
    ...line,
    startsOpen: line.kind === 'feed' ? startsOpen(line, infusion, atRunTime) : line.startsOpen,
    actions: [
      ...line.actions,
      // What was turned before anything flowed stands so from the start.
      ...turned(line).map(({ at, opening }) =>
        turnAt(own, times, Math.max(clock.run.openTime, (at - clock.zero) / 1000), opening),
      ),
    ],
  }));
  return { own, forced, times, done };
}

/** A feed that nobody has said anything of opened as planned; one that was turned before anything flowed stands as it was turned. */
function startsOpen(
  line: LayoutLine,
  { turned }: Pick<Infusion, 'turned'>,
  atRunTime: (ms: number) => number,
) {
  const own = turned.filter(({ lineId }) => lineId === line.id);
  const first = own.findLast(({ at }) => atRunTime(at) <= 0);
  if (first) return first.opening > 0;
  return own.length === 0 && line.startsOpen && turned.length === 0;
}

/** The run with the times it really had. */
const onLiveClock = (problem: FlowProblem, { run }: LiveClock): FlowProblem => ({
  ...problem,
  run: problem.run && {
    ...problem.run,
    openTime: run.openTime,
    temperature: run.temperature,
    drift: run.drift,
  },
});

/** A turn from now on, s since first contact. */
export interface Turn {
  readonly lineId: string;
  readonly opening: number;
  readonly at: number;
}

/** A turn at a time since first contact, as the problem counts it. */
const turnAt = (
  { run }: Pick<FlowProblem, 'run'>,
  times: RunTimes,
  at: number,
  opening: number,
): LayoutAction => ({
  opening,
  when: { kind: 'time', time: run ? at : times.at(at) },
});

/**
 * The rest of the fill, from how it stands. A line that is turned by hand no longer waits for what the plan had for it.
 * @param until run time at which it ends  @throws ModelError as solveFlow
 */
export function onFromHere(
  { problem, start, times }: AsItWent,
  turns: readonly Turn[],
  fineness: Fineness,
  until?: number,
): FlowForecast {
  const ofLine = (id: string) => turns.filter(({ lineId }) => lineId === id);
  const overtaken = problem.lines.flatMap(({ id, actions }) =>
    ofLine(id).length > 0 ? actions.flatMap((action) => action.id ?? []) : [],
  );
  const lines = problem.lines.map((line) => ({
    ...line,
    actions: [
      ...line.actions,
      ...ofLine(line.id).map(({ at, opening }) => turnAt(problem, times, at, opening)),
    ],
  }));
  const done = [...(problem.done ?? []), ...overtaken];
  return solveFlow({ ...problem, lines, done }, { ...fineness, start, stopAt: until });
}
