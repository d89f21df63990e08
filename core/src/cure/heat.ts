import { cureLawOf } from '../resin/cure-law.ts';
import { GAS_CONSTANT, REACH } from '../resin/curve-fit.ts';
import { gelFit } from '../resin/gel-time.ts';
import { chemistryOf, type ResinSystem } from '../resin/resin-system.ts';
import { USUAL_HEAT } from '../resin/self-heating.ts';
import type { HeatSource } from './exotherm.ts';

/** A resin that may lack the heat of its whole cure, J/kg. */
export type CuringResin = ResinSystem & { readonly cureHeat?: number | null };

/** Heat of the whole cure, J/kg, where nobody has entered it; from memory. */
const USUAL_CURE_HEAT = { amine: 450_000, radical: 350_000 } as const;
/** How quickly a radical cure runs once its inhibitor is gone: growth of its logistic per gel time; from memory. */
const RADICAL_GROWTH = 7;

/** What of its heat a resin has given at a state of cure (of cureLawOf): in all J/kg, and the share of it, 0-1. */
export interface CureHeat {
  readonly total: number;
  readonly share: (state: number) => number;
}

/**
 * Heat over cure. With kinetics the conversion itself. An amine's comes as a power of its age up to gel and as the exponential that
 * carries on smoothly after it; a radical cure's slowly up to gel and then as a logistic.
 * @param cureHeat J/kg in all; null takes the usual
 * Valid: after gel an assumption, for no data sheet tells it. Source: heats and shape from memory. Checked by exotherm.test.ts.
 */
export function cureHeatOf(resin: CuringResin): CureHeat {
  const chemistry = chemistryOf(resin);
  const { toGel: usualToGel, exponent } = USUAL_HEAT[chemistry];
  if (resin.kinetics) {
    const { gelConversion } = resin.kinetics;
    const total = resin.cureHeat ?? (resin.heatToGel != null ? resin.heatToGel / gelConversion : undefined);
    return { total: total ?? USUAL_CURE_HEAT[chemistry], share: (state) => Math.min(1, Math.max(0, state)) };
  }
  const toGel = resin.heatToGel ?? usualToGel;
  const total = Math.max(resin.cureHeat ?? USUAL_CURE_HEAT[chemistry], 1.05 * toGel);
  const atGel = toGel / total;
  const after =
    chemistry === 'amine'
      ? (past: number) => 1 - (1 - atGel) * Math.exp((-exponent * atGel * past) / (1 - atGel))
      : (past: number) => 1 / (1 + ((1 - atGel) / atGel) * Math.exp(-RADICAL_GROWTH * past));
  return { total, share: (age) => (age <= 1 ? atGel * Math.max(0, age) ** exponent : after(age - 1)) };
}

/** Between which temperatures the resin's data tell how fast it cures, K. @throws ModelError of gelFit */
function knownBetween(resin: ResinSystem): { readonly from: number; readonly to: number } {
  if (resin.kinetics) return { from: 0, to: Infinity };
  if (!resin.gelTable) return gelFit(resin);
  const { temperature } = resin.gelTable;
  return { from: Math.min(...temperature) - REACH, to: Math.max(...temperature) + REACH };
}

/** Over so many kelvin inside its data the slope is read by which the rate is carried on outside. */
const SLOPE_OVER = 5;

/**
 * A resin as it cures and warms itself, whatever its temperature: past what its data cover the rate is carried on by its own slope
 * there, and `knownTo` says from where that is a guess, K.
 * @throws ModelError of the resin's curves
 * Source: Arrhenius. Checked by exotherm.test.ts.
 */
export function heatSourceOf(resin: CuringResin): HeatSource & { readonly knownTo: number } {
  const law = cureLawOf(resin);
  const { total, share } = cureHeatOf(resin);
  const { from, to } = knownBetween(resin);
  const carried = (state: number, temperature: number, edge: number, inward: number) => {
    const [near, far] = [law.rate(state, edge), law.rate(state, edge + inward)];
    const energy = (-GAS_CONSTANT * Math.log(near / far)) / (1 / edge - 1 / (edge + inward));
    return near * Math.exp((-energy / GAS_CONSTANT) * (1 / temperature - 1 / edge));
  };
  return {
    gelState: law.gelState,
    knownTo: to,
    rate: (state, temperature) =>
      temperature > to
        ? carried(state, temperature, to, -SLOPE_OVER)
        : temperature < from
          ? carried(state, temperature, from, SLOPE_OVER)
          : law.rate(state, temperature),
    heat: (state) => total * share(state),
  };
}
