import { normalCdf, normalQuantile } from '../verdict/sampling.ts';
import { evidenceOf, factorOf, type Factor } from './factor.ts';
import { alike, LOCAL_SCATTER, type MarkSeen } from './marks.ts';
import { logSum } from './small-algebra.ts';

/** One way in which the part may be: a sampled run, or one in which something has happened. */
export interface Shape {
  readonly id: string;
  /** What would have happened; null of one that only scatters. */
  readonly event: string | null;
  /** Before any mark; only their ratios count. */
  readonly prior: number;
  /** Fluidity time at which its last corner is wet; Infinity where it stays dry. */
  readonly last: number;
  /** When its front is at each mark; NaN where it never comes. */
  readonly atMarks: readonly number[];
}

export interface Weighed {
  readonly shape: Shape;
  /** Share of belief, 0-1; together 1. */
  readonly weight: number;
  readonly factor: Factor;
}

export interface Weighing {
  readonly shapes: readonly Weighed[];
  /** As many shapes of equal belief would count for as much (Kish): below 10 the spread of their shapes says little. */
  readonly effective: number;
  /** Belief in each event, largest first. */
  readonly events: readonly { readonly event: string; readonly belief: number }[];
  /** Of each mark, over all shapes. */
  readonly belief: readonly number[];
}

export const ENOUGH_SHAPES = 10;
/** What happens in a part never happens just as it was sampled: so much more its marks scatter. From memory. */
const EVENT_SCATTER = 0.12;
/** Of the local scatter what is added ahead: sampled parts that differ from place to place carry the rest. */
const AHEAD_SCATTER = 0.6 * LOCAL_SCATTER;
/** Chance below which a shape counts as over: the middle of what is left of it would be noise. */
const LEAST = 1e-9;
/** ln of the evidence of a mark where a shape has no front at all: as little as of a wild one. */
const NEVER = -12;

/**
 * Weighs shapes by what the marks say of each, the one factor that all share integrated out in every one of them.
 * An event is believed only as far as no single mark decides it: one wrong mark looks like a race.
 * @param marks what was seen, without the models' times  @param prior standard deviation of ln of the factor
 * Source: Bayes' rule. Checked by shapes.test.ts.
 */
export function weighShapes(
  shapes: readonly Shape[],
  marks: readonly Omit<MarkSeen, 'model'>[],
  prior: number,
): Weighing {
  const readings = shapes.map((shape) => readShape(shape, marks, prior));
  const plain = Math.max(
    ...readings.filter((_, k) => shapes[k]!.event === null).map(({ all }) => all),
    NEVER,
  );
  const plainWithout = marks.map((_, j) =>
    Math.max(
      ...readings.filter((_, k) => shapes[k]!.event === null).map(({ without }) => without[j]!),
      NEVER,
    ),
  );
  const logs = readings.map(({ all, without }, k) => {
    const { event, prior: before } = shapes[k]!;
    const gain = all - plain;
    const gains = event === null ? [gain] : [gain, ...without.map((log, j) => log - plainWithout[j]!)];
    return Math.log(before) + Math.min(...gains);
  });
  const total = logSum(logs);
  const weighed = shapes.map((shape, k): Weighed => ({
    shape,
    weight: Math.exp(logs[k]! - total),
    factor: readings[k]!.factor,
  }));
  const beliefs = new Map<string, number>();
  for (const { shape, weight } of weighed)
    if (shape.event !== null) beliefs.set(shape.event, (beliefs.get(shape.event) ?? 0) + weight);
  return {
    shapes: weighed,
    effective: 1 / weighed.reduce((sum, { weight }) => sum + weight ** 2, 0),
    events: [...beliefs].map(([event, belief]) => ({ event, belief })).sort((a, b) => b.belief - a.belief),
    belief: marks.map((_, j) =>
      weighed.reduce((sum, { weight, factor }) => sum + weight * Math.min(1, factor.belief[j]!), 0),
    ),
  };
}

