import { computed } from 'vue';
import { useForecastStore } from '../state/forecast-store.ts';
import { bandsOf, type Band } from './bands.ts';

/** Bands of the current forecast, up to the last corner or gel. */
export function useBands() {
  const forecast = useForecastStore();
  return computed<Band[]>(() => {
    const { flow, isochrones, run, clock, verdict, timeOf, fluidityAt } = forecast;
    if (!flow || !isochrones || !run || !clock) return [];
    const last = verdict && Number.isFinite(verdict.fillTime) ? verdict.fillTime : timeOf(flow.fillTime);
    const endTime = Number.isFinite(last) ? last : clock.gelTime;
    return bandsOf({ flow, isochrones, openTime: run.openTime, endTime, fluidityAt });
  });
}
