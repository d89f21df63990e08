import { useForecast } from '../../compute/use-desk.ts';
import { computed } from 'vue';
import { bandsOf, type Band } from '../../board/bands.ts';

/** Bands of the current forecast, up to the last corner or gel. */
export function useBands() {
  const forecast = useForecast();
  return computed<Band[]>(() => {
    const { flow, arrival, isochrones, run, clock, verdict, timeOf, runTimeAt } = forecast;
    if (!flow || !arrival || !isochrones || !run || !clock) return [];
    const last = verdict && Number.isFinite(verdict.fillTime) ? verdict.fillTime : timeOf(flow.fillTime);
    const endTime = Number.isFinite(last) ? last : clock.gelTime;
    return bandsOf({ mesh: flow.mesh, arrival, isochrones, openTime: run.openTime, endTime, runTimeAt });
  });
}
