/** Wrong tries of one address that cost no wait, the first wait, ms, and the longest. */
const FREE = 3;
const FIRST_WAIT = 2000;
const LONGEST_WAIT = 15 * 60_000;
/** Wrong tries of all addresses together in so long, ms, from which on everyone waits: many addresses may be one hand. */
const MOST_TOGETHER = 60;
const TOGETHER = 10 * 60_000;
const MOST_ADDRESSES = 10_000;

interface Tries {
  count: number;
  until: number;
}

/** Counts wrong tries, each making the wait longer. @param now ms, of a clock that only goes forward */
export function createAttempts(now: () => number) {
  const byAddress = new Map<string, Tries>();
  const underWay = new Set<string>();
  let lately: number[] = [];

  return {
    /** Time to wait before a next try, ms; 0 where one may be made. */
    waitFor(address: string): number {
      lately = lately.filter((time) => now() - time < TOGETHER);
      const together = lately.length >= MOST_TOGETHER ? lately[0]! + TOGETHER - now() : 0;
      const own = (byAddress.get(address)?.until ?? 0) - now();
      return Math.max(0, together, own);
    },
    /** One try at a time: a second one while the first is looked at would be a free one. */
    begin(address: string): boolean {
      if (underWay.has(address)) return false;
      underWay.add(address);
      return true;
    },
    end(address: string, wasRight: boolean): void {
      underWay.delete(address);
      if (wasRight) return void byAddress.delete(address);
      lately.push(now());
      const tries = byAddress.get(address) ?? { count: 0, until: 0 };
      tries.count += 1;
      const wait = tries.count > FREE ? FIRST_WAIT * 2 ** (tries.count - FREE - 1) : 0;
      tries.until = now() + Math.min(LONGEST_WAIT, wait);
      byAddress.delete(address);
      byAddress.set(address, tries);
      if (byAddress.size > MOST_ADDRESSES) byAddress.delete(byAddress.keys().next().value!);
    },
  };
}
