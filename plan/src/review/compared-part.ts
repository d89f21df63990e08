import {
  contentsFromBurnOff,
  fractionFromThickness,
  fractionFromWeight,
} from '@wick/core/laminate/fibre-fraction';
import { orNull } from '@wick/core/model-error';
import { NINE_IN_TEN } from '@wick/core/verdict/verdict';
import type { LaidJob } from '../job/laid.ts';
import { isOf, type RunState } from '../run/state.ts';
import { around, compared, percent, wide, type Compared } from './compared.ts';
import type { PlannedPart } from './planned-part.ts';

/** Scales and gauges of a workshop, standard deviations: share of a weight, m, fraction. Common practice, no source. */
export const SCALE = 0.01;
const GAUGE = 0.00005;
const BURN_OFF = 0.01;
/** From this share below its plan a part is starved, and as far above it rich. Common practice, no source. */
const TELLING = 0.08;

/** "21 % lighter than planned: starved." */
export const weightWords = (off: 'low' | 'high', share: number): string =>
  off === 'low'
    ? `${percent(share)} lighter than planned${Math.abs(share) > TELLING ? ': starved, unless it was cut smaller' : ''}.`
    : `${percent(share)} heavier than planned${Math.abs(share) > TELLING ? ': rich, bridged, or with more than the plan on the scale' : ''}.`;
const fractionWords = (off: 'low' | 'high', share: number): string =>
  off === 'high'
    ? `${percent(share)} more fibre to the volume than planned: drier.`
    : `${percent(share)} less fibre to the volume than planned: richer in resin.`;
/** Weight, thickness and coupons of a part, with the fibre volume that follows. @param part null where the laminate does not tell yet */
export const comparedPart = (
  job: LaidJob,
  state: Pick<RunState, 'entries'>,
  part: PlannedPart | null,
): Compared[] => [...weightsOf(state, part), ...thicknessesOf(job, state, part), ...burnOffsOf(state, part)];

function weightsOf({ entries }: Pick<RunState, 'entries'>, part: PlannedPart | null): Compared[] {
  return entries
    .filter(isOf('weighed'))
    .filter(({ body }) => body.what === 'part')
    .slice(-1)
    .flatMap(({ id, body: { mass, flange, isTrimmed } }) => {
      // With its flange on it weighs more than the plan by what nobody has drawn.
      const isAlike = flange !== 'on' && isTrimmed;
      const planned = part && isAlike ? around(part.mass, part.doubt) : null;
      const as = `${flange === null ? '' : `, flange ${flange}`}${isTrimmed ? ', trimmed' : ', not trimmed'}`;
      const weight = compared({
        ...{ id: `weight ${id}`, group: 'part', name: `Weight${as}`, quantity: 'mass' },
        ...{ planned, measured: mass, doubt: SCALE * mass, means: weightWords },
      });
      const said = isAlike
        ? weight
        : { ...weight, means: 'Trim it, weigh it without its flange: then it can be held against the plan.' };
      const fraction =
        part && isAlike
          ? orNull(() =>
              fractionFromWeight({ laminate: mass - part.core, fibre: part.fibre }, part.densities),
            )
          : null;
      if (part && isAlike && fraction === null)
        return [
          { ...said, means: 'It weighs no more than its fibre and core: check what was on the scale.' },
        ];
      if (!part || fraction === null) return [said];
      const onFraction = (fraction * (1 - fraction) * SCALE * mass) / Math.max(1e-9, mass - part.core);
      return [
        said,
        compared({
          ...{ id: `fraction ${id}`, group: 'part', name: 'Fibre volume, by weight', quantity: 'fraction' },
          planned: wide(part.fraction, part.scatter),
          ...{ measured: fraction, doubt: Math.hypot(onFraction, 0.03 * fraction), means: fractionWords },
        }),
      ];
    });
}

function thicknessesOf(
  job: LaidJob,
  { entries }: Pick<RunState, 'entries'>,
  part: PlannedPart | null,
): Compared[] {
  return entries.filter(isOf('gauged')).flatMap(({ id, body: { x, y, thickness } }, n) => {
    const place = part?.at({ x, y }) ?? null;
    const core = place ? place.thickness - place.plies : 0;
    const planned =
      place && part
        ? {
            early: core + place.plies * Math.exp(-NINE_IN_TEN * part.scatter),
            middle: place.thickness,
            late: core + place.plies * Math.exp(NINE_IN_TEN * part.scatter),
          }
        : null;
    const row = compared({
      ...{ id: `thickness ${id}`, group: 'part', name: `Thickness at place ${n + 1}`, quantity: 'thickness' },
      ...{ planned, measured: thickness, doubt: GAUGE },
      means: (off, share) =>
        off === 'low'
          ? `${percent(share)} thinner: pressed or bled drier.`
          : `${percent(share)} thicker: not pressed home, bridged, or rich.`,
    });
    if (!place || core > 0 || !part) return [row];
    const arealWeight = place.book.laminate.plies.reduce((sum, { materialId }) => {
      const fabric = job.materials.find((one) => one.id === materialId);
      return sum + (fabric?.kind === 'fabric' ? fabric.arealWeight : 0);
    }, 0);
    const fraction = orNull(() => fractionFromThickness(arealWeight, part.densities.fibre, thickness));
    if (fraction === null || !(fraction < 1))
      return [
        { ...row, means: 'Thinner than its fibre alone: check the gauge, or which laminate is there.' },
      ];
    return [
      row,
      compared({
        ...{
          id: `fraction ${id}`,
          group: 'part',
          name: `Fibre volume at place ${n + 1}`,
          quantity: 'fraction',
        },
        planned: wide(place.fraction, part.scatter),
        ...{ measured: fraction, doubt: (fraction * GAUGE) / thickness, means: fractionWords },
      }),
    ];
  });
}

function burnOffsOf({ entries }: Pick<RunState, 'entries'>, part: PlannedPart | null): Compared[] {
  return entries.filter(isOf('burned')).flatMap(({ id, body }, n) => {
    const contents = part && orNull(() => contentsFromBurnOff(body, part.densities));
    if (!part || !contents) return [];
    const name = `coupon ${n + 1}, ${body.how === 'burned' ? 'burned off' : 'dissolved'}`;
    return [
      compared({
        ...{ id: `burn ${id}`, group: 'part', name: `Fibre volume, ${name}`, quantity: 'fraction' },
        planned: wide(part.fraction, part.scatter),
        ...{ measured: contents.fibre, doubt: BURN_OFF, means: fractionWords },
      }),
      compared({
        ...{ id: `voids ${id}`, group: 'part', name: `Voids, ${name}`, quantity: 'fraction' },
        ...{ planned: { early: 0, middle: 0.01, late: 0.02 }, measured: contents.voids, doubt: BURN_OFF },
        means: (off) =>
          off === 'high'
            ? 'More voids than a laminate should hold.'
            : 'Less than nothing: check the densities.',
      }),
    ];
  });
}
