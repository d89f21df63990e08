<script setup lang="ts">
import { heldBy } from '@wick/plan/card/progress';
import { stepTitle, type CardStep } from '@wick/plan/card/step';
import Button from 'ant-design-vue/es/button';
import { computed } from 'vue';
import { useCard } from '../../compute/use-desk.ts';
import { dayClock } from '../../ui/day-clock.ts';
import { useWork } from './use-work.ts';

/** A step in the list of its phase: a box to tick, when and by whom, or when to expect it. */
const props = defineProps<{ step: CardStep }>();
const work = useCard();
const { isBegun, finish, takeBack, openOf } = useWork();
const state = computed(() => work.progress?.steps.get(props.step.id) ?? null);
const did = computed(() => state.value?.done ?? state.value?.skipped ?? null);
const isHeld = computed(() => work.progress !== null && heldBy(work.progress, props.step.phase) !== null);
const isFree = computed(
  () => isBegun.value && !did.value && !isHeld.value && openOf(props.step).length === 0,
);
const expected = computed(() => work.progress?.expected.get(props.step.id) ?? null);
const isNext = computed(() => work.progress?.next?.id === props.step.id);
</script>

<template>
  <li :class="{ next: isNext && isBegun, settled: did }">
    <button
      class="plain box"
      :aria-label="`${stepTitle(step)}: ${did ? 'done' : 'tick it off'}`"
      :disabled="!isFree"
      @click="finish(step)"
    >
      {{ state?.done ? '✓' : state?.skipped ? '–' : '' }}
    </button>
    <span class="what">
      {{ stepTitle(step) }} <span v-if="step.detail" class="quiet">{{ step.detail }}</span>
      <small v-if="state?.skipped" class="quiet">left out: {{ state.skipped.why }}</small>
    </span>
    <span v-if="did" class="when">
      <b class="number">{{ dayClock(did.at) }}</b> {{ did.by }}
      <Button size="small" type="text" @click="takeBack(step.id)">Take back</Button>
    </span>
    <span v-else class="when quiet">
      <template v-if="expected !== null">about {{ dayClock(expected) }}</template> {{ step.who }}
    </span>
  </li>
</template>

<style scoped>
li {
  display: grid;
  grid-template-columns: 48px minmax(0, 1fr) auto;
  align-items: center;
  min-height: 46px;
  border-bottom: 1px solid var(--rule);
}
.box.plain {
  width: 32px;
  height: 44px;
  font: 600 22px var(--display);
  text-align: center;
  position: relative;
}
.box::before {
  content: '';
  position: absolute;
  inset: 8px 2px;
  border: 2px solid var(--edge);
  border-radius: 3px;
}
.next .box::before {
  border-color: var(--resin);
}
.settled .box::before {
  border-color: transparent;
}
.settled .box {
  color: var(--moss);
}
.next .what {
  font-weight: 600;
}
.what small {
  display: block;
}
.when {
  text-align: right;
  white-space: nowrap;
  font-size: 14px;
}
@media (max-width: 760px) {
  li {
    grid-template-columns: 44px minmax(0, 1fr);
  }
  .when {
    grid-column: 2;
    text-align: left;
  }
}
</style>
