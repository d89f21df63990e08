import { ref } from 'vue';

const KEY = 'wick light';

/** How this screen is lit beside the mould: dark unless somebody has said otherwise. */
export const light = ref<'day' | 'night'>(localStorage.getItem(KEY) === 'day' ? 'day' : 'night');

export function setLight(to: 'day' | 'night'): void {
  light.value = to;
  localStorage.setItem(KEY, to);
}
