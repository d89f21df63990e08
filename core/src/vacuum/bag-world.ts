import { requirePositive } from '../model-error.ts';
import { effectiveSpeed, type PumpCurve, type VacuumHose } from './pump-down.ts';

/** What stays of a bag while its valve is turned. */
export interface BagParts {
  /** m3 */
  readonly freeVolume: number;
  readonly pump: PumpCurve;
  readonly hose: VacuumHose;
  /** Air comes back through a pump that has stopped, unless this valve holds it. */
  readonly hasCheckValve: boolean;
  /** Time constant in which moisture is given off, s. */
  readonly settling: number;
}

/** What acts on a bag from outside, for a while. */
export interface BagConditions {
  readonly valve: 'pull' | 'shut' | 'letGo';
  readonly pumpRuns: boolean;
  /** Let in by all leaks while the bag is under half of ambient, Pa m3/s. */
  readonly throughput: number;
  /** Pa absolute */
  readonly ambient: number;
}

export interface BagState {
  /** s */
  readonly time: number;
  /** Pa absolute */
  readonly pressure: number;
  /** By which what is still moist would raise the shut bag, Pa. */
  readonly moisture: number;
}

/** As ISO 6358 has it: choked below this ratio of pressures. */
const CRITICAL = 0.5;

/**
 * Share of its choked flow that a leak lets in: 1 below half of ambient, then sqrt(1 - ((p/pa - b)/(1 - b))^2).
 * Source: ISO 6358-1 (from memory), b = 0.5. Checked by bag-world.test.ts.
 */
export function chokedShare(pressure: number, ambient: number): number {
  const ratio = pressure / ambient;
  if (ratio <= CRITICAL) return 1;
  return ratio >= 1 ? 0 : Math.sqrt(1 - ((ratio - CRITICAL) / (1 - CRITICAL)) ** 2);
}

/** A bag that is let go fills in about so long, s. */
const LET_GO = 4;
/** Longest step, as a share of the shortest time in which anything changes. */
const STEP = 0.05;
const MOST_STEPS = 50_000;

/**
 * Goes on from a state: V dp/dt = Q choked(p) + V m/tau - S_eff (p - p_u) while it is pumped, without the last term while it is shut;
 * dm/dt = -m/tau. By fourth-order Runge-Kutta; in between the conditions do not change.
 * @param duration s, >= 0
 * @throws ModelError where the free volume or the time constant is not above 0
 * Source: O'Hanlon, A User's Guide to Vacuum Technology (from memory). Checked by bag-world.test.ts.
 */
export function passTime(
  state: BagState,
  parts: BagParts,
  conditions: BagConditions,
  duration: number,
): BagState {
  const { freeVolume, settling } = parts;
  requirePositive(freeVolume, 'Free volume', 'm3');
  requirePositive(settling, 'Time constant of moisture', 's');
  const change = (pressure: number, moisture: number) => rateOf(parts, conditions, pressure, moisture);
  const shortest = conditions.valve === 'letGo' ? LET_GO : Math.min(settling, freeVolume / parts.pump.speed);
  const count = Math.min(MOST_STEPS, Math.max(1, Math.ceil(duration / (STEP * shortest))));
  const h = duration / count;
  let { pressure, moisture } = state;
  for (let n = 0; n < count; n++) {
    const after = (dt: number) => moisture * Math.exp(-dt / settling);
    const k1 = change(pressure, moisture);
    const k2 = change(pressure + (h / 2) * k1, after(h / 2));
    const k3 = change(pressure + (h / 2) * k2, after(h / 2));
    const k4 = change(pressure + h * k3, after(h));
    pressure = Math.max(1, pressure + (h / 6) * (k1 + 2 * k2 + 2 * k3 + k4));
    moisture = after(h);
  }
  return { time: state.time + duration, pressure, moisture };
}

/** What gives gas to a bag that is being pumped. */
export interface GasSources {
  /** Of the leak, Pa m3/s. */
  readonly throughput: number;
  /** What moisture would raise the shut bag by in the end, Pa, and its time constant, s. */
  readonly moisture: number;
  readonly settling: number;
}

export interface PumpDownRequest extends Pick<BagParts, 'pump' | 'hose' | 'freeVolume'> {
  /** Pa absolute, of the bag and the air outside. */
  readonly from: number;
  readonly sources: GasSources;
  /** Increasing, s, from 0. */
  readonly times: ArrayLike<number>;
}

/**
 * Pressure while a bag is pumped from ambient, Pa, at each time.
 * @throws ModelError where pump, hose, volume or pressure is not above 0
 * Source: as passTime. Checked by pump-down.test.ts.
 */
export function pumpDown({ from, sources, times, ...bag }: PumpDownRequest): Float64Array {
  requirePositive(from, 'Pressure at the start', 'Pa');
  const parts: BagParts = { ...bag, hasCheckValve: false, settling: sources.settling };
  const conditions: BagConditions = {
    ...{ valve: 'pull', pumpRuns: true, ambient: from },
    throughput: sources.throughput,
  };
  let state: BagState = { time: 0, pressure: from, moisture: sources.moisture };
  return Float64Array.from(times, (time) => {
    state = passTime(state, parts, conditions, time - state.time);
    return state.pressure;
  });
}

/** dp/dt, Pa/s. */
function rateOf(
  { freeVolume, pump, hose, hasCheckValve, settling }: BagParts,
  { valve, pumpRuns, throughput, ambient }: BagConditions,
  pressure: number,
  moisture: number,
): number {
  if (valve === 'letGo') return (ambient - pressure) / LET_GO;
  const given = (throughput * chokedShare(pressure, ambient)) / freeVolume + moisture / settling;
  if (valve === 'shut' || (!pumpRuns && hasCheckValve)) return given;
  const above = Math.max(pressure, 1e-3);
  const speed = effectiveSpeed(pump.speed, hose, above) / freeVolume;
  // A pump that stands still lets in through the hose what it drew before, driven by the pressure the other way.
  return pumpRuns
    ? given - speed * (pressure - pump.ultimatePressure)
    : given + (effectiveSpeed(pump.speed, hose, ambient) / freeVolume) * (ambient - pressure);
}
