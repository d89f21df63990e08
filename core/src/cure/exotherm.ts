import { ModelError, requirePositive } from '../model-error.ts';
import { GAS_CONSTANT } from '../resin/curve-fit.ts';

/** A layer through the thickness, mould side first. */
export interface HeatLayer {
  /** m, W/(m K), kg/m3, J/(kg K); all > 0 */
  readonly thickness: number;
  readonly conductivity: number;
  readonly density: number;
  readonly specificHeat: number;
  /** Resin that cures in it, kg/m3; 0 for mould and core. */
  readonly resin: number;
}

/** What a face meets: air or a heater behind a film, W/(m2 K) and K over time, and heat that falls on it, W/m2. */
export interface HeatFace {
  readonly transfer: number;
  readonly temperature: (time: number) => number;
  readonly flux?: number;
}

/** How resin cures: growth of its state, 1/s, and heat set free up to a state, J/kg. */
export interface HeatSource {
  readonly rate: (state: number, temperature: number) => number;
  readonly heat: (state: number) => number;
  readonly gelState: number;
  /** Warmer than this the rate is a guess, K; never when left out. */
  readonly knownTo?: number;
}

export interface ExothermRequest {
  readonly layers: readonly HeatLayer[];
  readonly mouldFace: HeatFace;
  readonly bagFace: HeatFace;
  /** Of all layers, K, and of the resin, when it starts; time s. */
  readonly start: { readonly temperature: number; readonly state: number; readonly time: number };
  readonly source: HeatSource;
  /** s */
  readonly until: number;
  /** Cells through the thickness, shared out by thickness; 40 by default. */
  readonly cells?: number;
}

export interface Exotherm {
  /** s, K: warmest and coldest resin, and resin least far in its cure, over time. */
  readonly curve: readonly {
    readonly time: number;
    readonly warmest: number;
    readonly coldest: number;
    readonly leastState: number;
  }[];
  readonly peak: { readonly temperature: number; readonly time: number; readonly depth: number };
  /** When the first and the last of the resin gels; Infinity where it does not by the end. */
  readonly firstGel: number;
  readonly lastGel: number;
  /** Through the thickness when it is warmest, from the mould's outer face, m and K. */
  readonly profile: readonly { readonly depth: number; readonly temperature: number }[];
  /** When it first is warmer than the resin's data cover; Infinity where never: after it the course is a guess. */
  readonly knownUntil: number;
}

/** A step lets nothing warm or cool by more than about so many K, nor the cure go on by more than this share of its gel, or of itself. */
const LARGEST_RISE = 0.5;
const LARGEST_CURE = 0.01;
const LARGEST_GROWTH = 0.05;
/** The first step, s; each is at most so many times as long as the one before. */
const FIRST_STEP = 1;
const STEP_GROWTH = 1.5;
const LONGEST_STEP = 300;
const USUAL_CELLS = 40;
const MOST_STEPS = 200_000;

/**
 * Temperature and cure through the thickness of what cures on a mould: rho c dT/dt = k d2T/dz2 + (resin per volume) dq/dt, each depth
 * curing by its own temperature. Conduction is taken at the end of each step (finite volumes, backward Euler), heat from its start.
 * @throws ModelError NOT_POSITIVE; NO_LAYERS; EXOTHERM_STEPS
 * Valid: thin against its length; properties that do not change with cure. Source: Bogetti & Gillespie 1991 (J. Compos. Mater. 25:239).
 * Checked by exotherm.test.ts.
 */
