import { ref } from 'vue';

const KEY = 'wick name';
const LONGEST = 40;

/** Who uses this screen, as they last said. */
export const ownName = ref(localStorage.getItem(KEY) ?? '');

export function keepOwnName(name: string): void {
  ownName.value = name.trim().slice(0, LONGEST);
  localStorage.setItem(KEY, ownName.value);
}
