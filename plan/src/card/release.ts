import type { Mould } from '@wick/contract/mould';
import type { Coat, ReleaseRecipe, StepLibrary } from '@wick/contract/steps';
import { byDate, pullsSinceCoat } from '../mould/words.ts';

/** One coat of a release system on this mould. */
export interface LaidCoat {
  readonly name: string;
  /** Of its kind, from 1. */
  readonly number: number;
  readonly count: number;
  /** From the first coat of all, s, where nothing is late. */
  readonly at: number;
  readonly haze: number | null;
  /** Until what follows it may begin, s; and by when that has to have begun. */
  readonly opens: number;
  readonly closes: number | null;
  readonly isLast: boolean;
}

/** The system a job names, or the first of the library where it names none or one that is gone. */
export const recipeOf = ({ recipes }: Pick<StepLibrary, 'recipes'>, id: string | null): ReleaseRecipe =>
  recipes.find((recipe) => recipe.id === id) ?? recipes[0]!;

/** Nothing has been pulled from it yet, as far as its record says. */
const isNewMould = (mould: Pick<Mould, 'history'> | null): boolean =>
  mould !== null && !mould.history.some(({ kind }) => kind === 'pull');

/** Every coat in its order: how many there are depends on whether the mould is new. */
export function coatsOf(recipe: ReleaseRecipe, mould: Pick<Mould, 'history'> | null): LaidCoat[] {
  const isNew = isNewMould(mould);
  const countOf = ({ count, onNew }: Coat) => (isNew ? (onNew ?? count) : count);
  let at = 0;
  const coats = recipe.coats.flatMap((coat) => {
    const count = countOf(coat);
    return Array.from({ length: count }, (_, n): LaidCoat => {
      const opens = n + 1 < count ? coat.apart : coat.after;
      const own = {
        name: coat.name,
        number: n + 1,
        count,
        at,
        haze: coat.haze,
        opens,
        closes: null,
        isLast: false,
      };
      at += opens;
      return own;
    });
  });
  return coats.map((coat, n) =>
    n + 1 < coats.length ? coat : { ...coat, closes: recipe.within, isLast: true },
  );
}

/** From the first coat until the mould may be used, s. */
export const releaseDuration = (coats: readonly LaidCoat[]): number =>
  coats.reduce((sum, { opens }) => sum + opens, 0);

/** What speaks against a release system on this mould, each in a sentence. */
export function releaseFaults(recipe: ReleaseRecipe, mould: Pick<Mould, 'history'> | null): string[] {
  const isWaxed = recipe.coats.some(({ name }) => /wax/i.test(name));
  const before = mould && byDate(mould.history).find(({ kind }) => kind === 'coat');
  const isSlick =
    before !== null &&
    before !== undefined &&
    /seal|release|semi/i.test(before.text) &&
    !/wax/i.test(before.text);
  return [
    ...(recipe.kind === 'film' && !isWaxed
      ? [
          `${recipe.name} has no wax under it: film beads on a semi-permanent release. Put a coat of wax before it.`,
        ]
      : []),
    ...(recipe.kind === 'wax' && isSlick
      ? [
          `This mould had “${before.text}” on ${before.date}: wax over it is for going back to wax. Clean it down first, or stay with that.`,
        ]
      : []),
    ...(isNewMould(mould) &&
    recipe.coats.every(({ onNew }) => onNew === null) &&
    recipe.kind !== 'semiPermanent'
      ? ['Nothing has been pulled from this mould yet: a new one takes more coats than a used one.']
      : []),
  ];
}

/** Whether the last application still serves, in a sentence; null where each part gets its own. */
export function applicationWords(recipe: ReleaseRecipe, mould: Pick<Mould, 'history'> | null): string | null {
  if (recipe.pulls === null || mould === null) return null;
  const pulls = pullsSinceCoat(mould.history);
  if (pulls === null) return null;
  const times = pulls === 1 ? 'once' : `${pulls} times`;
  return pulls < recipe.pulls
    ? `Pulled ${times} since it was last coated, and one application lasts for ${recipe.pulls}: these coats may be left out.`
    : `Pulled ${times} since it was last coated, and one application lasts for ${recipe.pulls}: coat it again.`;
}
