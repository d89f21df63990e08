import { diameterOf } from './pot-shape.ts';
import { chemistryOf, type ResinSystem } from './resin-system.ts';

/** J/(kg K); from memory, typical of unfilled thermosets. */
const SPECIFIC_HEAT = 1900;
/** W/(m2 K); from memory, plastic pail in still air. */
const HEAT_TRANSFER = 8;

/**
 * How fast what stands in a container as tall as wide follows the room, 1/s: h A / (m cp), A = 1.5 pi d2.
 * @param mass kg, > 0  @param density kg/m3, > 0
 * Source: lumped heat balance. Checked by resin.test.ts.
 */
function coolingRate(mass: number, density: number): number {
  return (HEAT_TRANSFER * 1.5 * Math.PI * diameterOf(mass / density) ** 2) / (mass * SPECIFIC_HEAT);
}

/**
 * Until a container out of the cold store is within so many kelvin of the room, s: ln(difference / within) / coolingRate; 0 where it
 * is already.
 * @param container mass kg, density kg/m3, temperature K; @param room K; @param within K, > 0
 */
export function warmingTime(
  container: { readonly mass: number; readonly density: number; readonly temperature: number },
  room: number,
  within: number,
): number {
  const difference = Math.abs(room - container.temperature);
  if (difference <= within) return 0;
  return Math.log(difference / within) / coolingRate(container.mass, container.density);
}

/** Heat from mix to gel, J/kg, the range of which it is the middle, and the exponent with which it comes out as age grows; from memory. */
export const USUAL_HEAT = {
  amine: { toGel: 240_000, between: [200_000, 280_000], exponent: 2.5 },
  radical: { toGel: 20_000, between: [10_000, 30_000], exponent: 1 },
} as const;

/** Heat set free from mix to gel, J/kg. */
const heatToGelOf = (resin: ResinSystem): number => resin.heatToGel ?? USUAL_HEAT[chemistryOf(resin)].toGel;

/** Heat set free up to a share of the way to gel, J/kg. With kinetics it follows the conversion. */
export function heatOf(resin: ResinSystem): (share: number) => number {
  const toGel = heatToGelOf(resin);
  const exponent = resin.kinetics ? 1 : USUAL_HEAT[chemistryOf(resin)].exponent;
  return (share) => toGel * share ** exponent;
}

export interface PotStep {
  readonly time: number;
  readonly temperature: number;
  /** Share of the way to gel. */
  readonly share: number;
}

export interface PotBalance {
  readonly mass: number;
  readonly density: number;
  /** Of the resin when mixed, and around the pot at a time, K. */
  readonly start: number;
  readonly ambient: (time: number) => number;
  /** Heat set free up to a share of the way to gel, J/kg. */
  readonly heat: (share: number) => number;
  /** Growth of the share, 1/s. */
  readonly rate: (share: number, temperature: number, time: number) => number;
}

const LARGEST_SHARE = 0.004;

/**
 * Temperature and cure of resin in a pot as tall as wide, step by step to gel: m cp dT/dt = m dq/dt - h A (T - T_ambient), the
 * share following its own temperature.
 * Valid: one temperature in the pot, so it flatters large batches. Source: lumped heat balance. Checked by resin.test.ts.
 */
export function* potSteps({ mass, density, start, ambient, heat, rate }: PotBalance): Generator<PotStep> {
  const cooling = coolingRate(mass, density);
  let [time, temperature, share] = [0, start, 0];
  yield { time, temperature, share };
  while (share < 1) {
    const now = rate(share, temperature, time);
    let step = Math.min(60, LARGEST_SHARE / now, 0.2 / cooling);
    const half = share + 0.5 * step * now;
    const halfWarm =
      temperature +
      (heat(half) - heat(share)) / SPECIFIC_HEAT -
      0.5 * step * cooling * (temperature - ambient(time));
    let grown = step * rate(half, halfWarm, time + 0.5 * step);
    if (share + grown > 1) {
      step *= (1 - share) / grown;
      grown = 1 - share;
    }
    temperature +=
      (heat(share + grown) - heat(share)) / SPECIFIC_HEAT -
      step * cooling * (halfWarm - ambient(time + 0.5 * step));
    share += grown;
    time += step;
    yield { time, temperature, share };
  }
}
