import { faultsOf } from '@wick/core/mix/schedule';
import { orNull } from '@wick/core/model-error';
import { batchesOf } from '@wick/plan/resin/batches';
import { drawOf } from '@wick/plan/resin/draw';
import { scheduleRequestOf } from '@wick/plan/resin/suggest';
import { computed } from 'vue';
import { atRest } from './at-rest.ts';
import type { Desk } from './desk.ts';
import type { Forecast } from './forecast.ts';

/** What each pot has to give by the forecast that is shown, and what is wrong with the batches as they are set; worked out while the hand rests. */
export function createDraw({ session, shop }: Desk, forecast: Forecast) {
  const isHeld = () => session.isGesturing;
  const draw = atRest(
    isHeld,
    () => forecast.flow.value && orNull(() => drawOf(session.laid, shop.shop, forecast.flow.value!)),
    null,
  );
  const request = computed(() => {
    const { value } = draw;
    const run = forecast.run.value;
    return value && run && orNull(() => scheduleRequestOf(session.laid, shop.shop, value, run));
  });
  const batches = computed(() =>
    batchesOf(session.laid, shop.shop, draw.value && draw.value.pots.map(({ total }) => total)),
  );
  const faults = atRest(isHeld, () => (request.value ? faultsOf(request.value, batches.value) : []), []);
  return { draw, request, batches, faults };
}
