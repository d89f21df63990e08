import { checkLayout, type RuleBreak } from '@wick/plan/layout/checks';
import { atRest } from './at-rest.ts';
import type { Desk } from './desk.ts';
import type { Forecast } from './forecast.ts';

/** Rules that the open layout breaks; while a hand drags, those of before the drag. */
export function createChecks({ session, shop }: Desk, forecast: Forecast) {
  const breaks = atRest(
    () => session.isGesturing,
    () => {
      const flow = forecast.isUpToDate.value ? forecast.flow.value : null;
      return checkLayout(session.laid, { shop: shop.shop, flow, show: shop.show });
    },
    [] as readonly RuleBreak[],
  );
  return { breaks };
}
