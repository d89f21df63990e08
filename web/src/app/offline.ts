import { ref } from 'vue';
import { registerSW } from 'virtual:pwa-register';

/** Set where a newer version of the program has come and waits: takes it, and opens this page anew. */
export const newerVersion = ref<(() => Promise<void>) | null>(null);

/** Keeps the program on this device, where the browser does so: on this machine, or over a secure connection. */
export function installForOffline(): void {
  const update = registerSW({ onNeedRefresh: () => (newerVersion.value = () => update(true)) });
}

const KEPT = ['wick-data', 'wick-pictures'];

/** What was kept of jobs and runs. */
export async function forgetData(): Promise<void> {
  if ('caches' in window) await Promise.all(KEPT.map((name) => caches.delete(name)));
}
