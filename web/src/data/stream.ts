import { routes } from '@wick/contract/api';
import { streamSchemas, type StreamData, type StreamKind } from '@wick/contract/run/stream';
import { ref } from 'vue';

type Heard<K extends StreamKind> = (data: StreamData<K>) => void;

/** After so long without a word, ms, the server counts as lost; it is asked again after so long. */
const LOST_AFTER = 9000;
const AGAIN_AFTER = 3000;

/** What the stream needs of the browser. */
export interface StreamSource {
  addEventListener(kind: string, listener: (event: MessageEvent<string>) => void): void;
  close(): void;
  onerror: ((event: Event) => void) | null;
  readonly readyState: number;
}

const CLOSED = 2;

/**
 * What happens in the workshop, as the server tells it. The browser comes back by itself and says how far it had heard; where it gives
 * up it is begun anew, and everybody is told that there may be a gap.
 */
export function createStream(open: () => StreamSource = () => new EventSource(routes.stream.path)) {
  const listeners = new Map<StreamKind, Set<(data: never) => void>>();
  const isLost = ref(false);
  /** By which the server's clock is ahead of this one, ms. */
  let ahead = 0;
  let heardAt = Date.now();
  let source: StreamSource | null = null;
  let timers: ReturnType<typeof setInterval>[] = [];
  let again: ReturnType<typeof setTimeout> | undefined;

  function tell(kind: StreamKind, data: unknown): void {
    for (const listener of listeners.get(kind) ?? []) listener(data as never);
  }

  function begin(isAnew: boolean): void {
    source = open();
    for (const kind of Object.keys(streamSchemas) as StreamKind[])
      source.addEventListener(kind, ({ data }) => {
        const read = streamSchemas[kind].safeParse(JSON.parse(data));
        if (!read.success) return;
        heardAt = Date.now();
        isLost.value = false;
        if (kind === 'clock') ahead = (read.data as { now: number }).now - Date.now();
        tell(kind, read.data);
      });
    source.onerror = () => {
      if (source?.readyState !== CLOSED) return;
      clearTimeout(again);
      again = setTimeout(() => begin(true), AGAIN_AFTER);
    };
    if (isAnew) tell('gap', {});
  }

  return {
    isLost,
    /** ms since 1970, by the server's clock */
    now: () => Date.now() + ahead,
    start(): void {
      if (source) return;
      begin(false);
      timers = [setInterval(() => (isLost.value = Date.now() - heardAt > LOST_AFTER), 1000)];
    },
    stop(): void {
      timers.forEach(clearInterval);
      clearTimeout(again);
      source?.close();
      source = null;
    },
    /** @returns by which it is ended */
    on<K extends StreamKind>(kind: K, listener: Heard<K>): () => void {
      const own = listeners.get(kind) ?? new Set();
      own.add(listener);
      listeners.set(kind, own);
      return () => void own.delete(listener);
    },
  };
}

export type Stream = ReturnType<typeof createStream>;
/** One for the whole page. */
export const stream = createStream();