export function exotherm(request: ExothermRequest): Exotherm {
  const { start, source, until } = request;
  const grid = gridOf(request);
  const n = grid.width.length;
  const temperature = new Float64Array(n).fill(start.temperature);
  const state = new Float64Array(n).fill(start.state);
  const cures = Array.from({ length: n }, (_, i) => i).filter((i) => grid.resin[i] > 0);
  if (cures.length === 0) throw noLayers();
  const curve: Exotherm['curve'][number][] = [];
  let peak = { temperature: -Infinity, time: start.time, depth: 0 };
  let profile: Exotherm['profile'] = [];
  let [firstGel, lastGel, knownUntil] = [Infinity, Infinity, Infinity];
  const heatOf = new Float64Array(n);
  let time = start.time;
  let step = FIRST_STEP;
  for (let steps = 0; ; steps++) {
    if (steps > MOST_STEPS)
      throw new ModelError(
        'EXOTHERM_STEPS',
        'The cure changes far faster than the time asked for. Ask for a shorter time, or check the resin’s cure data.',
      );
    const now = seen(time, cures, temperature, state);
    curve.push(now);
    if (now.warmest > peak.temperature) {
      const at = cures.reduce((best, i) => (temperature[i] > temperature[best] ? i : best), cures[0]);
      peak = { temperature: now.warmest, time, depth: grid.depth[at] };
      profile = Array.from(grid.depth, (depth, i) => ({ depth, temperature: temperature[i] }));
    }
    if (cures.some((i) => state[i] >= source.gelState)) firstGel = Math.min(firstGel, time);
    if (now.leastState >= source.gelState) lastGel = Math.min(lastGel, time);
    if (now.warmest > (source.knownTo ?? Infinity)) knownUntil = Math.min(knownUntil, time);
    if (time >= until * (1 - 1e-12)) break;
    const longest = Math.min(step, LONGEST_STEP, until - time);
    const taken = advance({ request, grid, temperature, state, cures, heatOf, time, longest });
    time += taken.step;
    step = Math.min(STEP_GROWTH * taken.step, (LARGEST_RISE * taken.step) / Math.max(taken.moved, 1e-9));
  }
  return { curve, peak, firstGel, lastGel, profile, knownUntil };
}

interface Step {
  readonly request: ExothermRequest;
  readonly grid: ReturnType<typeof gridOf>;
  readonly temperature: Float64Array;
  readonly state: Float64Array;
  readonly cures: readonly number[];
  readonly heatOf: Float64Array;
  readonly time: number;
  readonly longest: number;
}

/** @returns length of the step, s, and the most that a temperature moved in it, K */
function advance({ request, grid, temperature, state, cures, heatOf, time, longest }: Step) {
  const { source, mouldFace, bagFace } = request;
  let step = longest;
  for (const i of cures) {
    const rate = source.rate(state[i], temperature[i]);
    const largest = Math.max(LARGEST_CURE * source.gelState, LARGEST_GROWTH * state[i]);
    step = Math.min(step, largest / rate);
    const power = (grid.resin[i] * (source.heat(state[i] + step * rate) - source.heat(state[i]))) / step;
    step = Math.min(step, (LARGEST_RISE * grid.capacity[i]) / Math.max(power, 1e-12));
  }
  heatOf.fill(0);
  for (const i of cures) {
    const halfway = state[i] + 0.5 * step * source.rate(state[i], temperature[i]);
    const next = state[i] + step * source.rate(halfway, temperature[i]);
    heatOf[i] = grid.resin[i] * (source.heat(next) - source.heat(state[i]));
    state[i] = next;
  }
  const end = time + step;
  const before = temperature.slice();
  conduct(temperature, heatOf, step, grid, {
    mould: mouldFace.temperature(end) + (mouldFace.flux ?? 0) / mouldFace.transfer,
    bag: bagFace.temperature(end) + (bagFace.flux ?? 0) / bagFace.transfer,
  });
  const moved = temperature.reduce((most, own, i) => Math.max(most, Math.abs(own - before[i])), 0);
  return { step, moved };
}

/** One implicit step of conduction (Thomas' algorithm), in place. */
function conduct(
  temperature: Float64Array,
  heatOf: Float64Array,
  step: number,
  { width, capacity, joint, mouldJoint, bagJoint }: ReturnType<typeof gridOf>,
  outside: { readonly mould: number; readonly bag: number },
): void {
  const n = width.length;
  const upper = new Float64Array(n);
  const right = new Float64Array(n);
  for (let i = 0; i < n; i++) {
    const store = (capacity[i] * width[i]) / step;
    const before = i === 0 ? mouldJoint : joint[i - 1];
    const after = i === n - 1 ? bagJoint : joint[i];
    let own = store * temperature[i] + (heatOf[i] * width[i]) / step;
    if (i === 0) own += mouldJoint * outside.mould;
    if (i === n - 1) own += bagJoint * outside.bag;
    const lower = i === 0 ? 0 : -before;
    const diagonal = store + before + after - (i === 0 ? 0 : lower * upper[i - 1]);
    upper[i] = i === n - 1 ? 0 : -after / diagonal;
    right[i] = (own - (i === 0 ? 0 : lower * right[i - 1])) / diagonal;
  }
  for (let i = n - 1; i >= 0; i--)
    temperature[i] = right[i] - (i === n - 1 ? 0 : upper[i] * temperature[i + 1]);
}

