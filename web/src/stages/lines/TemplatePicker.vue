<script setup lang="ts">
import { useSession } from '../../compute/use-desk.ts';
import { fitTemplate, templateNames, type TemplateRequest } from '@wick/core/layouts/templates';
import { layDrafts } from '@wick/plan/advice/score';
import { replaceLayout } from '@wick/plan/layout/layouts';
import { partShapeOf } from '@wick/plan/layout/fit';
import Button from 'ant-design-vue/es/button';
import Checkbox from 'ant-design-vue/es/checkbox';
import { computed, reactive, ref } from 'vue';
import LayoutPicture from './LayoutPicture.vue';
import QuantityInput from '../../ui/QuantityInput.vue';
import Choice from '../../ui/Choice.vue';

/** Layouts from templates, fitted to the outline; pinned lines stay. */
const job = useSession();
const isOpen = ref(false);
const names: Record<TemplateRequest['template'], string> = {
  edgeToEdge: 'Edge to edge',
  centreRing: 'Centre, vent ring',
  parallel: 'Parallel, in sequence',
  outward: 'Parallel, middle outward',
  radial: 'Radial',
  spine: 'Spine with ribs',
  point: 'Point feed',
};
const counted: Partial<Record<TemplateRequest['template'], string>> = {
  parallel: 'Feeds',
  outward: 'Feeds',
  radial: 'Spokes',
  spine: 'Ribs',
};
const request = reactive({
  template: 'parallel' as TemplateRequest['template'],
  count: 3,
  direction: 'long' as TemplateRequest['direction'],
  reversed: false,
  inset: 0.05,
});
const directions = [
  { value: 'long', label: 'along the part' },
  { value: 'short', label: 'across the part' },
];
/** A field that is being emptied holds no number. */
const countIn = (typed: number) => Math.max(2, Math.min(9, Math.round(Number(typed) || 2)));
const drafts = computed(() =>
  isOpen.value ? fitTemplate(partShapeOf(job.laid), { ...request, count: countIn(request.count) }) : [],
);
const laid = computed(() => (drafts.value.length > 0 ? layDrafts(job.laid, drafts.value) : null));
function lay() {
  if (laid.value) job.apply(replaceLayout(laid.value), 'lines from a template');
  isOpen.value = false;
}
</script>

<template>
  <div class="place" @keydown.esc="isOpen = false">
    <Button size="small" :aria-expanded="isOpen" @click="isOpen = !isOpen">Template</Button>
    <section v-if="isOpen" class="panel" aria-label="Lay lines from a template">
      <div class="picker" data-testid="templates">
        <div class="names" role="radiogroup" aria-label="Template">
          <button
            v-for="name in templateNames"
            :key="name"
            role="radio"
            :aria-checked="request.template === name"
            :class="['plain', { here: request.template === name }]"
            @click="request.template = name"
          >
            {{ names[name] }}
          </button>
        </div>
        <div class="settings">
          <label v-if="counted[request.template]"
            >{{ counted[request.template] }}
            <input v-model.number="request.count" type="number" min="2" max="9" step="1" class="count"
          /></label>
          <template v-if="request.template !== 'radial' && request.template !== 'point'">
            <Choice
              v-model:value="request.direction"
              size="small"
              aria-label="Direction"
              :options="directions"
            />
            <Checkbox v-model:checked="request.reversed">from the other end</Checkbox>
          </template>
          <QuantityInput
            label="Feeds keep from the edges"
            quantity="length"
            :model-value="request.inset"
            :refuse="(value) => (value >= 0 && value < 1 ? null : 'Between 0 and 1 m.')"
            @update:model-value="request.inset = $event!"
          />
          <div class="preview">
            <LayoutPicture v-if="laid" :job="laid" :flow="null" :end-time="60" :minute="null" />
            <p v-else class="ember">
              The part is too narrow for it that way. Take fewer feeds or a smaller distance.
            </p>
          </div>
          <Button type="primary" size="small" :disabled="!laid" @click="lay"
            >Lay it, instead of the lines there</Button
          >
        </div>
      </div>
    </section>
  </div>
</template>

<style scoped>
.place {
  position: relative;
}
.panel {
  position: absolute;
  right: 0;
  bottom: 30px;
  z-index: 10;
  padding: 14px 16px;
  border: 1px solid var(--rule);
  background: var(--sheet);
  box-shadow: 0 4px 18px #1e2a2f26;
}
.count {
  width: 60px;
  margin-left: 6px;
  padding: 2px 6px;
  border: 1px solid #bdb6a6;
  border-radius: 3px;
  background: var(--sheet);
}
.picker {
  display: grid;
  grid-template-columns: 190px 260px;
  gap: 18px;
}
.names button {
  display: block;
  width: 100%;
  padding: 5px 8px;
  border-left: 3px solid transparent;
}
.names .here {
  border-left-color: var(--resin);
  font-weight: 600;
}
.settings {
  display: flex;
  flex-direction: column;
  gap: 8px;
}
.preview {
  height: 120px;
}
</style>
