import { effectsOf, type Change, type ChangeEffect } from '@wick/core/verdict/changes';
import { createIsochrones } from '@wick/core/flow/isochrones';
import type { FlowForecast } from '@wick/core/flow/forecast';
import { clockOf, likelyTimes } from '@wick/core/verdict/verdict';
import { COARSE, finenessOf, summaryOf, timelineOf, verdictOf } from '@wick/contract/assess';
import { flowRequestOf, isBoundToResin, runsOnClock } from '@wick/contract/flow-request';
import {
  doubtOf,
  materialOf,
  missingOf,
  prelude,
  runConditionsOf,
  stackOf,
} from '@wick/contract/forecast-input';
import type { Job } from '@wick/contract/job';
import { defineStore } from 'pinia';
import { computed, markRaw, ref, shallowRef, toRaw, watch } from 'vue';
import { api } from '../api/client.ts';
import { createFlowRunner } from '../workers/flow-runner.ts';
import { useJobStore } from './job-store.ts';
import { useLibraryStore } from './library-store.ts';
import { useShopStore } from './shop-store.ts';

interface Solved {
  readonly key: string;
  readonly flow: FlowForecast;
  readonly isFine: boolean;
}

const AS_IT_IS = 'as it is';

/** Forecast of the open job: a coarse one at once, a fine one when the hand rests. Resin and clock are look-ups in it. */
export const useForecastStore = defineStore('forecast', () => {
  const job = useJobStore();
  const shop = useShopStore();
  const library = useLibraryStore();
  const solved = shallowRef<Solved | null>(null);
  const flowMessage = ref<string | null>(null);
  const progress = ref<number | null>(null);
  const coarse = createFlowRunner();
  const fine = createFlowRunner();

  const missing = computed(() => (job.document ? missingOf(job.document) : []));
  const request = computed(() => {
    if (!job.document || missing.value.some((item) => item.stage !== 'resin')) return null;
    try {
      flowRequestOf(job.document, shop.shop, COARSE);
      return { ok: true as const, value: whatFlows(job.document) };
    } catch (error) {
      return { ok: false as const, message: (error as Error).message };
    }
  });
  const key = computed(() => (request.value?.ok ? JSON.stringify(request.value.value) : null));

  /** The resin's weight matters: on a slope, with a pot above or below, or where drawn resin is weighed. */
  const weighs = ({ part, lines }: Job) =>
    part.rise !== null ||
    lines.some((line) => line.potLevel || line.actions.some(({ when }) => when.kind === 'drawn'));

  /** All of a job that changes where the front is; the resin only where the layout runs on its clock. */
  function whatFlows(document: Job) {
    const { part, laminate, zones, lines, marks, tees, stations, meshAreas, vacuum, forecast, resin } =
      document;
    const bound = isBoundToResin(document);
    const materials = document.materials.filter(({ kind }) => bound || kind !== 'resin');
    const { temperature, ambientPressure, altitude } = shop.shop;
    const air = [ambientPressure, altitude];
    const hose = resin.hoseLength;
    const density = weighs(document) ? materialOf(document, resin.materialId, 'resin')?.density : undefined;
    return {
      part,
      laminate,
      zones,
      lines: lines.map((line) => ({ ...line, pinned: false })),
      marks,
      tees,
      stations,
      meshAreas,
      vacuum,
      forecast,
      materials,
      air,
      hose,
      density,
      ...(bound ? { resin, temperature } : {}),
    };
  }

  async function solve(wanted: string, isFine: boolean) {
    const current = request.value;
    if (!current?.ok) return;
    const runner = isFine ? fine : coarse;
    if (isFine) progress.value = 0;
    const document = toRaw(job.document!);
    const fineness = finenessOf(document);
    const answer = await runner.run(
      { job: document, shop: structuredClone(toRaw(shop.shop)), resolution: isFine ? fineness : COARSE },
      (fraction) => {
        if (isFine) progress.value = fraction;
      },
    );
    if (isFine) progress.value = null;
    if (!answer || key.value === null) return;
    const isLate = wanted !== key.value;
    if (isLate && (isFine || !job.isGesturing)) return;
    if (!isFine && solved.value?.key === wanted && solved.value.isFine) return;
    flowMessage.value = answer.ok ? null : answer.message;
    solved.value = answer.ok ? { key: wanted, flow: markRaw(answer.value), isFine } : null;
  }

  // The two runs are effects on workers, not values: this is the one place that starts them.
  watch(
    [key, () => job.isGesturing],
    ([wanted, isGesturing]) => {
      fine.cancel();
      progress.value = null;
      if (wanted === null) {
        solved.value = null;
        flowMessage.value = request.value && !request.value.ok ? request.value.message : null;
        return;
      }
      if (solved.value?.key === wanted && solved.value.isFine) return;
      if (solved.value?.key !== wanted) void solve(wanted, false);
      if (!isGesturing) void solve(wanted, true);
    },
    { immediate: true },
  );

  const flow = computed(() => solved.value?.flow ?? null);
  /** Which face of the laminate the board shows, where layers are told apart. */
  const side = ref<'bag' | 'mould'>('mould');
  const arrival = computed(() => {
    if (!flow.value) return null;
    const { layers, arrival: through } = flow.value;
    return layers.length > 1 && side.value === 'bag' ? layers[0]!.arrival : through;
  });
  const isochrones = computed(
    () => flow.value && arrival.value && createIsochrones(flow.value.mesh, arrival.value),
  );
  const run = computed(() => job.document && runConditionsOf(job.document, shop.shop));
  const resin = computed(() => {
    if (!run.value) return null;
    try {
      return { ok: true as const, clock: clockOf(run.value) };
    } catch (error) {
      return { ok: false as const, message: (error as Error).message };
    }
  });
  const clock = computed(() => (resin.value?.ok ? resin.value.clock : null));
  const verdict = computed(() =>
    flow.value && job.document && clock.value ? verdictOf(job.document, shop.shop, flow.value) : null,
  );
  const before = computed(() => (job.document ? prelude(job.document) : null));
  const message = computed(
    () =>
      missing.value[0]?.message ??
      flowMessage.value ??
      (resin.value && !resin.value.ok ? resin.value.message : null),
  );

  const timeline = computed(() =>
    flow.value && clock.value ? timelineOf(flow.value, clock.value, run.value!.openTime) : null,
  );
  /** Seconds since first mix of a run time; Infinity past gel. */
  const timeOf = (time: number) => timeline.value?.clockTime(time) ?? NaN;
  const runTimeAt = (clockTime: number) => timeline.value?.runTime(clockTime) ?? NaN;

  /** The flow shown is of the job as it stands. */
  const isUpToDate = computed(() => solved.value !== null && solved.value.key === key.value);
  /** Share of its life that the first batch has used at a run time. */
  const ageAt = computed(() => {
    const resinClock = clock.value;
    return resinClock && ((time: number) => resinClock.ageAt(Math.min(timeOf(time), resinClock.gelTime)));
  });
  /** Between which times, s from first mix, the front likely comes to a place that it comes to at a run time. */
  function likelyAt(runTime: number) {
    if (!run.value || !job.document || Number.isNaN(runTime) || flow.value?.timeUnit !== 'fluidity')
      return null;
    return likelyTimes(runTime, run.value, doubtOf(job.document));
  }

  let lastEffects: readonly ChangeEffect[] = [];
  /** What would change it most; while a hand drags, what would have before: it is read when the hand rests. */
  const effects = computed(() => {
    if (job.isGesturing) return lastEffects;
    const isKnown =
      flow.value?.isFilled && run.value && job.document && clock.value && !runsOnClock(job.document);
    lastEffects = isKnown ? helpful(effectsOf(flow.value!, run.value!, changesFor(job.document!))) : [];
    return lastEffects;
  });

  /** Only what is better than leaving things as they are. */
  const helpful = (list: ChangeEffect[]) =>
    list.slice(
      0,
      list.findIndex((effect) => effect.label === AS_IT_IS),
    );

  function changesFor(document: Job): Change[] {
    const temperature = run.value!.temperature;
    const now = stackOf(document, shop.shop);
    const speed = (stack: typeof now) =>
      (stack.transmissibility.xx + stack.transmissibility.yy) / stack.storage;
    const meshes = library.ofKind('flowMesh').filter((mesh) => mesh.id !== document.laminate.flowMeshId);
    const resins = library.ofKind('resin').filter((resin) => resin.id !== document.resin.materialId);
    return [
      { label: AS_IT_IS },
      { label: 'Resin and workshop 3 °C warmer', run: { temperature: temperature + 3 } },
      { label: 'Resin and workshop 3 °C cooler', run: { temperature: temperature - 3 } },
      ...meshes.map((mesh) => {
        const other = stackOf(
          {
            ...document,
            materials: [...document.materials, mesh],
            laminate: { ...document.laminate, flowMeshId: mesh.id },
          },
          shop.shop,
        );
        return { label: `${mesh.name} instead`, flowFactor: speed(now) / speed(other) };
      }),
      ...resins.map((resin) => ({ label: `${resin.name} instead`, run: { resin } })),
    ];
  }

  // The list of jobs shows the last fine verdict of the saved revision.
  watch([verdict, () => job.saveState, () => solved.value?.isFine], ([judged, saveState, isFine]) => {
    if (judged && isFine && saveState === 'saved' && job.id)
      void api.writeVerdict(job.id, summaryOf(judged, job.revision)).catch(() => undefined);
  });

  return {
    solved,
    flow,
    isochrones,
    run,
    clock,
    verdict,
    before,
    missing,
    message,
    progress,
    effects,
    timeOf,
    runTimeAt,
    timeline,
    side,
    arrival,
    isUpToDate,
    likelyAt,
    ageAt,
    cancel: () => fine.cancel(),
  };
});
