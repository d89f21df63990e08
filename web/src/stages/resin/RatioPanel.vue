<script setup lang="ts">
import type { MaterialOf } from '@wick/contract/materials';
import { editMaterial } from '@wick/plan/job/edits';
import { hardenerWord, partsText, ratioFault, ratioWindowOf, volumePartsOf } from '@wick/plan/resin/ratio';
import { chemistryOf } from '@wick/core/resin/resin-system';
import Input from 'ant-design-vue/es/input';
import { computed, ref, watch } from 'vue';
import { useSession } from '../../compute/use-desk.ts';
import { useLibraryStore } from '../../data/library-store.ts';
import { capital } from '../../ui/capital.ts';

/** One ratio to mix by, by weight; the one by volume is what it comes to. A ratio that does not belong to the system is not taken. */
const props = defineProps<{ resin: MaterialOf<'resin'> }>();
const job = useSession();
const library = useLibraryStore();
/** As the data sheet has it: the library's entry, where there is one. */
const sheet = computed(() => {
  const stored = library.find(props.resin.id)?.material;
  return stored?.kind === 'resin' ? stored : props.resin;
});
const isRadical = computed(() => chemistryOf(props.resin) === 'radical');
const text = ref('');
watch(
  () => props.resin.hardenerParts,
  (parts) => (text.value = String(parts)),
  { immediate: true },
);
const message = ref<string | null>(null);
function accept() {
  const typed = Number(text.value.replace(',', '.'));
  message.value = ratioFault(typed, sheet.value);
  if (message.value !== null || typed === props.resin.hardenerParts) return;
  job.apply(editMaterial({ ...props.resin, hardenerParts: typed }), 'ratio');
}
const volume = computed(() => {
  const parts = volumePartsOf(props.resin);
  return parts === null ? null : `100 : ${partsText(parts)}`;
});
const window = computed(() => {
  const { from, to } = ratioWindowOf(props.resin);
  const share = (value: number) => `${Number((100 * Math.abs(value)).toFixed(1))} %`;
  return `hardener may be ${share(from)} under and ${share(to)} over`;
});
const limits = computed(() => {
  const { gelTable } = props.resin;
  return gelTable
    ? `its table runs from ${gelTable.catalyst[0]} to ${gelTable.catalyst[gelTable.catalyst.length - 1]} %`
    : null;
});
</script>

<template>
  <section class="ratio" aria-label="Mixing ratio">
    <label>
      <span class="quiet">{{ capital(hardenerWord(resin)) }} to 100 of resin, by weight</span>
      <Input
        v-model:value="text"
        aria-label="Hardener to 100 of resin by weight"
        :status="message ? 'error' : undefined"
        @blur="accept"
        @press-enter="accept"
      />
    </label>
    <p class="beside">
      <span v-if="volume"
        >comes to <b class="number">{{ volume }}</b> by volume</span
      >
      <span v-else class="quiet">by volume: needs the densities of both, in the library</span>
      <span class="quiet">{{ limits ?? window }}</span>
    </p>
    <p v-if="message" class="ember" role="alert" data-testid="ratio-fault">{{ message }}</p>
    <p v-else-if="!isRadical" class="quiet">
      An amine is not made quicker by more hardener: take a quicker one, or warm the shop.
    </p>
    <p v-else class="quiet">Inside the table catalyst changes the pace; outside it nothing is promised.</p>
  </section>
</template>

<style scoped>
.ratio {
  display: grid;
  grid-template-columns: 220px 1fr 1.6fr;
  gap: 4px 20px;
  align-items: end;
  margin: 6px 0 10px;
}
label {
  display: flex;
  flex-direction: column;
}
label .quiet {
  font-size: 12px;
}
p {
  margin: 0;
}
.beside {
  display: flex;
  flex-direction: column;
}
</style>
