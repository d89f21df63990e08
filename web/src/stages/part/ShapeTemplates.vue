<script setup lang="ts">
import { useSession } from '../../compute/use-desk.ts';
import type { Patch } from '@wick/core/geometry/overlay';
import {
  angleShape,
  circle,
  coneLaidFlat,
  gore,
  rectangle,
  ring,
  trapezoid,
} from '@wick/core/geometry/shapes';
import { Button, Popover } from 'ant-design-vue';
import { computed, reactive, ref } from 'vue';
import { pathOf } from '../../board/viewport.ts';
import { polygonOf } from '@wick/core/geometry/arcs';
import { withPatch } from '@wick/plan/part/edits';
import QuantityInput from '../../ui/QuantityInput.vue';
import Choice from '../../ui/Choice.vue';

/** Outlines by a few numbers. */
const job = useSession();
const isOpen = ref(false);
const size = reactive({
  length: 1.2,
  width: 0.8,
  endWidth: 0.4,
  diameter: 0.8,
  holeDiameter: 0.3,
  height: 0.5,
  legWidth: 0.25,
  footWidth: 0.3,
});
type Key = keyof typeof size;
interface Template {
  readonly name: string;
  readonly fields: readonly (readonly [Key, string])[];
  readonly fault?: () => string | null;
  readonly make: () => Patch;
}
const plain = (outline: Patch['outline']): Patch => ({ outline, holes: [] });

const templates: readonly Template[] = [
  {
    name: 'Rectangle',
    fields: [
      ['length', 'Length'],
      ['width', 'Width'],
    ],
    make: () => plain(rectangle(size)),
  },
  {
    name: 'Trapezoid',
    fields: [
      ['length', 'Length'],
      ['width', 'Width at the start'],
      ['endWidth', 'Width at the end'],
    ],
    make: () => plain(trapezoid({ length: size.length, startWidth: size.width, endWidth: size.endWidth })),
  },
  {
    name: 'Gore',
    fields: [
      ['length', 'Length'],
      ['width', 'Width at the foot'],
      ['endWidth', 'Width at the top'],
    ],
    fault: () => (size.endWidth < size.width ? null : 'A gore is narrower at the top than at the foot.'),
    make: () => plain(gore({ length: size.length, startWidth: size.width, endWidth: size.endWidth })),
  },
  { name: 'Disc', fields: [['diameter', 'Diameter']], make: () => plain(circle(size)) },
  {
    name: 'Ring',
    fields: [
      ['diameter', 'Diameter'],
      ['holeDiameter', 'Diameter of the hole'],
    ],
    fault: () => (size.holeDiameter < size.diameter ? null : 'The hole has to be smaller than the ring.'),
    make: () => ring(size),
  },
  {
    name: 'Cone laid flat',
    fields: [
      ['diameter', 'Diameter, wide end'],
      ['holeDiameter', 'Diameter, narrow end'],
      ['height', 'Height'],
    ],
    fault: () =>
      size.holeDiameter < size.diameter ? null : 'The narrow end has to be narrower than the wide one.',
    make: () =>
      plain(
        coneLaidFlat({ wideDiameter: size.diameter, narrowDiameter: size.holeDiameter, height: size.height }),
      ),
  },
  {
    name: 'L shape',
    fields: [
      ['length', 'Length'],
      ['width', 'Width'],
      ['legWidth', 'Width of the leg'],
      ['footWidth', 'Width of the foot'],
    ],
    fault: () =>
      size.legWidth < size.length && size.footWidth < size.width
        ? null
        : 'Leg and foot have to be narrower than the whole.',
    make: () => plain(angleShape(size)),
  },
];
const chosen = ref('Rectangle');
const template = computed(() => templates.find(({ name }) => name === chosen.value)!);
const fault = computed(() => template.value.fault?.() ?? null);
const preview = computed(() => {
  if (fault.value) return '';
  const { outline, holes } = template.value.make();
  const points = polygonOf(outline);
  const [width, height] = [Math.max(...points.map((p) => p.x)), Math.max(...points.map((p) => p.y))];
  const scale = Math.min(210 / width, 90 / height);
  const view = { scale, left: (214 - scale * width) / 2, bottom: (94 + scale * height) / 2 };
  return [outline, ...holes].map((item) => pathOf(view, polygonOf(item), true)).join('');
});
const refuse = (value: number) =>
  value >= 0.01 && value <= 100 ? null : 'Parts run from 10 mm to 100 m. Check the unit.';

function use() {
  isOpen.value = false;
  job.apply(withPatch(template.value.make()), 'shape');
}
</script>

<template>
  <Popover v-model:open="isOpen" trigger="click" placement="bottomLeft">
    <Button size="small">From a shape</Button>
    <template #content>
      <div class="fields">
        <Choice
          v-model:value="chosen"
          aria-label="Shape"
          :options="templates.map(({ name }) => ({ value: name, label: name }))"
        />
        <svg width="214" height="94" aria-hidden="true"><path :d="preview" /></svg>
        <QuantityInput
          v-for="[key, label] in template.fields"
          :key="`${template.name} ${key}`"
          :label="label"
          quantity="length"
          :model-value="size[key]"
          :refuse="refuse"
          @update:model-value="size[key] = $event ?? size[key]"
        />
        <p v-if="fault" class="ember">{{ fault }}</p>
        <p class="quiet">It takes the place of the outline and its holes.</p>
        <Button type="primary" :disabled="fault !== null" @click="use">Use this shape</Button>
      </div>
    </template>
  </Popover>
</template>

<style scoped>
.fields {
  display: grid;
  gap: 8px;
  width: 216px;
}
.fields p {
  margin: 0;
}
path {
  fill: #f2dfb4;
  fill-rule: evenodd;
  stroke: var(--ink);
}
</style>
