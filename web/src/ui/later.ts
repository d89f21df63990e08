import { defineAsyncComponent, type Component } from 'vue';
import Fetching from './Fetching.vue';
import { later, type Load } from './leisure.ts';

const AGAIN = 2000;

/** A component whose code comes later; while the server does not answer it says so, and tries again. */
export const laterComponent = <T extends Component>(load: Load<{ default: T } | T>) =>
  defineAsyncComponent<T>({
    loader: later(load) as Load<T>,
    loadingComponent: Fetching,
    onError: (_, retry) => setTimeout(retry, AGAIN),
  });
