import type { OpenTabs } from './drafts.ts';

const PREFIX = 'wick-tab ';

/** Makes it known that a tab is open, for as long as its page stands: the browser lets go of the lock when it ends, however it ends. */
export function announceTab(tab: string, locks: LockManager | undefined): OpenTabs {
  // Held until the page is gone.
  void locks?.request(PREFIX + tab, () => new Promise(() => undefined));
  return async () => {
    const { held = [] } = (await locks?.query()) ?? {};
    const others = held.flatMap(({ name }) => (name?.startsWith(PREFIX) ? [name.slice(PREFIX.length)] : []));
    return new Set([tab, ...others]);
  };
}
