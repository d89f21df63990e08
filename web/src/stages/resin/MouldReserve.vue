<script setup lang="ts">
import { withResin } from '@wick/plan/job/edits';
import { mouldWords, reserveFor } from '@wick/plan/review/mould-learning';
import Button from 'ant-design-vue/es/button';
import { computed } from 'vue';
import { useSession } from '../../compute/use-desk.ts';
import { useMouldStore } from '../../data/mould-store.ts';
import { useShopStore } from '../../data/shop-store.ts';

/** What parts on this mould drew over their plan, and the reserve that follows. */
const job = useSession();
const moulds = useMouldStore();
const shop = useShopStore();
if (!moulds.moulds) void moulds.load();
const mould = computed(() => moulds.find(job.laid.mould?.id)?.mould ?? null);
const share = computed(() => mould.value && reserveFor(mould.value));
const isTaken = computed(() => {
  const { reserve } = job.laid.resin;
  return share.value === 0 ? reserve === null : reserve?.kind === 'share' && reserve.share === share.value;
});
const take = (own: number) =>
  job.apply(withResin({ reserve: own === 0 ? null : { kind: 'share', share: own } }), 'reserve');
</script>

<template>
  <p v-if="share !== null" class="quiet learned" data-testid="mould-reserve">
    {{ mouldWords(mould!, 'drawn') }}: nine in ten need
    {{ share === 0 ? 'no reserve' : `no more than ${shop.show(share, 'fraction')} in reserve` }}.
    <Button v-if="!isTaken" size="small" @click="take(share)">Take that</Button>
  </p>
</template>

<style scoped>
.learned {
  margin: 8px 0 0;
}
</style>
