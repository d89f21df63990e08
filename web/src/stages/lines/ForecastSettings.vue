<script setup lang="ts">
import { Checkbox } from 'ant-design-vue';
import { withForecast } from '../../state/job-edits.ts';
import { useJobStore } from '../../state/job-store.ts';

/** How the forecast is made: quick and averaged, or through the thickness; a stiff laminate, or one that gives. */
const job = useJobStore();
</script>

<template>
  <div class="settings">
    <Checkbox
      :checked="job.document!.forecast.layers"
      @change="job.apply(withForecast({ layers: $event.target.checked }))"
      >Mesh and plies as layers</Checkbox
    >
    <Checkbox
      :checked="job.document!.forecast.soft"
      @change="job.apply(withForecast({ soft: $event.target.checked }))"
      >Laminate gives under resin pressure</Checkbox
    >
  </div>
</template>

<style scoped>
.settings {
  display: flex;
  flex-direction: column;
  font-size: 13px;
  flex: none;
}
</style>
