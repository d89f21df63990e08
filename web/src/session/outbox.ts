import type { Entry, NewEntry } from '@wick/contract/run/run';
import { shallowRef } from 'vue';

/** What is written into a run and has not reached the server yet, in the order in which it was said. */
export interface OutboxParts {
  readonly runId: string;
  /** @throws NotReached where there is no answer; anything else is a refusal */
  readonly send: (runId: string, entries: NewEntry[]) => Promise<Entry[]>;
  readonly isNotReached: (error: unknown) => boolean;
  readonly storage: Pick<Storage, 'getItem' | 'setItem' | 'removeItem'>;
  readonly onKept: (entries: readonly Entry[]) => void;
}

const AGAIN_AFTER = 2000;
const AT_ONCE = 100;
const keyOf = (runId: string) => `wick outbox ${runId}`;

export type Outbox = ReturnType<typeof createOutbox>;

/** Sends entries in their order, each until it is answered; they outlive a reload. A known one is answered as it is kept. */
export function createOutbox({ runId, send, isNotReached, storage, onKept }: OutboxParts) {
  const waiting = shallowRef<readonly NewEntry[]>(read());
  const refusal = shallowRef<string | null>(null);
  let isSending = false;
  let again: ReturnType<typeof setTimeout> | undefined;

  function read(): readonly NewEntry[] {
    try {
      const kept = JSON.parse(storage.getItem(keyOf(runId)) ?? '[]') as unknown;
      return Array.isArray(kept) ? (kept as NewEntry[]) : [];
    } catch {
      return [];
    }
  }
  function keep(next: readonly NewEntry[]): void {
    waiting.value = next;
    try {
      if (next.length === 0) storage.removeItem(keyOf(runId));
      else storage.setItem(keyOf(runId), JSON.stringify(next));
    } catch {
      // Without room on this device it is kept on the screen alone.
    }
  }

  async function flush(): Promise<void> {
    if (isSending) return;
    isSending = true;
    clearTimeout(again);
    while (waiting.value.length > 0) {
      const sent = waiting.value.slice(0, AT_ONCE);
      const ids = new Set(sent.map(({ id }) => id));
      const settle = () => keep(waiting.value.filter(({ id }) => !ids.has(id)));
      try {
        const kept = await send(runId, sent);
        settle();
        onKept(kept);
        refusal.value = null;
      } catch (error) {
        if (isNotReached(error)) {
          again = setTimeout(() => void flush(), AGAIN_AFTER);
          break;
        }
        // One that is refused does not hold up the others: they are sent singly, and it is named.
        if (sent.length > 1) await singly(sent);
        else {
          settle();
          refusal.value = (error as Error).message;
        }
        if (waiting.value.length > 0 && waiting.value[0] === sent[0]) break;
      }
    }
    isSending = false;
  }

  async function singly(sent: readonly NewEntry[]): Promise<void> {
    for (const entry of sent) {
      const drop = () => keep(waiting.value.filter(({ id }) => id !== entry.id));
      try {
        const kept = await send(runId, [entry]);
        drop();
        onKept(kept);
      } catch (error) {
        if (isNotReached(error)) {
          again = setTimeout(() => void flush(), AGAIN_AFTER);
          return;
        }
        drop();
        refusal.value = (error as Error).message;
      }
    }
  }

  return {
    waiting,
    refusal,
    say(entry: NewEntry): void {
      keep([...waiting.value, entry]);
      void flush();
    },
    flush,
    stop: () => clearTimeout(again),
  };
}
