import { createIsochrones, type Rings } from '@wick/core/flow/isochrones';
import type { FlowForecast } from '@wick/core/flow/forecast';
import type { QuantityName } from '@wick/core/units/quantities';
import { fromUnit, toUnit } from '@wick/core/units/format';
import { deepening, resinColour } from '../ui/theme.ts';
import { niceStep } from './viewport.ts';

export type ViewId = 'front' | 'pressure' | 'lag' | 'thickness' | 'fraction' | 'age';

/** Something the board can show over the plan besides the front. */
export interface FieldView {
  readonly id: Exclude<ViewId, 'front'>;
  readonly name: string;
  readonly quantity: QuantityName;
  readonly colour: (share: number) => string;
  /** What the forecast has to be made with for it, said where it is missing. */
  readonly needs: string;
  /** Values a mesh node at a run time (NaN: the end); null where this forecast does not tell. */
  values(
    flow: FlowForecast,
    time: number,
    /** Share of the resin's life used at a run time; null without a resin. */
    ageAt: ((time: number) => number) | null,
  ): ArrayLike<number> | null;
}

const tide = (share: number) => deepening([20, 82, 92], share);
const moss = (share: number) => deepening([44, 84, 60], share);

export const fieldViews: readonly FieldView[] = [
  {
    id: 'pressure',
    name: 'Pressure',
    needs: 'no run yet',
    quantity: 'absolutePressure',
    colour: tide,
    values: pressureAt,
  },
  {
    id: 'lag',
    name: 'Lag of the mould side',
    needs: 'needs layers: under Doubt',
    quantity: 'length',
    colour: resinColour,
    values: (flow) => flow.lag?.length ?? null,
  },
  {
    id: 'thickness',
    name: 'Final thickness',
    needs: 'needs a laminate that gives: under Doubt',
    quantity: 'thickness',
    colour: moss,
    values: (flow) => flow.final?.thickness ?? null,
  },
  {
    id: 'fraction',
    name: 'Final fibre volume',
    needs: 'needs a laminate that gives: under Doubt',
    quantity: 'fraction',
    colour: moss,
    values: (flow) => flow.final?.fraction ?? null,
  },
  {
    id: 'age',
    name: 'Resin’s life used on arrival',
    needs: 'needs a resin',
    quantity: 'fraction',
    colour: resinColour,
    values: (flow, _, ageAt) =>
      flow.ageAtArrival ?? (ageAt && flow.arrival.map((time) => (Number.isNaN(time) ? NaN : ageAt(time)))),
  },
];

/** Pressure at the frame nearest to a run time; the last one when no time is given. */
export function pressureAt({ frames }: FlowForecast, time: number): Float32Array | null {
  if (frames.length === 0) return null;
  if (Number.isNaN(time)) return frames[frames.length - 1]!.pressure;
  return frames.reduce((near, frame) =>
    Math.abs(frame.time - time) < Math.abs(near.time - time) ? frame : near,
  ).pressure;
}

export interface FieldBand {
  readonly from: number;
  readonly rings: Rings;
  readonly colour: string;
}

/** About so many bands; their edges lie on round values of the unit shown. */
const BANDS = 8;
/** Spread below which a field is one value, as a share of it: less than could be measured. */
const FLAT = 3e-3;

/** Areas of values below rising levels, largest first; the scale runs from the least to the greatest value, spikes cut off. */
export function fieldBands(
  flow: Pick<FlowForecast, 'mesh'>,
  values: ArrayLike<number>,
  { colour, quantity }: Pick<FieldView, 'colour' | 'quantity'>,
  unit?: string,
): FieldBand[] {
  const known = Float64Array.from(values);
  const sorted = known.filter((v) => !Number.isNaN(v)).sort();
  if (sorted.length === 0) return [];
  const low = sorted[Math.floor(0.01 * sorted.length)]!;
  const high = sorted[Math.floor(0.98 * (sorted.length - 1))]!;
  const contours = createIsochrones(flow.mesh, known);
  if (!(high - low > FLAT * Math.abs(high)))
    return [{ from: low, rings: contours.wetBy(Infinity), colour: colour(0.4) }];
  const levels = roundLevels(toUnit(low, quantity, unit), toUnit(high, quantity, unit)).map((level) =>
    fromUnit(level, quantity, unit),
  );
  return levels
    .map((from, k) => ({
      from,
      rings: contours.wetBy(levels[k + 1] ?? Infinity),
      colour: colour(k / Math.max(1, levels.length - 1)),
    }))
    .reverse();
}

/** Round values from at or below the least to below the greatest. */
function roundLevels(low: number, high: number): number[] {
  const step = niceStep(high - low, BANDS);
  const first = Math.floor(low / step + 1e-9);
  const count = Math.max(1, Math.ceil(high / step - 1e-9) - first);
  // Counted, not added up: 3 x 0.1 is to read 0.3.
  return Array.from({ length: count }, (_, k) => Number(((first + k) * step).toPrecision(12)));
}
