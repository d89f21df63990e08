/** Lets through so many a second on the average, and so many at once; each name for itself. @param now ms, steady */
export function createPace({ perSecond, atOnce }: { perSecond: number; atOnce: number }, now: () => number) {
  const buckets = new Map<string, { left: number; at: number }>();
  return (name: string): boolean => {
    const at = now();
    const bucket = buckets.get(name) ?? { left: atOnce, at };
    const left = Math.min(atOnce, bucket.left + ((at - bucket.at) / 1000) * perSecond);
    buckets.set(name, { left: left >= 1 ? left - 1 : left, at });
    return left >= 1;
  };
}
