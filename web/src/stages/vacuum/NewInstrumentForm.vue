<script setup lang="ts">
import { measures, type Instrument, type Measure } from '@wick/contract/run/instrument';
import { quantityOf } from '@wick/core/units/quantities';
import { newId } from '@wick/plan/job/ids';
import Button from 'ant-design-vue/es/button';
import Input from 'ant-design-vue/es/input';
import { computed, reactive, ref } from 'vue';
import { api } from '../../data/api.ts';
import { useInstruments } from '../../data/instruments.ts';
import { useShopStore } from '../../data/shop-store.ts';
import Choice from '../../ui/Choice.vue';
import QuantityInput from '../../ui/QuantityInput.vue';

/** An instrument that is new here. */
const emit = defineEmits<{ added: [made: { instrument: Instrument; word: string } | null] }>();
const shop = useShopStore();
const { load } = useInstruments();
const words: Record<Measure, string> = {
  absolutePressure: 'absolute pressure',
  gaugePressure: 'vacuum, relative to the air',
  temperature: 'temperature',
  mass: 'weight',
  soundLevel: 'sound, a leak listener',
};
const form = reactive<{
  name: string;
  measures: Measure;
  kind: 'device' | 'hand';
  resolution: number | null;
  noise: number | null;
}>({
  name: '',
  measures: 'absolutePressure',
  kind: 'device',
  resolution: null,
  noise: null,
});
/** Of a usual instrument of the kind, SI: common practice, no source. */
const usual: Record<Measure, { resolution: number; noise: number }> = {
  absolutePressure: { resolution: 10, noise: 10 },
  gaugePressure: { resolution: 1000, noise: 200 },
  temperature: { resolution: 0.1, noise: 0.1 },
  mass: { resolution: 0.001, noise: 0.001 },
  soundLevel: { resolution: 1, noise: 1 },
};
const step = computed(() => (form.measures === 'temperature' ? 'temperatureDifference' : form.measures));
/** A step of a relative gauge is one of pressure, not a vacuum. */
const stepQuantity = computed(() => (step.value === 'gaugePressure' ? 'absolutePressure' : step.value));
const options = measures.map((value) => ({ value, label: words[value] }));
const kinds = [
  { value: 'device', label: 'posts by itself' },
  { value: 'hand', label: 'is read by eye and typed' },
];
const message = ref<string | null>(null);

async function add() {
  try {
    const { resolution, noise } = usual[form.measures];
    const made = await api.addInstrument({
      ...{ id: newId(), name: form.name, measures: form.measures, kind: form.kind },
      unit: unitFor(form.measures),
      resolution: form.resolution ?? resolution,
      noise: form.noise ?? noise,
    });
    message.value = null;
    form.name = '';
    emit('added', made.word ? { instrument: made.instrument, word: made.word } : null);
    await load();
  } catch (error) {
    message.value = (error as Error).message;
  }
}
const unitFor = (name: Measure) => {
  const chosen = shop.unit(name);
  return quantityOf(name).units.some(({ symbol }) => symbol === chosen) ? chosen : quantityOf(name).usual;
};
</script>

<template>
  <h3>A new instrument</h3>
  <form class="tools" @submit.prevent="add">
    <label
      ><span class="quiet small">Name</span
      ><Input
        v-model:value="form.name"
        size="small"
        class="name"
        :maxlength="60"
        placeholder="Gauge on the pot"
    /></label>
    <label
      ><span class="quiet small">It measures</span
      ><Choice
        v-model:value="form.measures"
        size="small"
        class="measures"
        :options="options"
        aria-label="It measures"
    /></label>
    <label
      ><span class="quiet small">It</span
      ><Choice
        v-model:value="form.kind"
        size="small"
        class="kind"
        :options="kinds"
        aria-label="How it is read"
    /></label>
    <QuantityInput
      v-model="form.resolution"
      class="step"
      label="Step of its display"
      :quantity="stepQuantity"
      :assumed="usual[form.measures].resolution"
      :limits="{ above: 0 }"
    />
    <QuantityInput
      v-model="form.noise"
      class="step"
      label="Scatter of a reading"
      :quantity="stepQuantity"
      :assumed="usual[form.measures].noise"
      :limits="{ atLeast: 0 }"
    />
    <Button size="small" html-type="submit" :disabled="form.name.trim() === ''">Add it</Button>
  </form>
  <p v-if="message" class="ember" role="alert">{{ message }}</p>
</template>

<style scoped>
form {
  align-items: end;
}
label {
  display: flex;
  flex-direction: column;
}
.small {
  font-size: 12px;
}
.name {
  width: 170px;
}
.measures {
  width: 200px;
}
.kind {
  width: 180px;
}
.step {
  width: 130px;
}
</style>
