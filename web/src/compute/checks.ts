import { checkLayout, type RuleBreak } from '@wick/plan/layout/checks';
import { computed } from 'vue';
import type { Desk } from './desk.ts';
import type { Forecast } from './forecast.ts';

/** Rules that the open layout breaks; while a hand drags, those of before the drag. */
export function createChecks({ session, shop }: Desk, forecast: Forecast) {
  let last: readonly RuleBreak[] = [];
  const breaks = computed<readonly RuleBreak[]>(() => {
    if (session.isGesturing) return last;
    const flow = forecast.isUpToDate.value ? forecast.flow.value : null;
    last = checkLayout(session.laid, { shop: shop.shop, flow, show: shop.show });
    return last;
  });
  return { breaks };
}
