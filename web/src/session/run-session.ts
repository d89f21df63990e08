import type { Entry, EntryBody, NewEntry, Run } from '@wick/contract/run/run';
import type { StreamData, StreamKind } from '@wick/contract/run/stream';
import { newId } from '@wick/plan/job/ids';
import { runTime } from '@wick/plan/run/clock';
import { runStateOf } from '@wick/plan/run/state';
import { computed, onScopeDispose, ref, shallowRef, type Ref } from 'vue';
import { createOutbox, type Outbox, type OutboxParts } from './outbox.ts';

/** What happens elsewhere, as the server tells it. */
interface Told {
  /** ms since 1970, by the server's clock */
  readonly now: () => number;
  /** @returns by which it is ended */
  readonly on: <K extends StreamKind>(kind: K, listener: (data: StreamData<K>) => void) => () => void;
}

export interface RunParts extends Pick<OutboxParts, 'send' | 'isNotReached' | 'storage'> {
  readonly listRuns: (jobId: string) => Promise<Run[]>;
  readonly listEntries: (runId: string) => Promise<Entry[]>;
  readonly addRun: (
    jobId: string,
    run: { id: string; kind: Run['kind']; speed: number; seed: number },
  ) => Promise<Run>;
  readonly stream: Told;
  /** Who says what is said on this screen. */
  readonly name: Readonly<Ref<string>>;
}

export type RunSession = ReturnType<typeof createRunSession>;

/** Entries that wait stand after those that are kept. */
const WAITING = Number.MAX_SAFE_INTEGER;

/** The runs of a job, and the one that is looked at: what was said in it, here and on other screens. */
export function createRunSession(jobId: string, parts: RunParts) {
  const { stream } = parts;
  const runs = shallowRef<readonly Run[]>([]);
  const chosenId = ref<string | null>(null);
  const kept = shallowRef<readonly Entry[]>([]);
  const isLoaded = ref(false);
  const message = ref<string | null>(null);
  const outbox = shallowRef<Outbox | null>(null);
  let asked = 0;
  /** A run that is being made: what is said meanwhile is said in it. */
  let beginning: Promise<Run | null> = Promise.resolve(null);

  const run = computed(() => runs.value.find(({ id }) => id === chosenId.value) ?? null);

  const entries = computed(() => {
    const known = new Set(kept.value.map(({ id }) => id));
    const waiting = (outbox.value?.waiting.value ?? [])
      .filter(({ id }) => !known.has(id))
      .map((entry): Entry => ({
        ...entry,
        ...{ runId: chosenId.value ?? '', order: WAITING, writtenAt: entry.at, device: '' },
      }));
    return [...kept.value, ...waiting];
  });
  const state = computed(() => runStateOf(entries.value));

  function take(added: readonly Entry[]): void {
    const known = new Set(kept.value.map(({ id }) => id));
    const fresh = added.filter(({ id, runId }) => runId === chosenId.value && !known.has(id));
    if (fresh.length > 0) kept.value = [...kept.value, ...fresh].sort((a, b) => a.order - b.order);
  }

  async function load(): Promise<void> {
    const own = ++asked;
    try {
      const list = await parts.listRuns(jobId);
      if (own !== asked) return;
      runs.value = list;
      if (!run.value) choose(list[0]?.id ?? null);
      else await loadEntries();
      message.value = null;
      isLoaded.value = true;
    } catch (error) {
      if (own === asked) message.value = (error as Error).message;
    }
  }

  async function loadEntries(): Promise<void> {
    const id = chosenId.value;
    if (id === null) return;
    const list = await parts.listEntries(id);
    if (chosenId.value === id) take(list);
  }

  function choose(id: string | null): void {
    if (id === chosenId.value) return;
    outbox.value?.stop();
    chosenId.value = id;
    kept.value = [];
    outbox.value = id === null ? null : createOutbox({ ...parts, runId: id, onKept: take });
    void outbox.value?.flush();
    void loadEntries().catch((error: unknown) => (message.value = (error as Error).message));
  }

  /** A further part, or a rehearsal. @param speed of its clock */
  function begin(kind: Run['kind'], speed = 1): Promise<Run | null> {
    return (beginning = make(kind, speed));
  }

  async function make(kind: Run['kind'], speed: number): Promise<Run | null> {
    try {
      const seed = Math.floor(Math.random() * 2 ** 31);
      const made = await parts.addRun(jobId, { id: newId(), kind, speed, seed });
      if (!runs.value.some(({ id }) => id === made.id)) runs.value = [made, ...runs.value];
      choose(made.id);
      message.value = null;
      return made;
    } catch (error) {
      message.value = (error as Error).message;
      return null;
    }
  }

  /** ms since 1970, by the clock of the run; of no run yet by the server's. */
  const now = () => (run.value ? runTime(run.value, stream.now()) : stream.now());

  /** Writes down what happened; where there is no run yet the first part's is begun. @returns the id of the entry */
  async function say(body: EntryBody, at?: number): Promise<string | null> {
    await beginning;
    if (!run.value && !isLoaded.value) await load();
    if (!run.value && !(await begin('part'))) return null;
    const entry: NewEntry = {
      id: newId(),
      at: new Date(at ?? now()).toISOString(),
      by: parts.name.value,
      body,
    };
    outbox.value?.say(entry);
    return entry.id;
  }

  const stops = [
    stream.on('entry', (entry) => take([entry])),
    stream.on('run', (told) => {
      if (told.jobId !== jobId) return;
      const others = runs.value.filter(({ id }) => id !== told.id);
      runs.value = [told, ...others].sort((a, b) => b.number - a.number);
    }),
    stream.on('gap', () => void load()),
  ];
  onScopeDispose(() => {
    stops.forEach((stop) => stop());
    outbox.value?.stop();
  });

  return {
    ...{ runs, run, entries, state, isLoaded, message, load, choose, begin, say, now },
    /** Of the rehearsal that is looked at; null where it is a part. */
    rehearsalId: computed(() => (run.value?.kind === 'rehearsal' ? run.value.id : null)),
    waitingCount: computed(() => outbox.value?.waiting.value.length ?? 0),
    refusal: computed(() => outbox.value?.refusal.value ?? null),
    by: parts.name,
  };
}
