import type { RunPlan } from '@wick/contract/run/plan';
import type { Entry, Run } from '@wick/contract/run/run';
import { createIsochrones } from '@wick/core/flow/isochrones';
import type { Mesh } from '@wick/core/geometry/mesh';
import { REHEARSAL_LAG } from '@wick/plan/run/clock';
import { computed, onScopeDispose, shallowRef, watch } from 'vue';
import type { WorldAsked, WorldSeen } from '../../compute/world-work.ts';

/** ms between two looks at the part. */
const LOOK = 700;
/** Of a node: so full it counts as wet to the eye. */
const WET = 0.5;

/** The front of a rehearsal, as somebody beside the mould would see it: nothing of a real part. */
export function createRehearsedPart(
  run: () => Run | null,
  basis: () => Pick<RunPlan, 'job' | 'shop' | 'mould'> | null,
  entries: () => readonly Entry[],
  now: () => number,
) {
  const seen = shallowRef<WorldSeen | null>(null);
  const mesh = shallowRef<Mesh | null>(null);
  let worker: Worker | null = null;
  let isAsking = false;

  function close(): void {
    worker?.terminate();
    worker = null;
    isAsking = false;
    seen.value = null;
    mesh.value = null;
  }

  function open(own: Run, about: Pick<RunPlan, 'job' | 'shop' | 'mould'>): void {
    close();
    worker = new Worker(new URL('../../compute/world.worker.ts', import.meta.url), { type: 'module' });
    worker.onmessage = ({ data }: MessageEvent<WorldSeen>) => {
      isAsking = false;
      if (data.mesh) mesh.value = data.mesh;
      seen.value = data;
      if (!data.isCaughtUp) ask();
    };
    const { job, shop, mould } = about;
    post({ kind: 'open', job, shop, mould, run: own });
    ask();
  }

  /** Plain data: what is reactive cannot be sent. */
  const post = (asked: WorldAsked) => worker?.postMessage(JSON.parse(JSON.stringify(asked)));

  function ask(): void {
    if (!worker || isAsking) return;
    isAsking = true;
    post({ kind: 'pass', to: now() - REHEARSAL_LAG * (run()?.speed ?? 1), entries: entries() });
  }

  watch(
    [() => run()?.id, () => basis()?.job],
    () => {
      const [own, about] = [run(), basis()];
      if (own?.kind === 'rehearsal' && about) open(own, about);
      else close();
    },
    { immediate: true },
  );
  const timer = setInterval(ask, LOOK);
  onScopeDispose(() => {
    clearInterval(timer);
    close();
  });

  const wet = computed(() => {
    const front = seen.value?.front;
    if (!front || !mesh.value) return null;
    return createIsochrones(
      mesh.value,
      front.map((level) => -level),
    ).wetBy(-WET);
  });
  return { seen, wet };
}
