<script setup lang="ts">
import { isOf } from '@wick/plan/run/state';
import Button from 'ant-design-vue/es/button';
import Input from 'ant-design-vue/es/input';
import { computed, reactive } from 'vue';
import { useRun } from '../../compute/use-desk.ts';
import { useShopStore } from '../../data/shop-store.ts';
import Choice from '../../ui/Choice.vue';
import QuantityInput from '../../ui/QuantityInput.vue';
import { useBench } from './bench.ts';
import StrikeButton from './StrikeButton.vue';

/** The bag is drawn down in steps, worked into the corners, let go and drawn again; each is written down. */
defineProps<{ advice: readonly string[] }>();
const bench = useBench();
const run = useRun();
const shop = useShopStore();
const form = reactive<{ wanted: number | null; feed: 'open' | 'clamped'; worked: string }>({
  wanted: null,
  feed: 'open',
  worked: '',
});
const feeds = [
  { value: 'open', label: 'feed open' },
  { value: 'clamped', label: 'feed clamped' },
];
const feedWords = { open: 'feed open', clamped: 'feed clamped' };
const done = computed(() => run.state.entries.filter(isOf('step')));
const timeOf = (at: string) => new Date(at).toLocaleTimeString([], { hour: '2-digit', minute: '2-digit' });
async function add() {
  await run.say({ kind: 'step', ...form, worked: form.worked.trim() });
  form.worked = '';
}
</script>

<template>
  <h3>Drawn down in steps</h3>
  <ol v-if="advice.length > 0" class="advice quiet">
    <li v-for="words in advice" :key="words">{{ words }}</li>
  </ol>
  <table v-if="done.length > 0" class="sheet" aria-label="Steps of the pull-down">
    <thead>
      <tr>
        <th>At</th>
        <th>Down to</th>
        <th>Feed</th>
        <th>What was worked in, let go, moved</th>
        <th>By</th>
        <th></th>
      </tr>
    </thead>
    <tbody>
      <tr v-for="{ id, at, by, body } in done" :key="id">
        <td class="number">{{ timeOf(at) }}</td>
        <td class="number">{{ body.wanted === null ? '' : shop.show(body.wanted, 'absolutePressure') }}</td>
        <td>{{ feedWords[body.feed] }}</td>
        <td>{{ body.worked }}</td>
        <td>{{ by }}</td>
        <td>
          <StrikeButton :entry-id="id" :what="`the step of ${timeOf(at)}`" />
        </td>
      </tr>
    </tbody>
  </table>
  <form class="tools" @submit.prevent="add">
    <QuantityInput
      v-model="form.wanted"
      class="wanted"
      label="Down to"
      quantity="absolutePressure"
      :assumed="bench.pressure ?? undefined"
      optional
      :limits="{ above: 0, below: 110000 }"
    />
    <Choice v-model:value="form.feed" size="small" class="feed" :options="feeds" aria-label="Feed" />
    <Input
      v-model:value="form.worked"
      size="small"
      class="worked"
      placeholder="corners worked in, film moved …"
      aria-label="What was worked in"
      :maxlength="300"
    />
    <Button size="small" html-type="submit">Write the step down</Button>
  </form>
</template>

<style scoped>
.advice {
  margin: 2px 0 8px;
  padding-left: 20px;
  font-size: 13px;
}
.wanted {
  width: 150px;
}
form {
  align-items: end;
}
.feed {
  width: 130px;
}
.worked {
  width: 260px;
}
</style>
