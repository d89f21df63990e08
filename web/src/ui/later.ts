import { defineAsyncComponent, type Component } from 'vue';
import Fetching from './Fetching.vue';

/**
 * Code that the first view does without. It is fetched when it is first shown, or at leisure once that view stands: from
 * then on work goes on without the server.
 */
type Load<T> = () => Promise<T>;

const waiting: Load<unknown>[] = [];
const AGAIN = 2000;

/** The same load, fetched at leisure too. */
export function later<T>(load: Load<T>): Load<T> {
  waiting.push(load);
  return load;
}

/** A component whose code comes later; while the server does not answer it says so, and tries again. */
export const laterComponent = <T extends Component>(load: Load<{ default: T } | T>) =>
  defineAsyncComponent<T>({
    loader: later(load) as Load<T>,
    loadingComponent: Fetching,
    onError: (_, retry) => setTimeout(retry, AGAIN),
  });

/** Fetches what waits, one after the other; what that brings in and waits in turn comes too. */
export async function fetchRest() {
  for (let load = waiting.shift(); load; load = waiting.shift())
    try {
      await load();
    } catch {
      // The server does not answer: it is fetched when it is shown.
    }
}
