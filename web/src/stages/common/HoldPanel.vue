<script setup lang="ts">
import { SHORTEST_REASON } from '@wick/contract/run/card-bodies';
import type { Hold } from '@wick/plan/card/holds';
import Button from 'ant-design-vue/es/button';
import Input from 'ant-design-vue/es/input';
import { computed, ref } from 'vue';
import { useRun } from '../../compute/use-desk.ts';
import { keepOwnName } from '../../data/own-name.ts';

/** A hold point that is shut: why, what opens it, and the way past it by name and for a reason. */
const props = defineProps<{ hold: Hold }>();
const emit = defineEmits<{ again: [stepId: string] }>();
const run = useRun();
const isOpen = ref(false);
const by = ref(run.by);
const why = ref('');
const isReady = computed(() => by.value.trim() !== '' && why.value.trim().length >= SHORTEST_REASON);

async function goOn() {
  keepOwnName(by.value);
  const { id: holdId, title } = props.hold;
  await run.say({ kind: 'overruled', holdId, title, why: why.value.trim() });
  isOpen.value = false;
}
</script>

<template>
  <section class="hold" aria-label="Hold point" data-testid="hold">
    <p class="title">Hold: {{ hold.title }}</p>
    <p>{{ hold.why }} {{ hold.todo }}</p>
    <div v-if="!isOpen" class="ways">
      <Button v-if="hold.again" size="large" type="primary" @click="emit('again', hold.again)"
        >One more coat is on</Button
      >
      <Button size="large" @click="isOpen = true">Go on past it …</Button>
    </div>
    <form v-else @submit.prevent="goOn">
      <label>
        <span>Name</span>
        <Input v-model:value="by" size="large" :maxlength="40" aria-label="Name of who goes on past it" />
      </label>
      <label class="why">
        <span>Reason</span>
        <Input v-model:value="why" size="large" :maxlength="300" aria-label="Reason for going on past it" />
      </label>
      <Button size="large" danger html-type="submit" :disabled="!isReady">{{
        by.trim() ? `${by.trim()} goes on past it` : 'Go on past it'
      }}</Button>
      <Button size="large" type="text" @click="isOpen = false">Not yet</Button>
    </form>
    <p v-if="isOpen" class="small">
      It is written into the run, with the name and the reason, and stays there.
    </p>
  </section>
</template>

<style scoped>
.hold {
  border: 2px solid var(--ember);
  padding: 10px 16px;
}
.title {
  font: 600 20px var(--display);
  color: var(--ember);
}
p {
  margin: 0 0 8px;
}
form,
.ways {
  display: flex;
  flex-wrap: wrap;
  gap: 12px;
  align-items: end;
}
label span {
  display: block;
  font-size: 13px;
  color: var(--quiet);
}
.why {
  flex: 1 1 260px;
}
.small {
  margin: 8px 0 0;
  font-size: 13px;
  color: var(--quiet);
}
</style>
