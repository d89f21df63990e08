import { checkLayout, type RuleBreak } from '@wick/contract/layout-rules';
import { defineStore } from 'pinia';
import { computed } from 'vue';
import { useForecastStore } from './forecast-store.ts';
import { useJobStore } from './job-store.ts';
import { useShopStore } from './shop-store.ts';

/** Rules that the open layout breaks; while a hand drags, those of before the drag. */
export const useChecksStore = defineStore('checks', () => {
  const job = useJobStore();
  const shop = useShopStore();
  const forecast = useForecastStore();
  let last: readonly RuleBreak[] = [];

  const breaks = computed<readonly RuleBreak[]>(() => {
    if (!job.document) return (last = []);
    if (job.isGesturing) return last;
    const flow = forecast.isUpToDate ? forecast.flow : null;
    last = checkLayout(job.document, { shop: shop.shop, flow, show: shop.show });
    return last;
  });

  return { breaks };
});
