import type { Shop } from '@wick/contract/shop';
import { NINETEEN_IN_TWENTY } from '@wick/core/verdict/rule';
import { NINE_IN_TEN } from '@wick/core/verdict/verdict';
import type { Minutes } from '../infusion/reforecast.ts';
import { infusionOf } from '../infusion/infusion.ts';
import type { LaidJob } from '../job/laid.ts';
import { ledgerOf } from '../resin/ledger.ts';
import { isOf, type RunState } from '../run/state.ts';
import { settle } from '../settle.ts';
import { around, compared, wide, type Compared } from './compared.ts';
import { comparedPart, SCALE } from './compared-part.ts';
import type { FillReview } from './fill-review.ts';
import { plannedPartOf, type PlannedPart } from './planned-part.ts';

/** s by which somebody is late with a word. */
const LATE = 15;
/** K by which a thermometer on a mould is off. */
const THERMOMETER = 1;

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
    ...comparedPart(job, state, part),
    ...(fill ? timesOf(job, fill) : []),
    ...resinOf(job, shop, state, part),
    ...leaksOf(state),
    ...curesOf(job, shop, state, fill),
  ];
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

function resinOf(
  job: LaidJob,
  shop: Shop,
  state: Pick<RunState, 'entries'>,
  part: PlannedPart | null,
): Compared[] {
  const ledger = ledgerOf(job, shop);
  const { poured, potLeft } = infusionOf(state, job);
  const mixed = poured.reduce((sum, { mass }) => sum + mass, 0);
  const left =
    state.entries.filter(isOf('weighed')).findLast(({ body }) => body.what === 'resinLeft')?.body.mass ??
    potLeft.at(-1)?.mass ??
    null;
  if (!ledger || mixed === 0) return [];
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
        doubt: Math.abs(throughput.high - throughput.low) / (2 * NINETEEN_IN_TWENTY),
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
