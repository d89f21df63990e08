import type { MaterialOf } from '@wick/contract/materials';
import {
  partsByVolume,
  partsByWeight,
  type ComponentDensities,
  type RatioWindow,
} from '@wick/core/mix/ratio';
import { chemistryOf } from '@wick/core/resin/resin-system';

type Resin = MaterialOf<'resin'>;

/** Hardener of an amine may be off by so much where its sheet does not say: common practice, no source. */
const AMINE = 0.02;
/** Peroxide without a table: common practice, no source. */
const PEROXIDE = 0.1;
/** Two ratios of a sheet say the same within so much. */
const AGREES = 0.03;

/** What the second component of a system is called. */
export const hardenerWord = (resin: Resin): 'hardener' | 'catalyst' =>
  chemistryOf(resin) === 'radical' ? 'catalyst' : 'hardener';

/** Densities of the two components; null where the sheet does not give both. */
export const densitiesOf = ({ resinDensity, hardenerDensity }: Resin): ComponentDensities | null =>
  resinDensity && hardenerDensity ? { resin: resinDensity, hardener: hardenerDensity } : null;

/** What its sheet's ratio by volume comes to by weight; null where either is not given. */
function weightFromVolume(resin: Resin): number | null {
  const densities = densitiesOf(resin);
  return densities && resin.hardenerVolumeParts ? partsByWeight(resin.hardenerVolumeParts, densities) : null;
}

/** Hardener to 100 of resin by volume, as the sheet has it or converted; null without densities. */
export function volumePartsOf(resin: Resin): number | null {
  const densities = densitiesOf(resin);
  return resin.hardenerVolumeParts ?? (densities && partsByVolume(resin.hardenerParts, densities));
}

/** How far hardener may be off: as the sheet says, inside the table of a peroxide cure, or as is usual. */
export function ratioWindowOf(resin: Resin): RatioWindow {
  const { hardenerWindow, gelTable, hardenerParts } = resin;
  if (hardenerWindow) return { from: -hardenerWindow.below, to: hardenerWindow.above };
  if (gelTable) {
    const { catalyst } = gelTable;
    const least = catalyst[0]! / hardenerParts - 1;
    const most = catalyst[catalyst.length - 1]! / hardenerParts - 1;
    return { from: Math.max(-PEROXIDE, Math.min(0, least)), to: Math.min(PEROXIDE, Math.max(0, most)) };
  }
  const usual = chemistryOf(resin) === 'amine' ? AMINE : PEROXIDE;
  return { from: -usual, to: usual };
}

/** The narrower side of a window: how closely the scale has to weigh. */
export const toleranceOf = (resin: Resin): number => {
  const { from, to } = ratioWindowOf(resin);
  const sides = [-from, to].filter((side) => side > 0);
  return sides.length > 0 ? Math.min(...sides) : AMINE;
};

/** Hardener to 100 of resin, as it is said: to three figures. */
export const partsText = (value: number): string => String(Number(value.toPrecision(3)));

/**
 * Why a ratio by weight, hardener to 100 of resin, is not taken, and which is; null where nothing speaks against it.
 * @param sheet the system as its data sheet has it
 */
export function ratioFault(typed: number, sheet: Resin): string | null {
  if (!(typed > 0))
    return 'A ratio is above 0 parts of hardener to 100 of resin. Enter what the data sheet says.';
  const { gelTable, hardenerVolumeParts, name } = sheet;
  if (gelTable) {
    const { catalyst } = gelTable;
    const [least, most] = [catalyst[0]!, catalyst[catalyst.length - 1]!];
    return typed >= least && typed <= most
      ? null
      : `The table of ${name} runs from ${partsText(least)} to ${partsText(most)} % of catalyst; ${partsText(typed)} % is outside it, and it is not guessed. Work inside the table or ask the supplier.`;
  }
  const converted = weightFromVolume(sheet);
  const right = converted ?? sheet.hardenerParts;
  const isNear = (value: number, other: number) => Math.abs(value / other - 1) <= AGREES;
  if (isNear(typed, right)) return null;
  if (hardenerVolumeParts && isNear(typed, hardenerVolumeParts))
    return `${partsText(typed)} to 100 is the ratio of ${name} by volume. On a scale it is ${partsText(right)} to 100: the hardener is lighter than the resin. Mixed as typed it would have ${Math.round(100 * (typed / right - 1))} % too much hardener.`;
  if (isNear(1e4 / typed, right))
    return `${partsText(typed)} to 100 is the ratio of ${name} the wrong way round: ${partsText(right)} of hardener go to 100 of resin.`;
  const off = `${partsText(typed)} to 100 is ${Math.round(100 * Math.abs(typed / right - 1))} % ${typed > right ? 'more' : 'less'} hardener than ${name} takes (${partsText(right)} to 100 by weight).`;
  return chemistryOf(sheet) === 'amine'
    ? `${off} An amine is not made quicker or slower by its ratio: what is too much stays soft. Choose a quicker or slower hardener.`
    : `${off} Work inside what its data sheet allows.`;
}

/** The two ratios on the sheet do not say the same; null where they do, or only one is given. */
export function ratiosDisagree(sheet: Resin): string | null {
  const converted = weightFromVolume(sheet);
  if (converted === null || Math.abs(sheet.hardenerParts / converted - 1) <= AGREES) return null;
  return `${sheet.name}: ${partsText(sheet.hardenerVolumeParts!)} to 100 by volume comes to ${partsText(converted)} to 100 by weight, but ${partsText(sheet.hardenerParts)} is entered. One of the two, or a density, is wrong: look at the data sheet before mixing.`;
}
