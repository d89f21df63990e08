<script setup lang="ts">
import Button from 'ant-design-vue/es/button';
import { reactive, ref } from 'vue';
import { useRun } from '../../compute/use-desk.ts';
import QuantityInput from '../../ui/QuantityInput.vue';
import { useBench } from './bench.ts';

/** Free volume by letting a known volume of air into the shut bag. */
const bench = useBench();
const run = useRun();
const isOpen = ref(false);
const form = reactive<{ volume: number | null; before: number | null; after: number | null }>({
  volume: 1e-3,
  before: null,
  after: null,
});
const message = ref<string | null>(null);
async function keep() {
  const { volume, before, after } = form;
  if (volume === null || before === null || after === null) {
    message.value = 'Type the known volume, and the pressure before and after.';
    return;
  }
  if (after <= before || after >= bench.ambient) {
    message.value = 'The pressure afterwards lies between the one before and that of the air outside.';
    return;
  }
  message.value = null;
  await run.say({ kind: 'expansion', volume, pressure: bench.ambient, before, after });
  isOpen.value = false;
}
</script>

<template>
  <p>
    <button class="plain link" @click="isOpen = !isOpen">Measure it: let a known volume of air in</button>
  </p>
  <form v-if="isOpen" class="fields" @submit.prevent="keep">
    <p class="quiet">
      Shut the valve. A bottle of known volume, open to the air before, is opened to the bag; read before and
      when it stands still.
    </p>
    <QuantityInput
      v-model="form.volume"
      label="Known volume"
      quantity="volume"
      optional
      :limits="{ above: 0, below: 10 }"
    />
    <QuantityInput
      v-model="form.before"
      label="In the bag before"
      quantity="absolutePressure"
      optional
      :assumed="bench.pressure ?? undefined"
    />
    <QuantityInput v-model="form.after" label="In the bag afterwards" quantity="absolutePressure" optional />
    <Button size="small" html-type="submit">Take it as measured</Button>
    <p v-if="message" class="ember" role="alert">{{ message }}</p>
  </form>
</template>

<style scoped>
.fields {
  display: grid;
  grid-template-columns: 1fr 1fr 1fr;
  gap: 6px 10px;
  align-items: end;
}
.fields p {
  grid-column: 1 / -1;
}
p {
  margin: 4px 0;
  font-size: 13px;
}
</style>
