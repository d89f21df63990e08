<script setup lang="ts">
import type { Book } from '@wick/plan/laminate/books';
import { useSession } from '../../compute/use-desk.ts';
import { materialOf } from '@wick/plan/job/material-of';
import Button from 'ant-design-vue/es/button';
import { computed, nextTick, ref } from 'vue';
import { movePly, removePly, repeatPly, setThrough, updatePly } from '@wick/plan/laminate/edits';
import { useShopStore } from '../../data/shop-store.ts';
import JobField from '../common/JobField.vue';
import PlyActions from './PlyActions.vue';
import { useChoices } from '../common/use-choices.ts';
import Choice from '../../ui/Choice.vue';
import { useRowDrag } from '../../ui/use-row-drag.ts';

/** The ply book of one laminate, bag side on top as it lies; rows are dragged, or moved with Alt and the arrows. */
const props = defineProps<{
  book: Book;
  thicknesses: readonly number[];
  odd: number | null;
  chosen: number | null;
}>();
const emit = defineEmits<{ choose: [index: number | null] }>();
const job = useSession();
const shop = useShopStore();
const choices = useChoices();
const body = ref<HTMLElement | null>(null);
/** The table shows the top ply first: down the screen is towards the mould. */
const plyAt = (row: number) => props.book.laminate.plies.length - 1 - row;
const { over, grab, drag, drop } = useRowDrag(body, {
  count: () => props.book.laminate.plies.length,
  onMove(from, to) {
    job.preview(movePly(props.book.zoneId, plyAt(from), plyAt(to)));
    emit('choose', plyAt(to));
  },
  onDrop: () => job.endGesture(true, 'move of a ply'),
});

const rows = computed(() => {
  const { plies } = props.book.laminate;
  return plies
    .map((ply, index) => ({
      ply,
      index,
      isThrough: props.book.through.has(ply.id),
      name: materialOf(job.laid, ply.materialId, 'fabric')?.name ?? ply.materialId,
    }))
    .reverse();
});
const stopped = computed(() =>
  props.book.zoneId === null ? [] : job.laid.laminate.plies.filter(({ id }) => !props.book.through.has(id)),
);
const fabricOptions = computed(() => choices('fabric').map((item) => ({ value: item.id, label: item.name })));

async function onKey(event: KeyboardEvent, index: number) {
  const by = event.key === 'ArrowUp' ? 1 : event.key === 'ArrowDown' ? -1 : 0;
  const count = props.book.laminate.plies.length;
  const to = Math.max(0, Math.min(count - 1, index + by));
  if (by !== 0 && event.altKey) job.apply(movePly(props.book.zoneId, index, to));
  else if (event.key === 'Delete') job.apply(removePly(props.book.zoneId, index));
  else if (by === 0) return;
  event.preventDefault();
  emit('choose', to);
  await nextTick();
  body.value?.querySelector<HTMLElement>(`[data-ply="${to}"]`)?.focus();
}

function exchange(index: number, id: string) {
  const fabric = choices('fabric').find((item) => item.id === id);
  if (fabric) job.apply(updatePly(props.book.zoneId, index, { materialId: id }, [fabric]));
}
</script>

<template>
  <table class="sheet">
    <thead>
      <tr>
        <th></th>
        <th>Ply, bag side on top</th>
        <th class="angle">Angle</th>
        <th class="angle">Ends short by</th>
        <th>Thickness</th>
        <th></th>
      </tr>
    </thead>
    <tbody ref="body">
      <tr
        v-for="{ ply, index, isThrough, name } in rows"
        :key="ply.id"
        :class="{
          chosen: chosen === index,
          dragged: over !== null && plyAt(over) === index,
          through: isThrough,
        }"
        data-testid="ply"
        @focusin="emit('choose', index)"
      >
        <td>
          <span
            class="grip number"
            tabindex="0"
            role="button"
            :data-ply="index"
            :aria-label="`Ply ${index + 1}, ${name}: drag, or Alt and arrows to move`"
            @pointerdown="(grab(plyAt(index), $event), emit('choose', index))"
            @pointermove="drag"
            @pointerup="drop"
            @pointercancel="drop"
            @keydown="onKey($event, index)"
            >⠿ {{ index + 1 }}</span
          >
        </td>
        <td class="cloth">
          <Choice
            size="small"
            :value="ply.materialId"
            :options="fabricOptions"
            :aria-label="`Cloth of ply ${index + 1}`"
            @change="exchange(index, String($event))"
          />
          <span v-if="isThrough" class="quiet" title="Changed here, it changes everywhere it runs"
            >through</span
          >
          <span v-if="odd === index" class="ember" title="Its partner across the middle differs">≠</span>
        </td>
        <td>
          <JobField
            hide-label
            :label="`Angle of ply ${index + 1}`"
            path="laminate.plies.angle"
            :model-value="ply.angle"
            @update:model-value="job.apply(updatePly(book.zoneId, index, { angle: $event! }))"
          />
        </td>
        <td>
          <JobField
            hide-label
            :label="`Ply ${index + 1} ends short by`"
            path="laminate.plies.inset"
            :model-value="ply.inset"
            @update:model-value="job.apply(updatePly(book.zoneId, index, { inset: $event! }))"
          />
        </td>
        <td class="number">{{ shop.show(thicknesses[index], 'thickness') }}</td>
        <td class="actions">
          <Button
            size="small"
            type="text"
            :aria-label="`Repeat ply ${index + 1}`"
            @click="job.apply(repeatPly(book.zoneId, index))"
            >+</Button
          >
          <Button
            size="small"
            type="text"
            :aria-label="`Delete ply ${index + 1}`"
            @click="job.apply(removePly(book.zoneId, index))"
            >×</Button
          >
        </td>
      </tr>
    </tbody>
  </table>
  <p v-if="stopped.length > 0" class="quiet stopped">
    Base plies that end at this zone:
    <button
      v-for="ply in stopped"
      :key="ply.id"
      class="plain link"
      @click="job.apply(setThrough(book.zoneId!, ply.id, true))"
    >
      {{ job.laid.laminate.plies.indexOf(ply) + 1 }}
      {{ materialOf(job.laid, ply.materialId, 'fabric')?.name }}, let it run through
    </button>
  </p>
  <PlyActions :book="book" />
</template>

<style scoped>
.angle {
  width: 84px;
}
td {
  vertical-align: middle !important;
}
td :deep(input) {
  padding: 1px 6px;
  min-width: 58px;
}
@media (max-width: 1100px) {
  .cloth select {
    width: 118px !important;
  }
}
.grip {
  cursor: grab;
  touch-action: none;
  white-space: nowrap;
  padding: 6px 4px;
  user-select: none;
}
.cloth {
  white-space: nowrap;
}
.cloth select {
  width: 158px;
}
.cloth .quiet {
  font-size: 12px;
  margin-left: 6px;
}
.chosen td {
  background: #f2e4c4;
}
.dragged td {
  background: #ecd39c;
}
.actions {
  white-space: nowrap;
  text-align: right;
}
.link {
  text-decoration: underline;
  margin-right: 10px;
}
.stopped {
  font-size: 13px;
  margin: 6px 0;
}
</style>
