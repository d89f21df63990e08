import { MOST_RUNS_BEHIND } from '@wick/contract/material/learned';
import { mouldSides, type Mould, type MouldSide } from '@wick/contract/mould';
import type { BookLine } from '@wick/contract/review';
import { learnFactors, type RunTold } from '@wick/core/learning/factors';
import { normalCdf } from '@wick/core/verdict/sampling';
import { NINE_IN_TEN } from '@wick/core/verdict/verdict';
import { leakWords } from '../vacuum/words.ts';

/** A side of a mould before its parts said anything. From memory. */
interface Before {
  /** What is usual: Pa m3/s of a sound bag; drawn as planned. */
  readonly middle: number;
  /** x/÷ by which a mould may differ from that, and by which its parts differ from each other. */
  readonly doubt: number;
  readonly scatter: number;
  /** Standard deviation of ln of one measurement. */
  readonly measuring: number;
}
const before: Readonly<Record<MouldSide, Before>> = {
  leak: { middle: 5e-4, doubt: 10, scatter: 2, measuring: 0.2 },
  drawn: { middle: 1, doubt: 1.2, scatter: 1.06, measuring: 0.02 },
};
const deviation = (factor: number) => Math.log(factor) / NINE_IN_TEN;

export interface MouldLearned {
  /** Middle of the next part: Pa m3/s that the bag lets in; resin drawn over what was planned. */
  readonly value: number;
  /** x/÷ of the next part */
  readonly doubt: number;
  readonly runIds: readonly string[];
}
/** What a mould's record could learn of one side. */
export interface MouldOffer extends MouldLearned {
  readonly side: MouldSide;
  /** As it stands in the record; null where nothing does. */
  readonly now: MouldLearned | null;
  readonly isNews: boolean;
  /** x/÷ from part to part */
  readonly scatter: number;
}

export const learnedOf = ({ learned }: Mould, side: MouldSide): MouldLearned | null => {
  const own = learned?.[side];
  return own ? { ...own, doubt: 1 + own.doubt } : null;
};

/** A part that stayed dry drew less for another reason; a bag that let nothing in that could be told tells nothing here. */
function measuredOf({ figures }: Pick<BookLine, 'figures'>, side: MouldSide): number | null {
  const { leak, drawn, fill } = figures;
  if (side === 'leak') return leak.measured !== null && leak.measured > 0 ? leak.measured : null;
  const { planned, measured } = drawn;
  return fill.measured === null || !planned || !measured || measured <= 0 ? null : measured / planned;
}

const rounded = (value: number) => Number(value.toPrecision(4));

/**
 * What the parts in the book say of the mould they were made on.
 * @param book each run once, oldest first: the latest count, as many as a record names
 */
export function mouldOffersOf(
  mould: Mould,
  book: readonly Pick<BookLine, 'runId' | 'figures'>[],
): MouldOffer[] {
  const own = book.filter(({ figures }) => figures.mouldId === mould.id).slice(-MOST_RUNS_BEHIND);
  return mouldSides.flatMap((side) => {
    const { middle, doubt, scatter: usual, measuring } = before[side];
    const runs = own.flatMap((line): RunTold[] => {
      const value = measuredOf(line, side);
      return value === null
        ? []
        : [
            {
              runId: line.runId,
              shares: new Map([[side, 1]]),
              told: Math.log(value / middle),
              deviation: measuring,
            },
          ];
    });
    if (runs.length === 0) return [];
    const { factors, scatter } = learnFactors(
      [{ id: side, deviation: deviation(doubt) }],
      runs,
      deviation(usual),
    );
    const { factor, ahead, runIds } = factors[0]!;
    const now = learnedOf(mould, side);
    return [
      {
        ...{
          side,
          now,
          runIds,
          value: rounded(middle * factor),
          doubt: rounded(Math.exp(NINE_IN_TEN * ahead)),
        },
        scatter: Math.exp(NINE_IN_TEN * scatter),
        isNews: now === null || [...now.runIds].sort().join() !== [...runIds].sort().join(),
      },
    ];
  });
}

/** A mould's record with what was learned of a side; null takes it out. */
export function withMouldLearned(mould: Mould, side: MouldSide, offer: MouldLearned | null): Mould {
  const { learned: all = {}, ...rest } = mould;
  const { [side]: _before, ...others } = all;
  const learned = offer
    ? { ...others, [side]: { value: offer.value, doubt: offer.doubt - 1, runIds: [...offer.runIds] } }
    : others;
  return Object.keys(learned).length > 0 ? { ...rest, learned } : rest;
}

/** "0.0044 mbar·L/s"; "× 0.93" */
export const mouldValueWords = (side: MouldSide, value: number): string =>
  side === 'leak' ? leakWords(value) : `× ${value.toFixed(2)}`;

/** "Bags on Table 2 let in 0.0044 mbar·L/s, x/÷ 2.54 (measured here, 12 parts)"; null where nothing was learned. */
export function mouldWords(mould: Mould, side: MouldSide): string | null {
  const own = learnedOf(mould, side);
  if (!own) return null;
  const value = mouldValueWords(side, own.value);
  const what =
    side === 'leak'
      ? `Bags on ${mould.name} let in ${value}`
      : `Parts on ${mould.name} draw ${value} of their plan`;
  const count = own.runIds.length;
  return `${what}, x/÷ ${own.doubt.toFixed(2)} (measured here, ${count} ${count === 1 ? 'part' : 'parts'})`;
}

/** Share in reserve that nine in ten parts on the mould need no more than; null where nothing was learned. */
export function reserveFor(mould: Mould): number | null {
  const drawn = learnedOf(mould, 'drawn');
  return drawn && Math.max(0, Math.ceil(100 * (drawn.value * drawn.doubt - 1) - 1e-9) / 100);
}

/** Chance that the next bag on the mould lets in no more than a part can take; null where nothing was learned. @param limit Pa m3/s */
export function tightChance(mould: Mould, limit: number): number | null {
  const leak = learnedOf(mould, 'leak');
  return leak && normalCdf(Math.log(limit / leak.value) / deviation(leak.doubt));
}
