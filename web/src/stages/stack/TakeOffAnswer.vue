<script setup lang="ts">
import type { TakeOff } from '@wick/plan/takeoff/take-off';
import InputNumber from 'ant-design-vue/es/input-number';
import { computed } from 'vue';
import { useShopStore } from '../../data/shop-store.ts';

/** What all of it comes to, and what has to be bought first. */
const props = defineProps<{ takeOff: TakeOff; people: number; hours: number }>();
const emit = defineEmits<{ 'update:people': [value: number]; 'update:hours': [value: number] }>();
const shop = useShopStore();
const short = computed(() => props.takeOff.items.filter(({ shelf }) => (shelf?.toBuy ?? 0) > 0));
const low = computed(() =>
  props.takeOff.items.filter(({ shelf }) => shelf?.isBelowMinimum && shelf.toBuy === 0),
);
const isUncounted = computed(() => props.takeOff.items.every(({ shelf }) => shelf === null));
</script>

<template>
  <h2>
    <span class="number">{{ takeOff.cost.toFixed(2) }}</span> in material
  </h2>
  <p v-if="takeOff.unpriced > 0" class="quiet">
    {{ takeOff.unpriced }} {{ takeOff.unpriced === 1 ? 'thing has' : 'things have' }} no price in the library
    and {{ takeOff.unpriced === 1 ? 'is' : 'are' }} left out.
  </p>
  <div class="row">
    <span>To carry, of what has a weight</span
    ><span class="number">{{ shop.show(takeOff.weight, 'mass') }}</span>
  </div>
  <h3>To buy first</h3>
  <p v-if="isUncounted" class="quiet">Nobody has counted the shelf: enter what is in stock in the library.</p>
  <p v-else-if="short.length === 0" class="moss">Nothing that was counted is short.</p>
  <div v-for="item in short" :key="item.name" class="row">
    <span class="ember">{{ item.name }}</span>
    <span class="number">{{ (Math.ceil(100 * item.shelf!.toBuy) / 100).toFixed(2) }}</span>
  </div>
  <p v-for="item in low" :key="item.name" class="quiet">
    {{ item.name }} sinks below its minimum: order more.
  </p>
  <h3>Hands</h3>
  <label class="row">
    <span>People</span>
    <InputNumber
      size="small"
      :min="1"
      :max="50"
      :value="people"
      aria-label="People"
      @change="emit('update:people', Number($event) || 1)"
    />
  </label>
  <label class="row">
    <span>Hours with gloves on</span>
    <InputNumber
      size="small"
      :min="1"
      :max="100"
      :value="hours"
      aria-label="Hours"
      @change="emit('update:hours', Number($event) || 1)"
    />
  </label>
  <p class="quiet">
    Before the bag is shut: turn the dry stack over once, so that pieces come off in this order; count
    fittings.
  </p>
</template>

<style scoped>
h2 {
  font-size: 22px;
  margin-bottom: 8px;
}
p {
  font-size: 12px;
  margin: 6px 0;
}
</style>
