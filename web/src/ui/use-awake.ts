import { onScopeDispose, ref, type Ref } from 'vue';

/** Keeps the screen on while the page is in sight. @returns whether the browser does so */
export function useAwake(): Ref<boolean> {
  const isAwake = ref(false);
  let lock: WakeLockSentinel | null = null;
  let isOver = false;

  async function take(): Promise<void> {
    // Not every browser has it, and none where a page is not served securely.
    if (document.hidden || !('wakeLock' in navigator)) return;
    try {
      const taken = await navigator.wakeLock.request('screen');
      if (isOver) return void taken.release();
      lock = taken;
      isAwake.value = true;
      lock.addEventListener('release', () => (isAwake.value = false));
    } catch {
      isAwake.value = false;
    }
  }
  const onTurn = () => void take();
  document.addEventListener('visibilitychange', onTurn);
  void take();
  onScopeDispose(() => {
    isOver = true;
    document.removeEventListener('visibilitychange', onTurn);
    void lock?.release();
  });
  return isAwake;
}
