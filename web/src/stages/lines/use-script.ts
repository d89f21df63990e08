import { valveScript, type ScriptStep } from '@wick/contract/valve-script';
import { computed } from 'vue';
import { useForecastStore } from '../../state/forecast-store.ts';
import { useJobStore } from '../../state/job-store.ts';
import { useShopStore } from '../../state/shop-store.ts';

/** The valve turns of the open layout with the minutes the forecast comes to. */
export function useScript() {
  const job = useJobStore();
  const shop = useShopStore();
  const forecast = useForecastStore();
  return computed<ScriptStep[]>(() =>
    job.document
      ? valveScript(job.document, forecast.flow, { clockTime: forecast.timeOf, show: shop.show })
      : [],
  );
}
