import type { Step } from '@wick/contract/steps';

export const MINUTE = 60;
export const HOUR = 3600;
/** At which shops state their times, K. */
export const STATED_AT = 293.15;
export const SHEET = 'follow the safety data sheet and your site’s rules';
export const UNDER_BAG: Step['processes'] = ['infusion', 'wetLayup', 'bonding'];

type Named = Pick<Step, 'id' | 'phase' | 'title'>;

/** A step with all that is not said of it left blank. */
export const step = (named: Named, changes: Partial<Omit<Step, keyof Named>> = {}): Step => ({
  ...{ why: '', caution: '', takes: [], who: '', lasts: null, each: 'once' },
  ...{ processes: [], wait: null, photo: false, isUsed: true },
  ...named,
  ...changes,
});
