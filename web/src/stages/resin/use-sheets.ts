import { mixSheetOf } from '@wick/plan/resin/sheet';
import { computed, type Ref } from 'vue';
import { useRoute, useRouter } from 'vue-router';
import { useSession } from '../../compute/use-desk.ts';
import { useShopStore } from '../../data/shop-store.ts';
import type { ResinBench } from './bench.ts';

/** The batch that is looked at stands in the address, so that a code on paper leads to it. */
export function useSheets(bench: Pick<ResinBench, 'batches' | 'pots'>) {
  const job = useSession();
  const shop = useShopStore();
  const route = useRoute();
  const router = useRouter();
  const number = computed(() => {
    const asked = Math.round(Number(route.query.batch ?? 1));
    return Math.max(1, Math.min(bench.batches.length, asked >= 1 ? asked : 1));
  });
  const look = (to: number) =>
    void router.replace({ query: { ...route.query, batch: to === 1 ? undefined : to } });
  const sheet = computed(() => mixSheetOf(job.laid, shop.shop, bench.batches, number.value - 1));
  const potName = computed(() =>
    sheet.value && bench.pots.length > 1 ? bench.pots[sheet.value.batch.pot]!.name : 'the pot',
  );
  const link: Ref<string> = computed(() => `${location.origin}/jobs/${job.id}/mix?batch=${number.value}`);
  return { number, look, sheet, potName, link };
}
