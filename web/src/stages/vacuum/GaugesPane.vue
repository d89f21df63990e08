<script setup lang="ts">
import type { Instrument } from '@wick/contract/run/instrument';
import type { Place } from '@wick/contract/run/run';
import { formatQuantity } from '@wick/core/units/format';
import { unitOf } from '@wick/core/units/quantities';
import Button from 'ant-design-vue/es/button';
import Popconfirm from 'ant-design-vue/es/popconfirm';
import { computed, onMounted, ref } from 'vue';
import { isAtHand } from '@wick/plan/run/gauges';
import { useRun } from '../../compute/use-desk.ts';
import { api } from '../../data/api.ts';
import { useInstruments } from '../../data/instruments.ts';
import Choice from '../../ui/Choice.vue';
import { useBench } from './bench.ts';
import NewInstrumentForm from './NewInstrumentForm.vue';
import TroublePanel from './TroublePanel.vue';
import TypedReading from './TypedReading.vue';
import { useTicking } from '../../ui/use-ticking.ts';

/** The workshop's instruments: what hangs where in this run, what each shows, and how a device is let post. */
const bench = useBench();
const run = useRun();
const { list, last, message, load } = useInstruments();
const now = useTicking(run.now);
const word = ref<{ instrument: Instrument; word: string } | null>(null);
const problem = ref<string | null>(null);
onMounted(load);

const places: { value: Place | ''; label: string }[] = [
  { value: '', label: 'not here' },
  { value: 'bag', label: 'on the bag' },
  { value: 'pot', label: 'on the catch pot' },
  { value: 'room', label: 'in the room' },
  { value: 'mould', label: 'on the mould' },
  { value: 'resin', label: 'in the resin' },
  { value: 'bench', label: 'at the mixing bench' },
];
const rows = computed(() =>
  list.value
    .filter(
      (one) => isAtHand(one, run.rehearsalId) && (one.revokedAt === null || run.state.attached.has(one.id)),
    )
    .map((instrument) => {
      const read = last.value.get(instrument.id) ?? null;
      return {
        instrument,
        read,
        place: run.state.attached.get(instrument.id)?.place ?? '',
        age: read ? Math.max(0, (now.value - read.at) / 1000) : null,
        hung: bench.hung.find((one) => one.instrument.id === instrument.id) ?? null,
      };
    }),
);
/** A small difference in the unit of the instrument, to two places that tell. */
function fine({ measures, unit }: Instrument, value: number): string {
  const { factor } = unitOf(measures, unit);
  return `${Number((value / factor).toPrecision(2))} ${unit === '°C' ? 'K' : unit}`;
}
const kindWords = { device: 'posts by itself', hand: 'read by eye', simulated: 'simulated' };
const ageWords = (age: number) =>
  age < 90
    ? `${Math.round(age)} s ago`
    : age < 5400
      ? `${Math.round(age / 60)} min ago`
      : age < 172_800
        ? `${Math.round(age / 3600)} h ago`
        : `${Math.round(age / 86_400)} days ago`;
const clockWords = (offset: number | null) =>
  offset === null || Math.abs(offset) < 1
    ? ''
    : `, clock ${Math.abs(offset) < 120 ? `${Math.round(Math.abs(offset))} s` : `${Math.round(Math.abs(offset) / 60)} min`} ${offset > 0 ? 'slow' : 'fast'}, put right`;

const hang = (instrumentId: string, place: string) =>
  run.say(
    place === '' ? { kind: 'detach', instrumentId } : { kind: 'attach', instrumentId, place: place as Place },
  );
async function attempt(work: () => Promise<void>) {
  try {
    await work();
    problem.value = null;
  } catch (error) {
    problem.value = (error as Error).message;
  }
  await load();
}
const renew = (id: string) =>
  attempt(async () => {
    const renewed = await api.renewWord(id);
    if (renewed.word) word.value = { instrument: renewed.instrument, word: renewed.word };
  });
const putAway = (id: string) => attempt(() => api.revokeInstrument(id));
</script>

<template>
  <p v-if="message ?? problem" class="ember" role="alert">{{ message ?? problem }}</p>
  <table class="sheet" aria-label="Instruments">
    <thead>
      <tr>
        <th>Instrument</th>
        <th>Shows</th>
        <th>Steps, scatter</th>
        <th>Hangs</th>
        <th></th>
      </tr>
    </thead>
    <tbody>
      <tr v-for="{ instrument, read, place, age, hung } in rows" :key="instrument.id">
        <td>
          {{ instrument.name }}
          <div class="quiet small">
            {{ kindWords[instrument.kind] }}{{ clockWords(instrument.clockOffset) }}
          </div>
        </td>
        <td>
          <b class="number">{{
            read ? formatQuantity(read.value, instrument.measures, instrument.unit) : '–'
          }}</b>
          <div class="quiet small">{{ age === null ? 'nothing yet' : ageWords(age) }}</div>
        </td>
        <td class="number quiet">
          {{ fine(instrument, instrument.resolution) }}, ±{{ fine(instrument, instrument.noise) }}
        </td>
        <td>
          <Choice
            v-if="instrument.measures !== 'soundLevel'"
            size="small"
            class="place"
            :aria-label="`Where ${instrument.name} hangs`"
            :value="place"
            :options="places"
            @change="hang(instrument.id, String($event))"
          />
        </td>
        <td class="acts">
          <TypedReading v-if="hung && instrument.kind === 'hand'" :hung="hung" />
          <template v-if="instrument.kind === 'device'">
            <Button size="small" @click="renew(instrument.id)">New word</Button>
          </template>
          <Popconfirm
            v-if="instrument.kind !== 'simulated'"
            title="Put it away? Its word is no longer good; what it has read stays."
            ok-text="Put it away"
            cancel-text="Keep it"
            @confirm="putAway(instrument.id)"
          >
            <Button size="small" type="text" :aria-label="`Put ${instrument.name} away`">×</Button>
          </Popconfirm>
        </td>
      </tr>
    </tbody>
  </table>
  <p v-if="rows.length === 0" class="quiet">
    No instrument yet. Add one that posts by itself, or one that you read by eye.
  </p>
  <div v-if="word" class="word" role="status">
    <p>
      The word of {{ word.instrument.name }}, shown this once. Put it into the device; who has it can post as
      this gauge, and nothing else.
    </p>
    <code data-testid="word">{{ word.word }}</code>
    <p class="quiet">
      Try it: <code>npm run wick -- gauge --word {{ word.word.split('.')[0] }}.…</code>, or see
      docs/instruments.md. <Button size="small" @click="word = null">Done</Button>
    </p>
  </div>
  <TroublePanel v-if="run.rehearsalId" />
  <NewInstrumentForm v-else @added="word = $event" />
</template>

<style scoped>
.small {
  font-size: 12px;
}
.place {
  width: 150px;
}
.acts {
  text-align: right;
}
.word {
  border-left: 3px solid var(--tide);
  padding: 4px 12px;
  margin: 12px 0;
}
.word p {
  margin: 4px 0;
}
code {
  font-size: 13px;
  overflow-wrap: anywhere;
}
</style>
