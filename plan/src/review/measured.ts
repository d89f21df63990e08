import type { Shop } from '@wick/contract/shop';
import {
  contentsFromBurnOff,
  fractionFromThickness,
  fractionFromWeight,
} from '@wick/core/laminate/fibre-fraction';
import { orNull } from '@wick/core/model-error';
import type { QuantityName } from '@wick/core/units/quantities';
import { NINE_IN_TEN } from '@wick/core/verdict/verdict';
import type { Minutes } from '../infusion/reforecast.ts';
import { infusionOf } from '../infusion/infusion.ts';
import type { LaidJob } from '../job/laid.ts';
import { ledgerOf } from '../resin/ledger.ts';
import { isOf, type RunState } from '../run/state.ts';
import { settle } from '../settle.ts';
import type { FillReview } from './fill-review.ts';
import { plannedPartOf, type PlannedPart } from './planned-part.ts';

export type ComparedGroup = 'part' | 'fill' | 'resin' | 'vacuum' | 'cure';

/** One figure as planned and as measured, SI. */
export interface Compared {
  readonly id: string;
  readonly group: ComparedGroup;
  readonly name: string;
  readonly quantity: QuantityName;
  /** What nine in ten parts lie above and below; null where nothing was planned. */
  readonly planned: Minutes | null;
  readonly measured: number;
  /** Standard deviation of the measuring. */
  readonly doubt: number;
  /** Within what was planned, the doubt of the measuring counted in; null where it cannot be told. */
  readonly isInside: boolean | null;
  /** What that means, in the trade's words; empty where there is nothing to say. */
  readonly means: string;
}

/** Scales and gauges of a workshop, standard deviations. Common practice, no source. */
const SCALE = 0.01;
const GAUGE = 0.00005;
const BURN_OFF = 0.01;
/** s by which somebody is late with a word. */
const LATE = 15;
/** K by which a thermometer on a mould is off. */
const THERMOMETER = 1;
/** From this share below its plan a part is starved, and as far above it rich. Common practice, no source. */
const TELLING = 0.08;

const around = (middle: number, deviation: number): Minutes => ({
  early: middle - NINE_IN_TEN * deviation,
  middle,
  late: middle + NINE_IN_TEN * deviation,
});
const wide = (middle: number, logDeviation: number): Minutes => ({
  early: middle * Math.exp(-NINE_IN_TEN * logDeviation),
  middle,
  late: middle * Math.exp(NINE_IN_TEN * logDeviation),
});

function compared(
  of: Omit<Compared, 'isInside' | 'means'> & {
    readonly means?: (off: 'low' | 'high', share: number) => string;
  },
): Compared {
  const { planned, measured, doubt, means, ...rest } = of;
  const slack = NINE_IN_TEN * doubt;
  const isLow = planned !== null && measured < planned.early - slack;
  const isHigh = planned !== null && measured > planned.late + slack;
  const share = planned ? measured / planned.middle - 1 : 0;
  return {
    ...{ ...rest, planned, measured, doubt },
    isInside: planned === null ? null : !isLow && !isHigh,
    means: (isLow && means?.('low', share)) || (isHigh && means?.('high', share)) || '',
  };
}

const percent = (share: number) => `${Math.round(100 * Math.abs(share))} %`;
/** "21 % lighter than planned: starved." */
export const weightWords = (off: 'low' | 'high', share: number): string =>
  off === 'low'
    ? `${percent(share)} lighter than planned${Math.abs(share) > TELLING ? ': starved, unless it was cut smaller' : ''}.`
    : `${percent(share)} heavier than planned${Math.abs(share) > TELLING ? ': rich, bridged, or with more than the plan on the scale' : ''}.`;
const fractionWords = (off: 'low' | 'high', share: number): string =>
  off === 'high'
    ? `${percent(share)} more fibre to the volume than planned: drier.`
    : `${percent(share)} less fibre to the volume than planned: richer in resin.`;
const lateWords = (off: 'low' | 'high'): string =>
  off === 'low' ? 'Earlier than nine in ten of the forecast.' : 'Later than nine in ten of the forecast.';

/** Everything that was measured of a part, beside its plan: what nobody measured is left out. @param fill null where none was seen */
export function comparedOf(
  job: LaidJob,
  shop: Shop,
  state: Pick<RunState, 'entries' | 'shutTimes'>,
  fill: FillReview | null,
): Compared[] {
  const part = plannedPartOf(job, shop);
  return [
    ...weightsOf(state, part),
    ...thicknessesOf(job, state, part),
    ...burnOffsOf(state, part),
    ...(fill ? timesOf(job, fill) : []),
    ...resinOf(job, shop, state),
    ...leaksOf(state),
    ...curesOf(job, shop, state, fill),
  ];
}

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

