import { hashOf } from '@wick/plan/forecast/key';
import type { Suggestion } from '@wick/plan/resin/suggest';
import { computed, onScopeDispose, shallowRef, watch } from 'vue';
import { Cancelled } from '../../compute/scheduler.ts';
import { useForecast, useScheduler, useSession } from '../../compute/use-desk.ts';
import { useLibraryStore } from '../../data/library-store.ts';
import { useShopStore } from '../../data/shop-store.ts';

/** Batches that would do, or what stands in their way: worked out beside the screen while the hand rests. */
export function useSuggestion(isHeld: () => boolean) {
  const job = useSession();
  const shop = useShopStore();
  const library = useLibraryStore();
  const forecast = useForecast();
  const scheduler = useScheduler();
  const suggestion = shallowRef<Suggestion | null>(null);
  let wanted = new AbortController();
  onScopeDispose(() => wanted.abort());

  const request = computed(() => {
    const { flow } = forecast;
    if (!flow || isHeld() || !forecast.isUpToDate) return null;
    const { timeUnit, isFilled, samples, vented, resinAtEnd } = flow;
    return {
      ...{ job: job.laid, shop: shop.shop, library: library.ofKind('resin') },
      flow: { timeUnit, isFilled, samples, vented, resinAtEnd },
    };
  });
  watch(
    request,
    async (asked) => {
      if (!asked) return;
      wanted.abort();
      wanted = new AbortController();
      const { job: own, shop: at, library: resins, flow } = asked;
      const key = `batches ${hashOf([own, at, resins, flow.samples.at(-1), flow.timeUnit])}`;
      try {
        suggestion.value = await scheduler.want(
          key,
          { kind: 'batches', ...asked },
          { lane: 'advice', signal: wanted.signal },
        );
      } catch (error) {
        if (!(error instanceof Cancelled)) suggestion.value = null;
      }
    },
    { immediate: true },
  );
  return suggestion;
}
