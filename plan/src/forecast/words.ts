import type { Finding } from '@wick/core/flow/findings';
import { formatClock } from '@wick/core/units/format';
import type { Band } from '@wick/core/verdict/rule';
import type { Verdict } from '@wick/core/verdict/verdict';
import type { Unentered, UnenteredEffect } from './unentered.ts';

export const bandWords: Record<Band, string> = {
  comfortable: 'Comfortable',
  tight: 'Tight',
  gamble: 'A gamble',
  willNotFill: 'Will not fill',
  drySpot: 'Stays dry in places',
  airTrapped: 'Traps air',
};

/** How a band is to be taken: well, with care, or as trouble. */
export type Tone = 'moss' | 'amber' | 'ember';
export const bandTones: Record<Band, Tone> = {
  comfortable: 'moss',
  tight: 'amber',
  gamble: 'ember',
  willNotFill: 'ember',
  drySpot: 'ember',
  airTrapped: 'ember',
};
/** What is in doubt, by the name of the input. */
export const inputWords: Record<string, string> = {
  permeability: 'how well resin runs in mesh and laminate',
  thickness: 'the laminate’s thickness',
  viscosity: 'the resin’s viscosity',
  gelTime: 'the resin’s gel time',
  temperature: 'the temperature',
  raceTracking: 'resin racing along edges',
};

/** Good enough to go ahead with. */
export const isSound = (band: Band) => bandTones[band] !== 'ember';

/** Dry regions by letter, the largest first: "Dry A". */
export const dryName = (index: number) => `Dry ${String.fromCharCode(65 + (index % 26))}`;

const minutes = (seconds: number) => `${Math.round(seconds / 60)}`;

/** "22 to 31 min", or where gel comes first, the words for it. */
export function likelyWords({ likely }: Pick<Verdict, 'likely'>): string {
  if (!Number.isFinite(likely.from)) return 'gels first, even with luck';
  return Number.isFinite(likely.to)
    ? `${minutes(likely.from)} to ${minutes(likely.to)} min`
    : `${minutes(likely.from)} min, or gels first`;
}

/** "93 in 100 (90 to 95)" */
export function chanceWords({
  chance,
  chanceRange,
}: {
  chance: number;
  chanceRange: { readonly from: number | null; readonly to: number | null };
}): string {
  const { from, to } = chanceRange;
  const hundred = (share: number) => Math.round(100 * share);
  const range = from === null || to === null ? '' : ` (${hundred(from)} to ${hundred(to)})`;
  return `${hundred(chance)} in 100${range}`;
}

/** What ends the time in which resin flows: "gel", or the end of what its data say about a pot so warm. */
export const endName = ({ endsUnknown }: { readonly endsUnknown: boolean }): string =>
  endsUnknown ? 'data end' : 'gel';

const endWords = ({ endsUnknown, gelTime }: Pick<Verdict, 'endsUnknown' | 'gelTime'>) =>
  endsUnknown
    ? `its pot is warmer than the resin’s data cover from ${formatClock(gelTime)} on,`
    : `the resin gels at ${formatClock(gelTime)}`;

/** The verdict in a sentence: what, by how much, and how sure. */
export function verdictSentence(verdict: Verdict): string {
  const { band, timeUsed, reachedFraction } = verdict;
  const share = (fraction: number) => `${Math.round(100 * fraction)} %`;
  const odds = `${chanceWords(verdict)} fill`;
  if (band === 'drySpot')
    return `Stays dry in places: ${share(reachedFraction)} of the part fills, the rest has no way for the resin or the air.`;
  if (band === 'willNotFill')
    return `Will not fill: ${endWords(verdict)} with ${share(reachedFraction)} of the part wet; ${odds}.`;
  const base = `${share(timeUsed)} of the usable time is gone at the last corner`;
  return band === 'airTrapped'
    ? `Traps air, although the front gets everywhere: ${base}.`
    : `${bandWords[band]}: ${base}; ${odds}.`;
}

