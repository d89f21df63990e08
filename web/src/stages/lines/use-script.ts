import { useForecast, useSession } from '../../compute/use-desk.ts';
import { valveScript, type ScriptStep } from '@wick/plan/layout/valve-script';
import { computed } from 'vue';
import { useShopStore } from '../../data/shop-store.ts';

/** The valve turns of the open layout with the minutes the forecast comes to. */
export function useScript() {
  const job = useSession();
  const shop = useShopStore();
  const forecast = useForecast();
  return computed<ScriptStep[]>(() =>
    valveScript(job.laid, forecast.flow, { clockTime: forecast.timeOf, show: shop.show }),
  );
}