/** A shape's factor, and its evidence with all marks and without each of them. */
function readShape(shape: Shape, marks: readonly Omit<MarkSeen, 'model'>[], prior: number) {
  const seen = marks.map((mark, j): MarkSeen | null =>
    shape.atMarks[j]! > 0
      ? {
          ...mark,
          model: shape.atMarks[j]!,
          deviation: Math.hypot(mark.deviation, shape.event ? EVENT_SCATTER : 0),
        }
      : null,
  );
  const known = (list: readonly (MarkSeen | null)[]) => list.filter((mark) => mark !== null);
  const evidence = (list: readonly (MarkSeen | null)[]) => {
    const missing = list.filter((mark) => mark === null).length;
    return evidenceOf(known(list), prior) + missing * NEVER;
  };
  const own = factorOf(known(seen), prior);
  let next = 0;
  const belief = seen.map((mark) => (mark === null ? 0 : own.belief[next++]!));
  return {
    factor: { ...own, belief },
    all: evidence(seen),
    without: marks.map((_, j) => evidence(seen.filter((_, i) => i !== j))),
  };
}

/** Fluidity time of a place ahead of the front, as believed: a mixture over the shapes. */
export interface Ahead {
  /** Chance that the front is there by a fluidity time. */
  readonly by: (fluidity: number) => number;
  /** Fluidity time by which it is with a chance; Infinity where it may never be. @param chance 0-1 */
  readonly at: (chance: number) => number;
  /** Of each shape, given that the front is not there by now: its share of belief, and ln of the factor in the middle of what is left. */
  readonly given: readonly { readonly weight: number; readonly factor: number }[];
}

/**
 * @param times each shape's fluidity time there, in the order of the shapes; Infinity or NaN where its front never comes
 * @param marks the latest of them tells how much of the local scatter is still ahead
 * @param now fluidity time until which the front has not come there, for sure
 * Checked by shapes.test.ts.
 */
export function lookAhead(
  { shapes }: Pick<Weighing, 'shapes'>,
  times: readonly number[],
  seenUntil: readonly number[],
  now = 0,
): Ahead {
  const parts = shapes.map(({ shape, weight, factor }, k) => {
    const time = times[k]!;
    const latest = seenUntil[k]!;
    const local = AHEAD_SCATTER * Math.sqrt(1 - (latest > 0 ? alike(time, latest) ** 2 : 0));
    const comes = time > 0 && time < Infinity;
    return {
      weight,
      comes,
      middle: comes ? Math.log(time) - factor.mean : Infinity,
      deviation: Math.max(
        1e-3,
        Math.hypot(factor.deviation, comes ? local : 0, shape.event ? EVENT_SCATTER : 0),
      ),
    };
  });
  const raw = (fluidity: number) =>
    fluidity <= 0
      ? 0
      : parts.reduce(
          (sum, { weight, comes, middle, deviation }) =>
            sum + (comes ? weight * normalCdf((Math.log(fluidity) - middle) / deviation) : 0),
          0,
        );
  const before = raw(now);
  const by = (fluidity: number) =>
    fluidity <= now ? 0 : (raw(fluidity) - before) / Math.max(1e-12, 1 - before);
  const dry = parts.map(({ comes, middle, deviation }) =>
    comes && now > 0 ? normalCdf((middle - Math.log(now)) / deviation) : 1,
  );
  const left = parts.reduce((sum, { weight }, k) => sum + weight * dry[k]!, 0);
  const given = parts.map(({ weight, comes, middle, deviation }, k) => {
    const time = comes ? Math.log(times[k]!) : 0;
    // Median of the normal curve that is cut off at now.
    const late = deviation * normalQuantile(1 - 0.5 * Math.max(LEAST, dry[k]!));
    return {
      weight: left > 0 ? (weight * dry[k]!) / left : weight,
      factor: comes ? time - Math.max(middle + late, Math.log(now)) : shapes[k]!.factor.mean,
    };
  });
  const middles = parts.filter(({ comes }) => comes).map(({ middle }) => middle);
  const end = Math.exp(Math.max(...middles) + 6);
  return {
    by,
    given,
    at(chance) {
      if (middles.length === 0 || by(end) < chance) return Infinity;
      let [low, high] = [Math.log(Math.max(now, Math.exp(Math.min(...middles) - 6))), Math.log(end)];
      for (let i = 0; i < 60; i++) {
        const middle = (low + high) / 2;
        if (by(Math.exp(middle)) < chance) low = middle;
        else high = middle;
      }
      return Math.exp(high);
    },
  };
}
