<script setup lang="ts">
import { withEvent } from '@wick/plan/mould/edits';
import { byDate, mouldCautions, pullsSinceCoat } from '@wick/plan/mould/words';
import { type Mould, type MouldEventKind } from '@wick/contract/mould';
import Button from 'ant-design-vue/es/button';
import Input from 'ant-design-vue/es/input';
import { computed, reactive } from 'vue';
import Choice from './Choice.vue';

/** What has happened to a mould, newest first, and a row to add what just did. */
const props = defineProps<{ mould: Mould }>();
const emit = defineEmits<{ change: [mould: Mould] }>();
const words: Record<MouldEventKind, string> = {
  coat: 'release coat',
  pull: 'part pulled',
  leak: 'leak found',
  mended: 'leak mended',
  repair: 'repair',
  note: 'note',
};
const options = Object.entries(words).map(([value, label]) => ({ value, label }));
const today = () => new Date().toLocaleDateString('sv-SE');
const entry = reactive<{ date: string; kind: MouldEventKind; text: string }>({
  date: today(),
  kind: 'pull',
  text: '',
});
const events = computed(() => byDate(props.mould.history));
const cautions = computed(() => mouldCautions(props.mould));
const pulls = computed(() => pullsSinceCoat(props.mould.history));

function add() {
  if (!entry.date) return;
  emit('change', withEvent(props.mould, { ...entry, text: entry.text.trim() }));
  entry.text = '';
}
const remove = (id: string) =>
  emit('change', { ...props.mould, history: props.mould.history.filter((event) => event.id !== id) });
</script>

<template>
  <p class="pulls">
    <b class="number">{{ pulls ?? 'No' }}</b>
    {{
      pulls === null
        ? 'release coat on record'
        : pulls === 1
          ? 'part pulled since the last coat'
          : 'parts pulled since the last coat'
    }}
  </p>
  <p v-for="caution in cautions" :key="caution" class="ember">{{ caution }}</p>
  <form class="tools" @submit.prevent="add">
    <input v-model="entry.date" type="date" aria-label="Date" required />
    <Choice
      v-model:value="entry.kind"
      size="small"
      class="kind"
      :options="options"
      aria-label="What happened"
    />
    <Input
      v-model:value="entry.text"
      size="small"
      class="text"
      placeholder="coats, part, place of the leak …"
      aria-label="Details"
      :maxlength="300"
    />
    <Button size="small" html-type="submit">Add to the history</Button>
  </form>
  <table class="sheet" aria-label="History of the mould">
    <thead>
      <tr>
        <th>Date</th>
        <th>What</th>
        <th>Details</th>
        <th></th>
      </tr>
    </thead>
    <tbody>
      <tr v-for="event in events" :key="event.id">
        <td class="number">{{ event.date }}</td>
        <td :class="{ ember: event.kind === 'leak' }">{{ words[event.kind] }}</td>
        <td>{{ event.text }}</td>
        <td class="actions">
          <Button
            size="small"
            type="text"
            :aria-label="`Delete entry of ${event.date}`"
            @click="remove(event.id)"
            >×</Button
          >
        </td>
      </tr>
    </tbody>
  </table>
</template>

<style scoped>
.pulls {
  margin: 4px 0;
}
p {
  margin: 2px 0;
}
form {
  margin: 6px 0;
}
input[type='date'] {
  font: inherit;
  border: 1px solid #bdb6a6;
  border-radius: 3px;
  background: var(--sheet);
  padding: 0 6px;
  height: 24px;
}
.kind {
  width: 130px;
}
.text {
  width: 260px;
}
.actions {
  text-align: right;
}
</style>
