import { useForecast } from '../../compute/use-desk.ts';
import { valueAt } from '@wick/core/flow/probe';
import type { Point } from '@wick/core/geometry/polygon';
import { formatClock } from '@wick/core/units/format';
import { computed } from 'vue';
import { pressureAt } from '../../board/fields.ts';
import { useShopStore } from '../../data/shop-store.ts';

/** What the forecast says of the place under the pointer: when wet, how old the resin, its pressure, the lag there. */
export function useReading(hover: () => Point | null, isReading: () => boolean, minute: () => number | null) {
  const forecast = useForecast();
  const shop = useShopStore();
  return computed(() => {
    const { flow } = forecast;
    const at = hover();
    if (!at || !flow || !isReading()) return null;
    const read = (values: ArrayLike<number>) => valueAt(flow.mesh, values, at);
    const arrival = read(flow.arrival);
    const place = `${shop.show(at.x, 'length')}, ${shop.show(at.y, 'length')}`;
    if (Number.isNaN(arrival)) return flow.isFilled ? null : { place, text: 'stays dry' };
    const time = forecast.timeOf(arrival);
    const words = [Number.isFinite(time) ? `wet at ${formatClock(time)}` : 'not before gel'];
    const age = flow.ageAtArrival ? read(flow.ageAtArrival) : forecast.clock?.ageAt(time);
    if (Number.isFinite(time) && age !== undefined)
      words.push(`${Math.round(100 * age)} % of the resin’s life used`);
    const frame = pressureAt(flow, minute() === null ? NaN : forecast.runTimeAt(minute()!));
    if (frame)
      words.push(`${shop.show(read(frame), 'absolutePressure')} ${minute() === null ? 'at the end' : 'now'}`);
    if (flow.lag) {
      const lag = forecast.timeOf(arrival) - forecast.timeOf(read(flow.layers[0]!.arrival));
      if (Number.isFinite(lag)) words.push(`mould side ${formatClock(Math.max(0, lag))} after the bag side`);
    }
    return { place, text: words.join(' · ') };
  });
}