/** Cells with their heat capacity, J/(m3 K), resin, kg/m3, middle, m, and conductances between them, W/(m2 K). */
function gridOf({ layers, mouldFace, bagFace, cells = USUAL_CELLS }: ExothermRequest) {
  if (layers.length === 0) throw noLayers();
  const whole = layers.reduce((sum, { thickness }) => sum + thickness, 0);
  const rows = layers.flatMap(({ thickness, conductivity, density, specificHeat, resin }) => {
    requirePositive(thickness, 'A layer’s thickness', 'm');
    requirePositive(conductivity, 'A layer’s conductivity', 'W/(m K)');
    requirePositive(density * specificHeat, 'A layer’s heat capacity', 'J/(m3 K)');
    const count = Math.max(3, Math.round((cells * thickness) / whole));
    const row = { width: thickness / count, capacity: density * specificHeat, conductivity, resin };
    return Array.from({ length: count }, () => row);
  });
  let edge = 0;
  const depth = rows.map(({ width }) => (edge += width) - width / 2);
  const half = rows.map(({ width, conductivity }) => width / (2 * conductivity));
  return {
    width: rows.map(({ width }) => width),
    capacity: rows.map(({ capacity }) => capacity),
    resin: rows.map(({ resin }) => resin),
    depth,
    joint: half.slice(1).map((own, i) => 1 / (own + half[i])),
    mouldJoint: 1 / (half[0] + 1 / mouldFace.transfer),
    bagJoint: 1 / (half[half.length - 1] + 1 / bagFace.transfer),
  };
}

function seen(time: number, cures: readonly number[], temperature: Float64Array, state: Float64Array) {
  let [warmest, coldest, leastState] = [-Infinity, Infinity, Infinity];
  for (const i of cures) {
    warmest = Math.max(warmest, temperature[i]);
    coldest = Math.min(coldest, temperature[i]);
    leastState = Math.min(leastState, state[i]);
  }
  return { time, warmest, coldest, leastState };
}

const noLayers = () =>
  new ModelError('NO_LAYERS', 'Nothing in the laminate cures. Give it plies and a resin.');

/** Where these lie above the limits a thick place can run away; below them it cannot. */
export const SEMENOV_LIMIT = 1 / Math.E;
export const FRANK_KAMENETSKII_LIMIT = 0.88;

/**
 * How near a heating laminate is to running away: Semenov's number (E / R T^2) S t / h of one that is as warm throughout, and
 * Frank-Kamenetskii's (E / R T^2) S L^2 / k of one whose middle cannot cool.
 * @param of activation energy, J/mol; temperature, K; heating power, W/m3; thickness t and L, the way to a face that is held, m; h W/(m2 K); k W/(m K)
 * Source: Frank-Kamenetskii, Diffusion and Heat Transfer in Chemical Kinetics, 1969. Checked by exotherm.test.ts.
 */
export function runawayNumbers(of: {
  readonly activationEnergy: number;
  readonly temperature: number;
  readonly power: number;
  readonly thickness: number;
  readonly reach: number;
  readonly transfer: number;
  readonly conductivity: number;
}): { readonly semenov: number; readonly frankKamenetskii: number } {
  const steepness = of.activationEnergy / (GAS_CONSTANT * of.temperature ** 2);
  return {
    semenov: (steepness * of.power * of.thickness) / of.transfer,
    frankKamenetskii: (steepness * of.power * of.reach ** 2) / of.conductivity,
  };
}

/** Rise if no heat left, K: share of resin by mass x heat / specific heat. @param heat J/kg of resin, > 0 */
export const adiabaticRise = (resinShare: number, heat: number, specificHeat: number): number =>
  (resinShare * heat) / specificHeat;