/** What the last corner takes, told apart: of the usable time, of the way to gel, of the flow until gel; none where it does not fill. */
export function usedWords(
  verdict: Pick<Verdict, 'fillTime' | 'usableTime' | 'timeUsed' | 'lifeUsed' | 'flowUsed'>,
): { readonly share: string; readonly what: string }[] {
  if (!Number.isFinite(verdict.fillTime)) return [];
  const share = (part: number) => `${Math.round(100 * part)} %`;
  return [
    { share: share(verdict.timeUsed), what: `of the usable time, to ${minutes(verdict.usableTime)} min` },
    { share: share(verdict.lifeUsed), what: 'of the way to gel' },
    { share: share(verdict.flowUsed), what: 'of the flow until gel' },
  ];
}

/** Why layers matter here: the band that the laminate averaged through its thickness would have. */
export const lagWarning = (without: Band, band: Band): string =>
  `Averaged through the thickness this would read “${bandWords[without]}”; with mesh and plies told apart, and the lag of the mould side, it reads “${bandWords[band]}”.`;

/** What a value that nobody has entered does to the answer. */
export function unenteredWords({ range }: Pick<Unentered, 'range'>, effect: UnenteredEffect): string {
  const { fill, gel, bands } = effect;
  const ends = (times: readonly [number, number]) =>
    [Math.min(...times), Math.max(...times)].map((time) => (Number.isFinite(time) ? minutes(time) : null));
  const span = (times: readonly [number, number]) => {
    const [from, to] = ends(times);
    return to === null ? `${from} min or never` : from === to ? `${from} min` : `${from} to ${to} min`;
  };
  const wet = Number.isFinite(Math.min(...fill)) ? `wet at ${span(fill)}` : 'never wet';
  const moved = minutes(gel[0]) === minutes(gel[1]) ? '' : `, gel at ${span(gel)}`;
  const [least, most] = bands.map((band) => bandWords[band].toLowerCase());
  const band = least === most ? `${least} either way` : `${least}, or ${most}`;
  return `with ${range} the last corner is ${wet}${moved}: ${band}`;
}

/** What was found in a run, in a sentence: what, when, and what to do about it. */
export function findingWords(
  finding: Finding,
  write: {
    clock: (time: number) => string;
    show: (value: number, quantity: 'absolutePressure' | 'thickness') => string;
    /** Name of a line by its id. */
    nameOf: (lineId: string) => string;
  },
): string {
  const share = (fraction: number) => `${Math.round(100 * fraction)} %`;
  switch (finding.kind) {
    case 'ventFloodsEarly':
      return `${write.nameOf(finding.lineId)} floods at ${write.clock(finding.time)} with ${share(1 - finding.filled)} of the part still dry: the mesh runs up to it. End the mesh short of the vent, or put a brake between.`;
    case 'bagFloats':
      return `The bag floats from ${write.clock(finding.time)} on: resin stands at ${write.show(finding.pressure, 'absolutePressure')}, above the air outside. Lower the pot or throttle the feed.`;
    case 'neverTriggers':
      return `${write.nameOf(finding.lineId)} never ${finding.opening > 0 ? 'opens' : 'shuts'}: what it waits for does not come. Choose another trigger.`;
    case 'hoseTakes':
      return `The hose of ${write.nameOf(finding.lineId)} takes ${share(finding.share)} of the pressure half way through. A wider or shorter hose fills sooner.`;
    case 'cornersBetweenVents': {
      const reach = write.show(finding.reach, 'thickness');
      const corners = finding.count === 1 ? 'A corner' : `${finding.count} corners`;
      return `${corners} between open vents may stay dry over the last ${reach}: with vacuum on both sides nothing drives resin in, and it comes nearer ever more slowly. The forecast counts no further; what does not wick stays dry. Clamp each vent once resin is there, or leave the corner without one.`;
    }
  }
}
