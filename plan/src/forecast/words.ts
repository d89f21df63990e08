import type { Finding } from '@wick/core/flow/findings';
import { formatClock } from '@wick/core/units/format';
import type { Band, Verdict } from '@wick/core/verdict/verdict';

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

/** The verdict in a sentence: what, by how much, and how sure. */
export function verdictSentence(verdict: Verdict): string {
  const { band, ageRatio, gelTime, fillTime, chance, reachedFraction } = verdict;
  const share = (fraction: number) => `${Math.round(100 * fraction)} %`;
  const odds = `about ${Math.round(100 * chance)} in 100 fill`;
  if (band === 'drySpot')
    return `Stays dry in places: ${share(reachedFraction)} of the part fills, the rest has no way for the resin or the air.`;
  if (band === 'willNotFill')
    return `Will not fill: the resin gels at ${formatClock(gelTime)} with ${share(reachedFraction)} of the part wet; ${odds}.`;
  const base = `${share(ageRatio)} of the resin’s life used at the last corner, ${minutes(gelTime - fillTime)} min before gel; ${odds}.`;
  return band === 'airTrapped'
    ? `Traps air, although the front gets everywhere: ${base}`
    : `${bandWords[band]}: ${base}`;
}

/** What was found in a run, in a sentence: what, when, and what to do about it. */
export function findingWords(
  finding: Finding,
  write: {
    clock: (time: number) => string;
    show: (value: number, quantity: 'absolutePressure') => string;
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
  }
}
