<script setup lang="ts">
import { phaseNames, stepTitle } from '@wick/plan/card/step';
import { computed } from 'vue';
import { useCard, useRun, useSession } from '../../compute/use-desk.ts';
import { dayClock } from '../../ui/day-clock.ts';
import CodePicture from '../../ui/CodePicture.vue';
import ListBar from './ListBar.vue';
import { usePaper } from './use-paper.ts';

/** The card as a traveller: it goes with the part, and its boxes are ticked by pen. */
const job = useSession();
const run = useRun();
const work = useCard();
const { paperName, paper } = usePaper(true);
const part = computed(() =>
  run.run
    ? `${run.run.kind === 'part' ? 'Part' : 'Rehearsal'} ${run.run.number}, plan ${work.plan?.number ?? 1}`
    : 'Part ____',
);
const day = new Date().toLocaleDateString([], { dateStyle: 'medium' });
const didOf = (id: string) => {
  const state = work.progress?.steps.get(id);
  return state?.done ?? state?.skipped ?? null;
};
const holdsBefore = (phase: string) => work.progress?.holds.filter(({ before }) => before[0] === phase) ?? [];
const link = computed(() => `${location.origin}/jobs/${job.id}/run`);
</script>

<template>
  <ListBar
    v-model="paperName"
    :to="`/jobs/${job.id}/run`"
    back="Back to the card"
    :waits-for="work.progress ? null : (work.message ?? 'fetching the card …')"
  />
  <main
    v-if="work.card && work.progress"
    class="page flow list"
    data-testid="traveller"
    :style="{ width: `${paper.width}mm`, minHeight: `${paper.height}mm` }"
  >
    <header>
      <span class="title">{{ work.basis!.job.name }}</span>
      <span>{{ part }}</span>
      <span>{{ work.basis!.job.mould?.name ?? '' }}</span>
      <span>{{ day }}</span>
      <CodePicture class="code" :text="link" label="Way to the card" :size="52" />
    </header>
    <section v-for="phase in work.card.phases" :key="phase.phase" class="phase">
      <h2>{{ phaseNames[phase.phase] }}</h2>
      <p v-for="hold in holdsBefore(phase.phase)" :key="hold.id" class="hold">
        <b>Hold: {{ hold.title }}.</b> {{ hold.todo }}
        <template v-if="hold.overruled"
          >Gone past by {{ hold.overruled.by }}: {{ hold.overruled.why }}.</template
        >
        <span class="sign">opened by ______________</span>
      </p>
      <table>
        <tbody>
          <tr v-for="(step, n) in phase.steps" :key="step.id">
            <td class="box">{{ didOf(step.id) ? '☑' : '☐' }}</td>
            <td>
              <b>{{ stepTitle(step) }}</b> {{ step.detail }}
              <template v-if="phase.steps[n - 1]?.title !== step.title">
                <span class="takes">{{ step.why }}</span>
                <span v-if="step.takes.length > 0" class="takes"
                  >Kit: {{ step.takes.join(', ')
                  }}<template v-if="step.who">. Who: {{ step.who }}</template></span
                >
                <span v-if="step.caution" class="caution">{{ step.caution }}</span>
              </template>
              <span v-if="step.ticks.length > 0" class="ticks"
                ><span v-for="tick in step.ticks" :key="tick.id">☐ {{ tick.what }}</span></span
              >
              <span v-for="wait in step.waits" :key="wait.word" class="wait"
                >{{ wait.word }}: ____ : ____<template v-if="wait.closes !== null">
                  , closes ____ : ____</template
                ></span
              >
            </td>
            <td class="who">
              <template v-if="didOf(step.id)"
                >{{ dayClock(didOf(step.id)!.at) }} {{ didOf(step.id)!.by }}</template
              ><template v-else>____:____ ________</template>
            </td>
          </tr>
        </tbody>
      </table>
    </section>
  </main>
</template>

<style scoped src="./sheet.css"></style>
<style scoped>
.page {
  font-size: 3.3mm;
  line-height: 1.3;
  color: #000;
}
.code {
  margin-left: auto;
}
h2 {
  font: 600 4.6mm var(--display);
  border-bottom: 0.4mm solid #000;
  margin: 3mm 0 1mm;
  break-after: avoid;
}
table {
  width: 100%;
  border-collapse: collapse;
}
tr {
  break-inside: avoid;
}
td {
  padding: 0.8mm 2mm 0.8mm 0;
  border-bottom: 0.15mm solid #999;
  vertical-align: top;
}
.box {
  font-size: 4.6mm;
  line-height: 1;
  width: 7mm;
}
.who {
  width: 34mm;
  white-space: nowrap;
}
.takes,
.caution,
.ticks,
.wait {
  display: block;
  font-size: 2.9mm;
}
.caution {
  font-style: italic;
}
.ticks span {
  margin-right: 4mm;
}
.hold {
  border: 0.4mm solid #000;
  padding: 1mm 2mm;
  margin: 1mm 0;
  break-inside: avoid;
}
.sign {
  display: block;
  text-align: right;
}
</style>
