<script setup lang="ts">
import { formatQuantity } from '@wick/core/units/format';
import { quantityNames, quantityOf, type QuantityName } from '@wick/core/units/quantities';
import { ambientAtAltitude } from '@wick/core/vacuum/atmosphere';
import type { JudgingRule } from '@wick/core/verdict/rule';
import { slipWords } from '@wick/plan/vacuum/cautions';
import { fieldOf } from '@wick/contract/field';
import { shopSchema, usualShop, type Shop } from '@wick/contract/shop';
import Input from 'ant-design-vue/es/input';
import { computed } from 'vue';
import { useShopStore } from '../../data/shop-store.ts';
import PageHeader from '../PageHeader.vue';
import BackupSection from './BackupSection.vue';
import DevicesSection from './DevicesSection.vue';
import { COOLER, WARMER } from '@wick/plan/resin/systems';
import QuantityInput from '../../ui/QuantityInput.vue';
import Choice from '../../ui/Choice.vue';

const shop = useShopStore();
const set = (changes: Partial<Shop>) => void shop.save({ ...shop.shop, ...changes });
const setUnit = (name: QuantityName, symbol: string) =>
  set({ units: { ...shop.shop.units, [name]: symbol } });
const shownUnits = computed(() =>
  quantityNames.filter((name) => !['angle', 'fraction', 'factor', 'number'].includes(name)),
);
const slip = computed(() => slipWords(shop.shop, shop.show));
const mostVacuum = computed(() => formatQuantity(shop.ambient, 'gaugePressure', 'inHg'));
const [altitude, ambientPressure, temperature] = (
  ['altitude', 'ambientPressure', 'temperature'] as const
).map((path) => fieldOf(shopSchema, path));

type Key = keyof JudgingRule;
const judging = (
  [
    ['comfortableChance', 'Comfortable from a chance of'],
    ['tightChance', 'Tight from a chance of'],
    ['comfortableTime', 'Comfortable to, of the usable time'],
    ['tightTime', 'Tight to, of the usable time'],
    ['usableViscosity', 'Usable to a viscosity of'],
    ['usableGrowth', 'or times as thick as fresh'],
    ['shutInArea', 'Air shut in, at most'],
  ] as const
).map(([key, label]) => ({ key, label, field: fieldOf(shopSchema, `judging.${key}`) }));
/** The sentence with which the rule would be refused as a whole. */
function refuse(key: Key, value: number): string | null {
  const next = { ...shop.shop, judging: { ...shop.shop.judging, [key]: value } };
  return shopSchema.safeParse(next).error?.issues[0]?.message ?? null;
}
const judgeBy = (key: Key, value: number | null) =>
  set({ judging: { ...shop.shop.judging, [key]: value ?? usualShop.judging[key] } });
</script>

<template>
  <PageHeader />
  <main>
    <h1>Where is the shop, and how does it read its gauges?</h1>
    <p v-if="shop.problem" class="ember" role="alert">{{ shop.problem }}</p>
    <section class="fields">
      <label class="plain-label">
        <span class="quiet">Name</span>
        <Input
          :value="shop.shop.name"
          @change="set({ name: ($event.target as HTMLInputElement).value || shop.shop.name })"
        />
      </label>
      <QuantityInput
        label="Altitude above sea level"
        v-bind="altitude!"
        unit="m"
        :model-value="shop.shop.altitude"
        @update:model-value="set({ altitude: $event ?? 0 })"
      />
      <QuantityInput
        label="Ambient pressure, if measured"
        v-bind="ambientPressure!"
        :model-value="shop.shop.ambientPressure"
        :assumed="ambientAtAltitude(shop.shop.altitude)"
        @update:model-value="set({ ambientPressure: $event })"
      />
      <QuantityInput
        label="Usual temperature"
        v-bind="temperature!"
        :model-value="shop.shop.temperature"
        @update:model-value="set({ temperature: $event ?? shop.shop.temperature })"
      />
      <QuantityInput
        label="In the morning"
        v-bind="temperature!"
        :model-value="shop.shop.morningTemperature"
        :assumed="shop.shop.temperature - COOLER"
        @update:model-value="set({ morningTemperature: $event })"
      />
      <QuantityInput
        label="In the afternoon"
        v-bind="temperature!"
        :model-value="shop.shop.afternoonTemperature"
        :assumed="shop.shop.temperature + WARMER"
        @update:model-value="set({ afternoonTemperature: $event })"
      />
    </section>
    <p v-if="slip" class="ember" role="alert" data-testid="slip">{{ slip }}</p>
    <p>
      The most vacuum a gauge can show here today is <b class="number">{{ mostVacuum }}</b>. A reading above
      it is a wrong gauge.
    </p>
    <h3>How a run is judged</h3>
    <p class="quiet">
      A band is the worse of the chance to fill and the usable time that is gone at the last corner; a run
      that shuts in more air than this does not fill. The values to start from are common practice, without a
      source.
    </p>
    <section class="fields">
      <QuantityInput
        v-for="{ key, label, field } in judging"
        :key="key"
        :label="label"
        v-bind="field"
        :unit="key === 'shutInArea' ? 'cm²' : undefined"
        :refuse="(value) => refuse(key, value)"
        :model-value="shop.shop.judging[key]"
        @update:model-value="judgeBy(key, $event)"
      />
    </section>
    <h3>Units shown</h3>
    <p class="quiet">Any unit can be typed in any field; these are the ones shown.</p>
    <section class="fields units">
      <label v-for="name in shownUnits" :key="name">
        <span class="quiet">{{ quantityOf(name).label }}</span>
        <Choice
          :value="shop.unit(name)"
          :options="
            quantityOf(name).units.map((unit) => ({
              value: unit.symbol,
              label: unit.symbol || 'as a fraction',
            }))
          "
          :aria-label="`Unit of ${quantityOf(name).label}`"
          @change="setUnit(name, String($event))"
        />
      </label>
    </section>
    <BackupSection />
    <DevicesSection />
  </main>
</template>

<style scoped>
main {
  padding: 18px 24px 40px;
  max-width: 900px;
}
.fields {
  display: grid;
  grid-template-columns: repeat(4, 1fr);
  gap: 14px;
  margin: 14px 0;
}
.plain-label,
.units label {
  display: flex;
  flex-direction: column;
}
.quiet {
  font-size: 12px;
}
</style>
