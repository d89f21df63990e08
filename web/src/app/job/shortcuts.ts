import { onBeforeUnmount, onMounted } from 'vue';
import { isTyping } from '../../ui/typing.ts';

interface Actions {
  go: (stage: number) => void;
  undo: () => void;
  redo: () => void;
  help: () => void;
}

/** Keys that work on every job screen. */
export function useShortcuts({ go, undo, redo, help }: Actions) {
  function onKey(event: KeyboardEvent) {
    if (isTyping(event)) return;
    const command = event.ctrlKey || event.metaKey;
    const key = event.key.toLowerCase();
    if (command && key === 'z') (event.shiftKey ? redo : undo)();
    else if (command && key === 'y') redo();
    else if (!command && !event.altKey && /^[1-8]$/.test(key)) go(Number(key) - 1);
    else if (event.key === '?') help();
    else return;
    event.preventDefault();
  }
  onMounted(() => window.addEventListener('keydown', onKey));
  onBeforeUnmount(() => window.removeEventListener('keydown', onKey));
}
