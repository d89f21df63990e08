import type { LedgerRow, LedgerWhat, ResinLedger } from '@wick/core/ledger/resin-ledger';
import type { BatchFault, Hindrance, PlannedBatch } from '@wick/core/mix/schedule';
import { SAFE_RISE } from '@wick/core/resin/pot';
import { formatClock } from '@wick/core/units/format';
import type { SetBatch } from './batches.ts';
import type { Draw } from './draw.ts';
import type { FeedPot } from './pots.ts';
import type { Remedy, Suggestion } from './suggest.ts';

type ShowMass = (mass: number) => string;

/** What asks for a line of the ledger. */
export function rowWords({ what, name, sources }: LedgerRow): string {
  const said: Partial<Record<LedgerWhat, string>> = {
    cup: 'A film stays on the mixing bucket, one a batch.',
    heel: 'Covers the end of the hose to the last, in every pot.',
    reserve: 'Mixed on top of all that is reckoned with.',
    opens: 'Behind the front the bag presses less, and the plies take more.',
    vents: 'Runs through the vents before they are shut.',
  };
  return said[what] ?? (sources.length > 0 ? `${name}: lit on the plan.` : name);
}

/** Why the quick rule says otherwise than the ledger. */
export function quickRuleWords({ rows, total, quickRule }: ResinLedger, show: ShowMass): string {
  const massOf = (isOwn: (row: ResinLedger['rows'][number]) => boolean) =>
    rows.filter(isOwn).reduce((sum, { mass }) => sum + mass, 0);
  const inPlies = massOf(({ what }) => what === 'plies' || what === 'opens');
  const beside = total - inPlies;
  const fibre = quickRule - 1;
  const off = quickRule - total;
  const plies = `It takes as much resin as fibre, ${show(fibre)}; these plies hold ${show(inPlies)}.`;
  const rest = `Its kilogram stands for all else, which is ${show(beside)} here.`;
  const sum =
    Math.abs(off) < 0.05 * total
      ? 'Here both say the same.'
      : off > 0
        ? `By the rule ${show(off)} would be left over to heat itself.`
        : `By the rule ${show(-off)} would be missing: the bucket runs dry.`;
  return `${plies} ${rest} ${sum}`;
}

const batchName = (n: number) => `Batch ${n + 1}`;

/** What is wrong with set batches: what, when, why it matters, and what to do. */
export function faultWords(fault: BatchFault, batches: readonly SetBatch[], { pots }: Draw): string {
  const name = fault.batch === null ? null : batchName(fault.batch);
  const where = pots.length > 1 ? ` in ${pots[fault.pot]!.pot.name}` : '';
  const at = formatClock(fault.time);
  switch (fault.kind) {
    case 'dry': {
      const next = batches.findIndex(({ pot, pouredAt }) => pot === fault.pot && pouredAt > fault.time);
      return `If it goes fast the resin${where} is down to the end of the hose at ${at}: it would draw air. ${
        next < 0
          ? 'Mix more.'
          : `${batchName(next)} has to be in by then: mix it ${Math.ceil((batches[next]!.pouredAt - fault.time) / 60)} min earlier, or more before it.`
      }`;
    }
    case 'stay':
      return `${name} stays too long: at ${at} it is past its usable time or has warmed by ${SAFE_RISE} K, and if it goes slowly it is still in the pot${where}. Mix it later, or less of it.`;
    case 'capacity':
      return `${name} does not fit: the pot${where} is more than eight tenths full at ${at} if it goes slowly. Pour it later, mix less, or take a larger pot.`;
    case 'largestMix':
      return `${name} is more than the mixing bucket holds at eight tenths. Take a larger bucket, or mix less at a time.`;
    case 'mixers':
      return `${name} would be mixed while the one before it still is. Mix it later, or let two mix.`;
    case 'short':
      return `What is mixed${where} is less than the ledger asks for. Let the last batch take the rest.`;
  }
}

const hindranceWords: Readonly<Record<Hindrance, string>> = {
  stay: 'each batch grows too old or too warm in the pot before it is drawn',
  mixers: 'the next batch is needed before one pair of hands has mixed it',
  capacity: 'the feed pot does not hold enough to bridge the mixing of the next batch',
  largestMix:
    'the mixing bucket is too small: more than eight batches would be needed, or one too soon after the other',
  several: 'age, mixing, pot and bucket stand in the way together',
};

function remedyWords({ what, value, batchCount }: Remedy): string {
  const batches = batchCount === 1 ? 'one batch does' : `${batchCount} batches do`;
  switch (what) {
    case 'mixers':
      return `With ${value === 2 ? 'two' : value} who mix ${batches}.`;
    case 'cooler':
      return `With shop and resin ${value} K cooler ${batches}.`;
    case 'resin':
      return `With ${value} ${batches}.`;
    case 'pots':
      return `With the feeds on two pots ${batches}.`;
    case 'trays':
      return `Spread out in trays, where nothing heats itself, ${batches}.`;
  }
}

/** A suggestion in words: its batches, or why there are none and what would help. */
export function suggestionWords(
  suggestion: Suggestion,
  pots: readonly Pick<FeedPot, 'name'>[],
  show: ShowMass,
): string[] {
  if (suggestion.isFeasible) return suggestion.batches.map((batch, n) => plannedWords(batch, n, pots, show));
  const { hindrance, remedies } = suggestion;
  return [
    `No batches do: ${hindranceWords[hindrance]}.`,
    ...(remedies.length > 0
      ? remedies.map(remedyWords)
      : ['Nor does anything simple help: split the part, slow the fill, or take a resin that lasts longer.']),
  ];
}

function plannedWords(
  { pot, mixedAt, pouredAt, mass }: PlannedBatch,
  n: number,
  pots: readonly Pick<FeedPot, 'name'>[],
  show: ShowMass,
): string {
  const into = pots.length > 1 ? ` into ${pots[pot]!.name}` : '';
  return `${batchName(n)}: ${show(mass)}, mix at ${formatClock(mixedAt)}, pour${into} by ${formatClock(pouredAt)}`;
}
