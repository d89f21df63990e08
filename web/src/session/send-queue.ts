import { ref, shallowRef } from 'vue';

/** Where things wait on this device. */
export interface QueueStore<T> {
  /** In the order in which they were added. */
  readonly all: () => Promise<readonly { readonly key: number; readonly value: T }[]>;
  readonly add: (value: T) => Promise<number>;
  readonly remove: (keys: readonly number[]) => Promise<void>;
}

export interface QueueParts<T> {
  readonly store: QueueStore<T>;
  readonly idOf: (value: T) => string;
  /** How many of the first may go together. */
  readonly together: (waiting: readonly T[]) => number;
  /** @throws what passes is tried again until it does; anything else is a refusal */
  readonly send: (values: readonly T[]) => Promise<void>;
  readonly isPassing: (error: unknown) => boolean;
}

const AGAIN_AFTER = 2000;

/** Things that are sent in their order, each until it is answered; they outlive the page. Sent twice they have to count once. */
export function createSendQueue<T>({ store, idOf, together, send, isPassing }: QueueParts<T>) {
  const waiting = shallowRef<readonly T[]>([]);
  const refusal = shallowRef<string | null>(null);
  /** Whether what waits would outlive this page. */
  const isOnDevice = ref(true);
  /** Under which key each is on the device; null where it is on this screen alone. */
  const keys = new Map<string, Promise<number | null>>();
  let isSending = false;
  let isStopped = false;
  let again: ReturnType<typeof setTimeout> | undefined;
  const loading = takeUp();
  /** One after the other, so that they stand there as they were said. */
  let adding: Promise<unknown> = loading;

  /** What an earlier page left behind, or another one that was closed since, goes first. */
  async function takeUp(): Promise<void> {
    try {
      const left = (await store.all()).filter(({ value }) => !keys.has(idOf(value)));
      for (const { key, value } of left) keys.set(idOf(value), Promise.resolve(key));
      waiting.value = [...left.map(({ value }) => value), ...waiting.value];
    } catch {
      isOnDevice.value = false;
    }
  }

  /** @returns once it is on the device */
  function add(value: T): Promise<unknown> {
    const kept = adding
      .then(() => store.add(value))
      .catch(() => {
        isOnDevice.value = false;
        return null;
      });
    adding = kept;
    keys.set(idOf(value), kept);
    waiting.value = [...waiting.value, value];
    void flush();
    return kept;
  }

  /** Answered: it waits no more, here and on the device. */
  async function settle(values: readonly T[]): Promise<void> {
    const ids = new Set(values.map(idOf));
    waiting.value = waiting.value.filter((value) => !ids.has(idOf(value)));
    const found = await Promise.all([...ids].map((id) => keys.get(id)));
    await store.remove(found.filter((key) => key != null)).catch(() => undefined);
    // Known until then: it is not taken up again.
    ids.forEach((id) => keys.delete(id));
  }

  /** @returns whether there was an answer */
  async function sendSome(values: readonly T[], isOneOfSome = false): Promise<boolean> {
    // On the device before it is on its way: a page that ends now forgets nothing.
    await Promise.all(values.map((value) => keys.get(idOf(value))));
    try {
      await send(values);
      await settle(values);
      if (!isOneOfSome) refusal.value = null;
      return true;
    } catch (error) {
      if (isPassing(error)) return false;
      // One that is refused does not hold up the others: they are sent singly, and it is named.
      if (values.length > 1) {
        for (const value of values) if (!(await sendSome([value], true))) return false;
        return true;
      }
      await settle(values);
      refusal.value = (error as Error).message;
      return true;
    }
  }

  async function flush(): Promise<void> {
    if (isSending || isStopped) return;
    isSending = true;
    clearTimeout(again);
    await loading;
    await takeUp();
    while (waiting.value.length > 0 && !isStopped)
      if (!(await sendSome(waiting.value.slice(0, Math.max(1, together(waiting.value)))))) {
        again = setTimeout(() => void flush(), AGAIN_AFTER);
        break;
      }
    isSending = false;
  }

  return {
    ...{ waiting, refusal, isOnDevice, add, flush },
    stop(): void {
      isStopped = true;
      clearTimeout(again);
    },
  };
}
