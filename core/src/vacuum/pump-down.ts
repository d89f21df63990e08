import { requirePositive } from '../model-error.ts';

/** Of air at 20 C, Pa s; ISO 2533 gives 1.81e-5. */
const AIR_VISCOSITY = 1.82e-5;

export interface VacuumHose {
  /** m */
  readonly bore: number;
  readonly length: number;
}

/** Volume that a pump takes in, m3/s, and the pressure at which it takes no more, Pa absolute. */
export interface PumpCurve {
  readonly speed: number;
  readonly ultimatePressure: number;
}

/**
 * Volume that leaves a bag through a hose and a pump, m3/s: laminar flow gives (k/2)(p^2 - p_p^2) = S p_p with
 * k = pi d^4/(128 eta L), and S_eff = S p_p/p.
 * @param pressure in the bag, Pa absolute, > 0
 * Valid: viscous flow, pressure x bore above 0.6 Pa m. Source: Roth, Vacuum Technology (from memory). Checked by pump-down.test.ts.
 */
export function effectiveSpeed(speed: number, { bore, length }: VacuumHose, pressure: number): number {
  requirePositive(speed, 'Speed of the pump', 'm3/s');
  requirePositive(bore, 'Bore of the hose', 'm');
  requirePositive(pressure, 'Pressure', 'Pa');
  if (length === 0) return speed;
  const conductance = (Math.PI * bore ** 4) / (128 * AIR_VISCOSITY * length);
  // (-S + sqrt(S^2 + k^2 p^2))/k, without the difference of two near numbers.
  const atPump = (conductance * pressure ** 2) / (speed + Math.hypot(speed, conductance * pressure));
  return (speed * atPump) / pressure;
}

/** How air flows in a hose at a pressure: by its viscosity, by single molecules, or between. Source: as above. */
export function regimeOf(bore: number, pressure: number): 'viscous' | 'between' | 'molecular' {
  if (bore * pressure > 0.6) return 'viscous';
  return bore * pressure < 0.013 ? 'molecular' : 'between';
}

/** What gives gas to a bag that is being pumped. */
export interface GasSources {
  /** Of the leak, Pa m3/s. */
  readonly throughput: number;
  /** What moisture would raise the shut bag by in the end, Pa, and its time constant, s. */
  readonly moisture: number;
  readonly settling: number;
}

export interface PumpDownRequest {
  readonly pump: PumpCurve;
  readonly hose: VacuumHose;
  /** m3 */
  readonly freeVolume: number;
  /** Pa absolute */
  readonly from: number;
  readonly sources: GasSources;
  /** Increasing, s, from 0. */
  readonly times: ArrayLike<number>;
}

/** Longest step: so much of the time in which the pump would turn the volume over, and of the moisture's. */
const STEP = 0.05;
const MOST_STEPS = 200_000;

/**
 * Pressure while a bag is pumped, Pa: V dp/dt = Q + V (c/tau) exp(-t/tau) - S_eff (p - p_u), by fourth-order Runge-Kutta.
 * @throws ModelError where pump, hose, volume or pressure is not above 0
 * Source: O'Hanlon, A User's Guide to Vacuum Technology (from memory). Checked by pump-down.test.ts.
 */
export function pumpDown({ pump, hose, freeVolume, from, sources, times }: PumpDownRequest): Float64Array {
  requirePositive(freeVolume, 'Free volume', 'm3');
  requirePositive(from, 'Pressure at the start', 'Pa');
  const { throughput, moisture, settling } = sources;
  const change = (time: number, pressure: number) => {
    const given = throughput / freeVolume + (moisture / settling) * Math.exp(-time / settling);
    const above = Math.max(pressure, 1e-3);
    return (
      given - (effectiveSpeed(pump.speed, hose, above) * (pressure - pump.ultimatePressure)) / freeVolume
    );
  };
  const end = times.length > 0 ? times[times.length - 1] : 0;
  const step = Math.max(
    Math.min((STEP * freeVolume) / pump.speed, moisture > 0 ? STEP * settling : Infinity, end || 1),
    end / MOST_STEPS,
  );
  const out = new Float64Array(times.length);
  let [time, pressure] = [0, from];
  for (let i = 0; i < times.length; i++) {
    const count = Math.ceil((times[i] - time) / step);
    const h = count > 0 ? (times[i] - time) / count : 0;
    for (let n = 0; n < count; n++) {
      const k1 = change(time, pressure);
      const k2 = change(time + h / 2, pressure + (h / 2) * k1);
      const k3 = change(time + h / 2, pressure + (h / 2) * k2);
      const k4 = change(time + h, pressure + h * k3);
      pressure += (h / 6) * (k1 + 2 * k2 + 2 * k3 + k4);
      time += h;
    }
    out[i] = pressure;
  }
  return out;
}

/**
 * The pressure that a leaking bag ends at, Pa: S_eff (p - p_u) = Q, by bisection.
 * @param throughput Pa m3/s
 * @param ambient    Pa absolute: no leak brings it higher
 */
export function endPressure(pump: PumpCurve, hose: VacuumHose, throughput: number, ambient: number): number {
  const left = (p: number) => effectiveSpeed(pump.speed, hose, p) * (p - pump.ultimatePressure) - throughput;
  let [low, high] = [pump.ultimatePressure, ambient];
  if (left(high) < 0) return ambient;
  for (let n = 0; n < 60; n++) {
    const middle = (low + high) / 2;
    if (left(middle) < 0) low = middle;
    else high = middle;
  }
  return (low + high) / 2;
}

/**
 * How long a shut bag stays under a pressure, s: t = V (p_limit - p_0)/Q.
 * @param throughput Pa m3/s; without a leak it holds for ever
 */
export const holdTime = (request: {
  readonly freeVolume: number;
  readonly from: number;
  readonly limit: number;
  readonly throughput: number;
}): number =>
  request.from >= request.limit
    ? 0
    : (request.freeVolume * (request.limit - request.from)) / request.throughput;

/**
 * Free volume measured by letting a known volume of air into it: V = V_k (p_k - p_f)/(p_f - p_0), m3.
 * @param known its volume, m3, and pressure, Pa  @param before and after, in the bag, Pa
 * @throws ModelError where the pressure has not risen, or no further than the known one
 */
export function volumeByExpansion(
  known: { readonly volume: number; readonly pressure: number },
  before: number,
  after: number,
): number {
  requirePositive(known.volume, 'Known volume', 'm3');
  requirePositive(after - before, 'Rise of pressure in the bag', 'Pa');
  requirePositive(known.pressure - after, 'Fall of pressure in the known volume', 'Pa');
  return (known.volume * (known.pressure - after)) / (after - before);
}
