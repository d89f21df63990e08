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
