import { fitArrhenius, GAS_CONSTANT, readFit, type ArrheniusFit, type CurvePoint } from './curve-fit.ts';
import { gelTimeFromTable } from './gel-table.ts';
import { gelTimeOfKinetics } from './kinetics.ts';
import type { ResinSystem } from './resin-system.ts';
import { heatOf, potSteps } from './self-heating.ts';

/**
 * Gel time at constant temperature, s: from kinetics, else from the gel table at the resin's catalyst, else the same curve
 * through the entered gel times.
 * @param reach of a gel table past its edge, K
 * @throws ModelError as gelFit, readFit and gelTimeFromTable
 */
export function gelTime(resin: ResinSystem, temperature: number, reach = 0): number {
  if (resin.kinetics) return gelTimeOfKinetics(resin.kinetics, temperature);
  if (resin.gelTable)
    return gelTimeFromTable(
      resin.gelTable,
      { catalyst: resin.hardenerParts, temperature },
      resin.name,
      reach,
    );
  return readFit(gelFit(resin), temperature, `gel time of ${resin.name}`);
}

/** The last fit of each list of points: solving a pot life takes some milliseconds. */
const known = new WeakMap<object, { readonly of: string; readonly fit: ArrheniusFit }>();

/** Gel times of a thin film against temperature, through the entered points. @throws ModelError of fitArrhenius */
export function gelFit(resin: ResinSystem): ArrheniusFit {
  const of = JSON.stringify([resin.name, resin.gelMass, resin.density, resin.heatToGel, resin.chemistry]);
  const last = known.get(resin.gelPoints);
  if (last?.of === of) return last.fit;
  const fit = fitArrhenius(thinFilmPoints(resin), `gel time of ${resin.name}`);
  known.set(resin.gelPoints, { of, fit });
  return fit;
}

/** Rounds in which slope and times of a pot life are brought to agree. */
const ROUNDS = 4;
const HALVINGS = 24;
/** Rise, K, past which the curve is not followed further up: a pot so hot gels within moments. */
const HOTTEST = 120;

/**
 * The gel points as a thin film has them. A pot life is shorter, for the pot warms itself: the isothermal time is the one with
 * which the heat balance of the pot gels at the stated time.
 */
function thinFilmPoints(resin: ResinSystem): CurvePoint[] {
  const stated = resin.gelPoints.map(({ temperature, time }) => ({ temperature, value: time }));
  const mass = resin.gelMass ?? 0;
  if (!(mass > 0)) return stated;
  const heat = heatOf(resin);
  const potLife = (film: number, at: number, energy: number): number => {
    const rate = (_: number, temperature: number) =>
      Math.exp((energy / GAS_CONSTANT) * (1 / at - 1 / Math.min(temperature, at + HOTTEST))) / film;
    let gelled = 0;
    for (const { time } of potSteps({
      mass,
      density: resin.density,
      start: at,
      ambient: () => at,
      heat,
      rate,
    }))
      gelled = time;
    return gelled;
  };
  let points = stated;
  for (let round = 0; round < ROUNDS; round++) {
    const { activationEnergy } = fitArrhenius(points, `gel time of ${resin.name}`);
    points = stated.map(({ temperature, value }) => {
      let [low, high] = [value, 2 * value];
      while (potLife(high, temperature, activationEnergy) < value) [low, high] = [high, 2 * high];
      for (let i = 0; i < HALVINGS; i++) {
        const middle = Math.sqrt(low * high);
        if (potLife(middle, temperature, activationEnergy) < value) low = middle;
        else high = middle;
      }
      return { temperature, value: high };
    });
  }
  return points;
}
