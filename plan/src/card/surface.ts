import type { JobPrep } from '@wick/contract/job/prep';
import type { TouchWord } from '@wick/contract/run/card-bodies';
import { isOf, type EntryOf, type RunState } from '../run/state.ts';

/** What a finger may say of a surface, and what that means for it. */
export const touchChoices: Readonly<
  Record<EntryOf<'touched'>['body']['where'], readonly { word: TouchWord; label: string; means: string }[]>
> = {
  gelCoat: [
    { word: 'transfers', label: 'Comes off on the finger', means: 'too early for the next layer' },
    { word: 'tacky', label: 'Tacky, nothing on the finger', means: 'ready for the next layer' },
    { word: 'noTransfer', label: 'Dry to the touch', means: 'ready, and its window runs' },
  ],
  barrier: [
    { word: 'transfers', label: 'Comes off on the finger', means: 'still soft' },
    { word: 'tacky', label: 'Tacky, nothing on the finger', means: 'may be laid on' },
    { word: 'dry', label: 'Hard and dry', means: 'look for air under it, then lay on' },
  ],
  laminate: [
    { word: 'pools', label: 'Pools in the fingerprint', means: 'resin enough' },
    { word: 'damp', label: 'Damp', means: 'a little more' },
    { word: 'dry', label: 'Dry', means: 'starved: wet it again' },
  ],
};

/** Nothing stays on the finger: the next layer may come. */
export const isReady = (word: TouchWord | null | undefined): boolean =>
  word === 'tacky' || word === 'noTransfer' || word === 'dry';

export const touchLabel = ({ where, word }: EntryOf<'touched'>['body']): string =>
  touchChoices[where].find((choice) => choice.word === word)?.label ?? word;

/** What was said of a surface last, since a time, ms since 1970. */
export const lastTouch = (
  { entries }: Pick<RunState, 'entries'>,
  where: EntryOf<'touched'>['body']['where'],
  since = 0,
): EntryOf<'touched'> | null =>
  entries
    .filter(isOf('touched'))
    .filter(({ at, body }) => body.where === where && Date.parse(at) >= since)
    .at(-1) ?? null;

type GelCoat = NonNullable<JobPrep['gelCoat']>;

/** Wet film that a pass is to bring it to: passes are alike. @param pass from 1 */
export function filmAfter({ passes, film }: GelCoat, pass: number): GelCoat['film'] {
  const share = Math.min(pass, passes) / passes;
  return { low: share * film.low, high: share * film.high };
}

/** A comb reading on the plan, against what its pass is to have brought. */
export interface CombReading {
  readonly entryId: string;
  readonly pass: number;
  readonly x: number;
  readonly y: number;
  readonly film: number;
  readonly state: 'thin' | 'within' | 'thick';
}

export function combReadings({ entries }: Pick<RunState, 'entries'>, gelCoat: GelCoat): CombReading[] {
  return entries.filter(isOf('comb')).map(({ id, body: { pass, x, y, film } }) => {
    const { low, high } = filmAfter(gelCoat, pass);
    return {
      ...{ entryId: id, pass, x, y, film },
      state: film < low ? 'thin' : film > high ? 'thick' : 'within',
    };
  });
}

export const combWords: Readonly<Record<CombReading['state'], string>> = {
  thin: 'Thin: it wrinkles under the next layer. Lay on more there.',
  within: 'Within its range.',
  thick: 'Thick: it may crack and hold its solvent. Brush it out while it is wet.',
};

/** How many readings are asked for: three and one a square metre, ten at most; common practice asks for several, no source. */
export const combsWanted = (area: number): number => Math.min(10, 3 + Math.ceil(area));
