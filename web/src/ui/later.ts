import { defineAsyncComponent, type Component } from 'vue';
import Fetching from './Fetching.vue';

const AGAIN = 2000;

/** A component whose code comes when it is shown; while the server does not answer it says so, and tries again. */
export const laterComponent = <T extends Component>(load: () => Promise<{ default: T } | T>) =>
  defineAsyncComponent<T>({
    loader: load as () => Promise<T>,
    loadingComponent: Fetching,
    onError: (_, retry) => setTimeout(retry, AGAIN),
  });
