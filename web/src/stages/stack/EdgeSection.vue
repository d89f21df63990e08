<script setup lang="ts">
import { drawEnd, sectionAt, type EndName, type SectionPlace } from '@wick/plan/stack/section';
import { computed, onBeforeUnmount, onMounted, ref } from 'vue';
import { useSession } from '../../compute/use-desk.ts';
import Button from 'ant-design-vue/es/button';
import { useShopStore } from '../../data/shop-store.ts';
import { saveFile } from '../../ui/save-file.ts';
import { standalonePng, standaloneSvg } from '../../ui/svg-picture.ts';
import SectionPicture from './SectionPicture.vue';
import { drawSection } from './section-picture.ts';

/** The bench: the part's edge cut across, every layer with its end to take hold of. */
const props = defineProps<{ place: SectionPlace; selected: string | null }>();
const emit = defineEmits<{ select: [id: string] }>();
const job = useSession();
const shop = useShopStore();
const svg = ref<SVGSVGElement | null>(null);
const width = ref(760);
const section = computed(() => sectionAt(job.laid, props.place));
const picture = computed(() => drawSection(section.value, width.value));

/** While an end is dragged the picture keeps its scale. */
const held = ref<{ id: string; end: EndName; name: string; scale: ReturnType<typeof drawSection> } | null>(
  null,
);
const shown = computed(() => held.value?.scale ?? picture.value);

function grab(event: PointerEvent, id: string, end: EndName, name: string) {
  (event.target as Element).setPointerCapture(event.pointerId);
  held.value = { id, end, name, scale: picture.value };
  emit('select', id);
}
function drag(event: PointerEvent) {
  if (!held.value) return;
  const left = svg.value!.getBoundingClientRect().left;
  job.preview(
    drawEnd(section.value, held.value.id, held.value.end, held.value.scale.at(event.clientX - left)),
  );
}
function drop(isDone: boolean) {
  if (!held.value) return;
  job.endGesture(isDone, `end of the ${held.value.name}`);
  held.value = null;
}
/** A millimetre a press, ten with Shift. */
function onKey(event: KeyboardEvent, id: string, end: EndName, at: number) {
  const by = event.key === 'ArrowRight' ? 1 : event.key === 'ArrowLeft' ? -1 : 0;
  if (by === 0) return;
  event.preventDefault();
  job.apply(drawEnd(section.value, id, end, at + by * (event.shiftKey ? 0.01 : 0.001)));
}

const long = (at: number) => shop.show(Math.abs(at), 'length');
const endWords = (at: number) =>
  Math.abs(at) < 5e-4
    ? 'to the edge'
    : at > 0
      ? `${long(at)} past the edge`
      : `${long(at)} short of the edge`;

const fileName = (ending: string) => `${job.laid.name} section, ${props.place}.${ending}`;
const saveSvg = () =>
  saveFile(fileName('svg'), new Blob([standaloneSvg(svg.value!)], { type: 'image/svg+xml' }));
const savePng = async () => saveFile(fileName('png'), await standalonePng(svg.value!));

const watcher = new ResizeObserver(([entry]) => (width.value = Math.max(320, entry!.contentRect.width)));
onMounted(() => watcher.observe(svg.value!.parentElement!));
onBeforeUnmount(() => watcher.disconnect());
</script>

<template>
  <div class="section">
    <svg
      ref="svg"
      :viewBox="`0 0 ${picture.width} ${picture.height}`"
      :width="picture.width"
      :height="picture.height"
      role="group"
      aria-label="Edge section"
      @pointermove="drag"
      @pointerup="drop(true)"
      @pointercancel="drop(false)"
    >
      <SectionPicture
        :section="section"
        :picture="picture"
        :selected="selected"
        @select="emit('select', $event)"
      />
      <template v-for="layer in picture.layers" :key="`ends ${layer.id}`">
        <circle
          v-for="handle in layer.handles"
          :key="handle.name"
          class="handle"
          tabindex="0"
          role="slider"
          :aria-label="`End of the ${layer.word}${handle.name === 'from' ? ', inner' : ''}`"
          :aria-valuenow="Math.round(handle.at * 1000)"
          :aria-valuetext="endWords(handle.at)"
          :cx="handle.x"
          :cy="handle.y"
          r="7"
          @pointerdown.stop="grab($event, layer.id, handle.name, layer.word)"
          @keydown="onKey($event, layer.id, handle.name, handle.at)"
        />
        <text
          v-if="layer.id === selected && layer.handles.length > 0"
          class="end"
          :x="Math.min(layer.handles[layer.handles.length - 1]!.x + 11, shown.width - 4)"
          :y="layer.handles[layer.handles.length - 1]!.y - 8"
          :text-anchor="layer.handles[layer.handles.length - 1]!.x > shown.width - 150 ? 'end' : 'start'"
        >
          {{ endWords(layer.to) }}
        </text>
      </template>
    </svg>
    <div class="under">
      <p class="quiet">
        {{
          section.step
            ? 'Not to scale.'
            : 'Heights are not to scale, ends are. Drag an end, or use the arrow keys.'
        }}
        {{
          section.step
            ? 'Stand a pleat at both ends of it: see Bag.'
            : section.flange === null
              ? 'Nobody has measured the flange.'
              : `The mould ends ${shop.show(section.flange, 'length')} past the edge.`
        }}
      </p>
      <div class="tools">
        <Button size="small" @click="saveSvg">As SVG</Button>
        <Button size="small" @click="savePng">As PNG</Button>
      </div>
    </div>
  </div>
</template>

<style scoped>
.under {
  display: flex;
  gap: 12px;
  justify-content: space-between;
  align-items: start;
}
.under .tools {
  flex-wrap: nowrap;
}
.section {
  min-width: 0;
}
svg {
  display: block;
  touch-action: none;
}
.handle {
  fill: var(--sheet);
  stroke: var(--resin-ink);
  stroke-width: 2;
  touch-action: none;
  cursor: ew-resize;
}
.end {
  font: 600 13px var(--display);
  fill: var(--resin-ink);
  paint-order: stroke;
  stroke: #fbfaf6;
  stroke-width: 4px;
  pointer-events: none;
}
p {
  margin: 2px 0 10px;
  font-size: 12px;
}
</style>