function timesOf(job: LaidJob, fill: FillReview): Compared[] {
  const time = (id: string, name: string, planned: Minutes, measured: number): Compared =>
    compared({
      ...{ id, group: 'fill', name, quantity: 'duration', planned, measured, doubt: LATE, means: lateWords },
    });
  return [
    ...(fill.wetAt === null ? [] : [time('fill', 'All wet', fill.planned.last, fill.wetAt)]),
    ...fill.marks.map(({ planned, seen }, n) =>
      time(`mark ${n + 1}`, `Front at mark ${n + 1}`, planned, seen),
    ),
    ...fill.turns.flatMap(({ lineId, actionId, planned, done }) =>
      done === null
        ? []
        : [
            time(
              `turn ${actionId}`,
              `${job.lines.find(({ id }) => id === lineId)?.name ?? 'A line'} turned`,
              planned,
              done,
            ),
          ],
    ),
  ];
}

function resinOf(job: LaidJob, shop: Shop, state: Pick<RunState, 'entries'>): Compared[] {
  const ledger = ledgerOf(job, shop);
  const { poured, potLeft } = infusionOf(state, job);
  const mixed = poured.reduce((sum, { mass }) => sum + mass, 0);
  const left =
    state.entries.filter(isOf('weighed')).findLast(({ body }) => body.what === 'resinLeft')?.body.mass ??
    potLeft.at(-1)?.mass ??
    null;
  if (!ledger || mixed === 0) return [];
  const part = plannedPartOf(job, shop);
  const doubt = part?.doubt ?? 0.05 * ledger.drawn;
  return [
    compared({
      ...{ id: 'mixed', group: 'resin', name: 'Resin mixed', quantity: 'mass', measured: mixed },
      ...{ planned: around(ledger.total, 0.02 * ledger.total), doubt: SCALE * mixed },
      means: (off) => (off === 'low' ? 'Less than the plan asks for.' : 'More than the plan asks for.'),
    }),
    ...(left === null
      ? []
      : [
          compared({
            ...{ id: 'drawn', group: 'resin', name: 'Resin drawn', quantity: 'mass' },
            ...{ planned: around(ledger.drawn, doubt), measured: mixed - left, doubt: SCALE * mixed },
            means: (off: 'low' | 'high') =>
              off === 'low'
                ? 'Less went in than the laminate asks for: a part of it stayed dry, or is pressed drier.'
                : 'More went in than the laminate asks for: into the vents, under a bridge, or into thickness.',
          }),
        ]),
  ];
}

const leaksOf = ({ shutTimes }: Pick<RunState, 'shutTimes'>): Compared[] =>
  shutTimes
    .filter(({ judged }) => judged !== null)
    .slice(-1)
    .map(({ judged, id }) => {
      const { throughput, throughputLimit } = judged!;
      return compared({
        ...{ id: `leak ${id}`, group: 'vacuum', name: 'Let in by the bag', quantity: 'throughput' },
        planned: { early: -Infinity, middle: throughputLimit, late: throughputLimit },
        measured: throughput.value,
        doubt: Math.abs(throughput.high - throughput.low) / (2 * 1.96),
        means: () => 'More than this part can take.',
      });
    });

function curesOf(
  job: LaidJob,
  shop: Shop,
  { entries }: Pick<RunState, 'entries'>,
  fill: FillReview | null,
): Compared[] {
  const planned = job.resin.mouldTemperature ?? settle(job, shop)['resin.temperature'].value;
  const told = entries.filter(isOf('warmth')).map(({ body }) => body.temperature);
  const mean = told.reduce((sum, temperature) => sum + temperature, 0) / told.length;
  const doubt = settle(job, shop)['doubt.temperature'].value / NINE_IN_TEN;
  const gelled = entries.filter(isOf('gelled')).find(({ body }) => body.where !== 'pot');
  return [
    ...(told.length === 0
      ? []
      : [
          compared({
            ...{ id: 'warmth', group: 'cure', name: 'Temperature where it lay', quantity: 'temperature' },
            ...{ planned: around(planned, doubt), measured: mean, doubt: THERMOMETER },
            means: (off: 'low' | 'high') => (off === 'low' ? 'Colder than planned.' : 'Warmer than planned.'),
          }),
        ]),
    ...(gelled && fill
      ? [
          compared({
            ...{ id: 'gel', group: 'cure', name: 'Gel', quantity: 'duration' },
            planned: wide(
              fill.clock.clock.gelTime,
              Math.log(settle(job, shop)['doubt.gelTime'].value) / NINE_IN_TEN,
            ),
            measured: (Date.parse(gelled.at) - fill.clock.zero) / 1000,
            ...{ doubt: 120, means: lateWords },
          }),
        ]
      : []),
  ];
}
