import { fromVersion1 } from './from-1.ts';
import { fromVersion2 } from './from-2.ts';
import { fromVersion3 } from './from-3.ts';
import { fromVersion4 } from './from-4.ts';
import { fromVersion5 } from './from-5.ts';
import { fromVersion6 } from './from-6.ts';
import { fromVersion7 } from './from-7.ts';
import { fromVersion8 } from './from-8.ts';
import { fromVersion9 } from './from-9.ts';
import type { Raw } from './raw.ts';

/** The step from each version to the next. */
const steps: Readonly<Record<number, (raw: Raw) => Raw>> = {
  1: fromVersion1,
  2: fromVersion2,
  3: fromVersion3,
  4: fromVersion4,
  5: fromVersion5,
  6: fromVersion6,
  7: fromVersion7,
  8: fromVersion8,
  9: fromVersion9,
};

/**
 * Brings a job document of an earlier version up to this one, before it is checked. What is not as it should be is left
 * for the check to name. The same document always comes out the same.
 */
export function migrateJob(raw: Raw): Raw {
  let document = raw;
  for (let step = steps[Number(document.version)]; step; step = steps[Number(document.version)])
    document = step(document);
  return document;
}
