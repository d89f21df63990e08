/** All of the newest are kept; further back every second, every fourth, and so on, with each doubling of the distance. */
const NEWEST = 20;

/** Whether an earlier state stays. By the count of writes, so that no clock decides what is forgotten. */
export function isKept(revision: number, newest: number): boolean {
  const distance = newest - revision;
  if (distance <= NEWEST) return true;
  const spacing = 2 ** Math.ceil(Math.log2(distance / NEWEST));
  return revision === 1 || revision % spacing === 0;
}
