import { partsAfter } from '@wick/core/vacuum/drop-test';
import type { RiseReadings } from '@wick/core/vacuum/rise';
import type { DropReading } from '@wick/plan/vacuum/drop-test';
import type { ChartCurve } from '../../ui/curve/curve.ts';

const PLACES = 81;

/**
 * What was measured, and what of it is leak and what is moisture, each a curve of its own.
 * @param from ms since 1970, when the bag was shut  @param shown in the unit of the chart, of Pa
 */
export function dropCurves(
  { times, pressures }: RiseReadings,
  drop: DropReading | null,
  from: number,
  shown: (pressure: number) => number,
): ChartCurve[] {
  const at = (time: number) => from + time * 1000;
  const measured: ChartCurve = {
    ...{ id: 'measured', kind: 'measured', label: 'measured' },
    ats: Array.from(times, at),
    values: Array.from(pressures, shown),
  };
  if (!drop || times.length < 2) return [measured];
  const [first, last] = [times[0]!, times[times.length - 1]!];
  const places = Array.from({ length: PLACES }, (_, n) => first + ((last - first) * n) / (PLACES - 1));
  const parts = places.map((time) => partsAfter(drop.rise, time));
  const { start } = drop.rise;
  const curve = (
    kind: ChartCurve['kind'],
    label: string,
    of: (part: (typeof parts)[number]) => number,
  ): ChartCurve => ({
    ...{ id: kind, kind, label },
    ats: places.map(at),
    values: parts.map((part) => shown(start + of(part))),
  });
  return [
    measured,
    curve('sum', 'both together', ({ leak, moisture }) => leak + moisture),
    curve('leak', 'leak: goes on straight', ({ leak }) => leak),
    curve('moisture', 'moisture: flattens', ({ moisture }) => moisture),
  ];
}
