/** ms that the reference task takes on the machine that the limits in tests were chosen on, when it is quiet. */
const QUIET = 60;

/**
 * By how much this machine, as busy as it is now, is slower than the one that limits were chosen on. A task of floating point and small objects
 * is timed three times; a faster machine counts as that one.
 * @returns 1 or more
 */
export function paceHere() {
  const times = [1, 2, 3].map(() => {
    const began = performance.now();
    referenceTask();
    return performance.now() - began;
  });
  return Math.max(1, Math.max(...times) / QUIET);
}

function referenceTask() {
  let sum = 0;
  const kept = new Map();
  for (let n = 0; n < 400_000; n++) {
    sum += Math.exp(Math.sin(n));
    kept.set(n % 1000, { n, sum });
  }
  return sum + kept.size;
}
