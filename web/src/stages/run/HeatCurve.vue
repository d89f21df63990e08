<script setup lang="ts">
import type { HeatForecast } from '@wick/plan/infusion/heat';
import { toUnit } from '@wick/core/units/format';
import { computed, ref } from 'vue';
import { useShopStore } from '../../data/shop-store.ts';
import CurveChart from '../../ui/curve/CurveChart.vue';

/** Warmest and coldest resin through the thickest place, from when it is full. */
const props = defineProps<{ forecast: HeatForecast }>();
const shop = useShopStore();
const unit = computed(() => shop.unit('temperature'));
const shown = (kelvin: number) => toUnit(kelvin, 'temperature', unit.value);
const MS = 1000;
const curves = computed(() =>
  (['warmest', 'coldest'] as const).map((which) => ({
    id: which,
    label: which,
    kind: which === 'warmest' ? ('leak' as const) : ('forecast' as const),
    ats: props.forecast.course.curve.map(({ time }) => MS * time),
    values: props.forecast.course.curve.map((point) => shown(point[which])),
  })),
);
/** Until it has cooled again, at least past its peak twice. */
const usual = computed(() => MS * Math.min(86_400, Math.max(7200, 3 * props.forecast.course.peak.time)));
const stretch = ref<{ from: number; to: number } | null>(null);
const look = (from: number, to: number) => (stretch.value = { from, to });
</script>

<template>
  <CurveChart
    :curves="curves"
    :lines="[]"
    :marks="[]"
    :from="stretch?.from ?? 0"
    :to="stretch?.to ?? usual"
    :origin="0"
    :unit="unit ?? '°C'"
    label="Temperature through the thickest place"
    :height="190"
    @look="look"
    @follow="stretch = null"
  />
</template>
