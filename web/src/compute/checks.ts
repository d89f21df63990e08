import { checkLayout, type RuleBreak } from '@wick/plan/layout/checks';
import { checkStack } from '@wick/plan/stack/checks';
import type { StackBreak } from '@wick/plan/stack/rule';
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

/** What is wrong with the stack that is open; while a hand drags, that of before the drag. */
export function createStackChecks({ session, shop, library }: Desk, forecast: Forecast) {
  const breaks = atRest(
    () => session.isGesturing,
    () => {
      const isNow = forecast.isUpToDate.value;
      return checkStack(session.laid, {
        shop: shop.shop,
        materials: library.materials,
        flow: isNow ? forecast.flow.value : null,
        verdict: isNow ? forecast.verdict.value : null,
        show: shop.show,
      });
    },
    [] as readonly StackBreak[],
  );
  return { breaks };
}
