<script setup lang="ts">
import { useAdvice, useForecast } from '../../compute/use-desk.ts';
import { isSound } from '@wick/plan/forecast/words';
import Button from 'ant-design-vue/es/button';
import Progress from 'ant-design-vue/es/progress';
import { computed } from 'vue';

/** What would fix it: single changes, each simulated, the least upset first. */
const advice = useAdvice();
const forecast = useForecast();
const fails = computed(() => {
  const band = forecast.verdict?.band;
  return band !== undefined && !isSound(band);
});
const minutes = (time: number) => Math.round(time / 60);
</script>

<template>
  <div class="list" data-testid="repairs">
    <div class="bar">
      <Button
        v-if="advice.working !== 'mend'"
        :type="fails ? 'primary' : 'default'"
        size="small"
        @click="advice.mend()"
        >What would fix it</Button
      >
      <template v-else>
        <Button size="small" @click="advice.cancel()">Stop</Button>
        <Progress :percent="Math.round(100 * advice.progress)" size="small" class="progress" />
      </template>
      <span class="quiet">
        {{
          fails
            ? 'one change at a time: a feed moved or added, another order, mesh, hardener, or warmer'
            : 'it fills as it is; these are changes that would fill it sooner'
        }}
      </span>
    </div>
    <table v-if="advice.repairs" class="sheet">
      <tbody>
        <tr v-for="repair in advice.repairs" :key="repair.id">
          <td>{{ repair.words }}</td>
          <td :class="['number', repair.isEnough ? 'moss' : 'ember']">
            <template v-if="repair.score.fillTime < repair.score.gelTime"
              >{{ minutes(repair.score.fillTime) }} min, gel {{ minutes(repair.score.gelTime) }}</template
            >
            <template v-else>gels with {{ Math.round(100 * repair.score.wetShare) }} % wet</template>
          </td>
          <td class="quiet">
            {{
              repair.isEnough
                ? 'enough'
                : repair.score.fillTime < repair.score.gelTime
                  ? 'a gamble still'
                  : 'helps, not enough'
            }}
          </td>
          <td><Button size="small" @click="advice.apply(repair)">Do it</Button></td>
        </tr>
        <tr v-if="advice.repairs.length === 0">
          <td class="quiet">
            No single change helps. Look at the suggested layouts above, or cut the part in two shots.
          </td>
        </tr>
      </tbody>
    </table>
  </div>
</template>

<style scoped>
.bar {
  display: flex;
  gap: 12px;
  align-items: center;
  padding: 6px 0;
}
.progress {
  width: 220px;
  margin: 0;
}
</style>
