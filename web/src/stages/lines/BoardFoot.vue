<script setup lang="ts">
import type { Point } from '@wick/core/geometry/polygon';
import Checkbox from 'ant-design-vue/es/checkbox';
import { computed } from 'vue';
import FieldScale from '../../board/FieldScale.vue';
import type { FieldBand, FieldView, ViewId } from '../../board/fields.ts';
import { snapWords } from '../../board/tool.ts';
import { useSession } from '../../compute/use-desk.ts';
import { useShopStore } from '../../data/shop-store.ts';
import Choice from '../../ui/Choice.vue';
import QuantityInput from '../../ui/QuantityInput.vue';
import type { useLineGestures } from './line-gestures.ts';
import { lineTools } from './line-tools.ts';
import ResultsOut from './ResultsOut.vue';
import { useReading } from './use-reading.ts';
import ViewBar from './ViewBar.vue';

/** Under the board: what is read or drawn at the moment, and what the tool in hand can be set to. */
const props = defineProps<{
  gestures: ReturnType<typeof useLineGestures>;
  hover: Point | null;
  minute: number | null;
  field: { readonly view: FieldView; readonly bands: readonly FieldBand[] } | null;
}>();
const viewId = defineModel<ViewId>('view', { required: true });
const job = useSession();
const shop = useShopStore();
const { tool, fitting, edgeOffset, draft, pointer, isBox } = props.gestures;

const EDGE_OFFSET = 0.04;
const offsetLimits = { atLeast: 0, below: 2 };
const fittings = [
  { value: 'pot', label: 'pot of resin' },
  { value: 'pump', label: 'pump' },
  { value: 'tee', label: 'tee' },
];
const hint = computed(() => lineTools.find(({ id }) => id === tool.value)!.hint);
const followsEdges = computed(() => ['feed', 'vent', 'race'].includes(tool.value));
const draftWords = computed(() => {
  if (!draft.value) return null;
  const [a, b] = [draft.value[0]!, draft.value[1]!];
  return isBox.value
    ? `${shop.show(Math.abs(b.x - a.x), 'length')} × ${shop.show(Math.abs(b.y - a.y), 'length')}`
    : shop.show(Math.hypot(b.x - a.x, b.y - a.y), 'length');
});
const hovered = useReading(
  () => props.hover,
  () => tool.value === 'select' && !job.isGesturing,
  () => props.minute,
);
</script>

<template>
  <div class="foot">
    <div class="quiet status" role="status">
      <template v-if="draftWords"
        ><b class="number">{{ draftWords }}</b> {{ pointer ? snapWords[pointer.kind] : '' }}</template
      >
      <template v-else-if="hovered"
        >{{ hovered.place }}: <b class="number">{{ hovered.text }}</b></template
      >
      <FieldScale v-else-if="field" :bands="field.bands" :quantity="field.view.quantity" />
      <template v-else>{{ hint }}</template>
    </div>
    <div class="tools">
      <template v-if="followsEdges">
        <Checkbox
          :checked="edgeOffset !== null"
          @change="edgeOffset = $event.target.checked ? (tool === 'feed' ? EDGE_OFFSET : 0) : null"
          >along the edge clicked, in by</Checkbox
        >
        <div class="offset">
          <QuantityInput
            hide-label
            label="Distance from the edge"
            quantity="length"
            :limits="offsetLimits"
            :model-value="edgeOffset ?? EDGE_OFFSET"
            @update:model-value="edgeOffset = $event"
          />
        </div>
      </template>
      <Choice
        v-if="tool === 'fitting'"
        v-model:value="fitting"
        size="small"
        class="piece"
        aria-label="What to put down"
        :options="fittings"
      />
      <ResultsOut v-if="tool === 'select'" />
      <ViewBar v-model="viewId" />
    </div>
  </div>
</template>

<style scoped>
.offset {
  width: 84px;
}
.offset :deep(input) {
  padding: 1px 7px;
}
.piece {
  width: 150px;
}
</style>
