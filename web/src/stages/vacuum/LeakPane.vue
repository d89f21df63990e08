<script setup lang="ts">
import { withEvent } from '@wick/plan/mould/edits';
import Button from 'ant-design-vue/es/button';
import { computed, ref } from 'vue';
import { useRun } from '../../compute/use-desk.ts';
import { useMouldStore } from '../../data/mould-store.ts';
import { useShopStore } from '../../data/shop-store.ts';
import Choice from '../../ui/Choice.vue';
import { useBench } from './bench.ts';
import LeakPlan from './LeakPlan.vue';
import StrikeButton from './StrikeButton.vue';
import { useWalk, type WalkPlace } from './walk.ts';

/** The places where this bag may leak, likeliest first, on the plan and as a list to tick. */
const bench = useBench();
const run = useRun();
const shop = useShopStore();
const moulds = useMouldStore();
const walk = useWalk();
const selected = ref<string | null>(null);
const how = ref<'ear' | 'listener' | 'gauge'>('ear');
const ways = [
  { value: 'ear', label: 'by ear' },
  { value: 'listener', label: 'with a listener' },
  { value: 'gauge', label: 'by the gauge' },
];
const stateWords = { found: 'leak found', sealed: 'sealed', sound: 'sound' } as const;
const percent = (chance: number) => `${Math.max(1, Math.round(100 * chance))} %`;
const listener = computed(() => walk.listener);
const heard = computed(() => walk.heard);

async function look(place: WalkPlace, state: 'found' | 'sealed' | 'sound') {
  selected.value = place.id;
  const { id: placeId, name } = place;
  await run.say({ kind: 'looked', placeId, place: name, state, how: how.value });
  if (state === 'found' && run.run?.kind === 'part') await keepInMould(place);
}
/** What was found is the mould's to remember; a rehearsal's is not. */
async function keepInMould({ id, kind, name }: WalkPlace) {
  const { mould } = bench;
  if (!mould) return;
  const date = new Date().toLocaleDateString('sv-SE');
  await moulds.save(withEvent(mould, { date, kind: 'leak', text: name, place: { id, kind } }));
}
const listen = (place: WalkPlace) => {
  selected.value = place.id;
  void run.say({ kind: 'listen', placeId: place.id });
};
</script>

<template>
  <p v-if="bench.places.message" class="ember" role="alert">{{ bench.places.message }}</p>
  <div class="columns">
    <LeakPlan :places="walk.places" :selected="selected" @select="selected = $event" />
    <div>
      <div class="tools">
        <label
          ><span class="quiet">Looked for </span
          ><Choice
            v-model:value="how"
            size="small"
            class="how"
            :options="ways"
            aria-label="How it is looked for"
        /></label>
        <span v-if="listener && (heard.place || heard.level !== null)" class="level">
          <b class="number">{{ heard.level === null ? '…' : shop.show(heard.level, 'soundLevel') }}</b>
          <span class="quiet">
            {{ listener.instrument.name }}{{ heard.place ? `, at ${heard.place}` : '' }}</span
          >
        </span>
      </div>
      <table class="sheet" aria-label="Leak walk">
        <thead>
          <tr>
            <th></th>
            <th>Place</th>
            <th>Chance</th>
            <th>Looked at</th>
          </tr>
        </thead>
        <tbody>
          <tr
            v-for="place in walk.places"
            :key="place.id"
            :class="{
              here: place.id === selected,
              over: place.state === 'sound' || place.state === 'sealed',
            }"
            @click="selected = place.id"
          >
            <td class="number">{{ place.number }}</td>
            <td>
              {{ place.name }}
              <div v-if="place.id === selected" class="quiet why">{{ place.why }}</div>
            </td>
            <td class="number">{{ percent(place.chance) }}</td>
            <td class="ticks">
              <span
                v-if="place.state"
                :class="{ ember: place.state === 'found', moss: place.state !== 'found' }"
                >{{ stateWords[place.state] }}</span
              >
              <StrikeButton :entry-id="place.entryId" :what="`what was seen at ${place.name}`" />
              <Button
                v-if="listener"
                size="small"
                :aria-label="`Listen at ${place.name}`"
                @click.stop="listen(place)"
                >listen</Button
              >
              <Button
                v-if="place.state !== 'found'"
                size="small"
                :aria-label="`Leak found: ${place.name}`"
                @click.stop="look(place, 'found')"
                >found</Button
              >
              <Button
                v-if="place.state === 'found'"
                size="small"
                type="primary"
                :aria-label="`Sealed: ${place.name}`"
                @click.stop="look(place, 'sealed')"
                >sealed</Button
              >
              <Button
                v-if="!place.state"
                size="small"
                :aria-label="`Sound: ${place.name}`"
                @click.stop="look(place, 'sound')"
                >sound</Button
              >
            </td>
          </tr>
        </tbody>
      </table>
    </div>
  </div>
</template>

<style scoped>
.columns {
  display: grid;
  grid-template-columns: minmax(0, 1fr) minmax(0, 1.15fr);
  gap: 20px;
}
.how {
  width: 140px;
}
.level .number {
  font-size: 22px;
}
tr {
  cursor: pointer;
}
tr.here td {
  background: #efe9db;
}
tr.over td {
  color: var(--quiet);
}
.why {
  font-size: 12px;
}
.ticks {
  white-space: nowrap;
  text-align: right;
}
.ticks > * {
  margin-left: 4px;
}
</style>
