import { ref, watch } from 'vue';
import { Workbox } from 'workbox-window';

/** Set where a newer version of the program has come and waits: takes it, and opens this page anew. */
export const newerVersion = ref<(() => void) | null>(null);

/** Not while a page still works on what it shows first: what that wants from network and processor goes first. */
export const firstViewStands = ref(true);
const LEISURE = 4000;

/** Keeps the program on this device, where the browser does so: on this machine, or over a secure connection. */
export function installForOffline(): void {
  if (!import.meta.env.PROD || !('serviceWorker' in navigator)) return;
  const box = new Workbox('/sw.js');
  const offer = () => {
    newerVersion.value = () => {
      box.addEventListener('controlling', () => location.reload());
      box.messageSkipWaiting();
    };
  };
  box.addEventListener('waiting', offer);
  // A browser that keeps no program for this page goes on without.
  const register = () => void box.register().catch(() => undefined);
  setTimeout(() => {
    if (firstViewStands.value) register();
    else watch(firstViewStands, register, { once: true });
  }, LEISURE);
}

const KEPT = ['wick-data', 'wick-pictures'];

/** What was kept of jobs and runs. */
export async function forgetData(): Promise<void> {
  if ('caches' in window) await Promise.all(KEPT.map((name) => caches.delete(name)));
}
