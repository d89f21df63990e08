import { MOST_RUNS_BEHIND, type LearnedSide } from '@wick/contract/material/learned';
import type { Material } from '@wick/contract/materials';
import type { Evidence } from '@wick/contract/run/review-bodies';
import { learnFactors, RUN_SCATTER, type RunTold, type Unlearned } from '@wick/core/learning/factors';
import { NINE_IN_TEN } from '@wick/core/verdict/verdict';
import { doubtBefore } from '../job/entry-doubt.ts';
import { baseOf, factorIn, sidesOf, type LearnedOffer } from './learned-values.ts';

/** What one run told, as it stands in the book. */
export interface RunEvidence {
  readonly runId: string;
  readonly evidence: readonly Evidence[];
}

/** What the library could learn of one side of an entry. */
export interface Offer extends LearnedOffer {
  readonly materialId: string;
  readonly name: string;
  readonly side: LearnedSide;
  /** As it stands in the library now. */
  readonly now: { readonly factor: number; readonly doubt: number; readonly runIds: readonly string[] };
  /** It differs from what was taken last. */
  readonly isNews: boolean;
  /** x/÷ from run to run. */
  readonly scatter: number;
}

const idOf = (materialId: string, side: LearnedSide, base: string) => `${materialId} ${side} ${base}`;
/** Of values that are no longer in the library, or were typed anew since: nobody knows. */
const UNKNOWN = Math.log(3) / NINE_IN_TEN;
/** Sides that act together in one measurement are learned together. */
interface Together {
  readonly sides: readonly LearnedSide[];
  /** Which of them differs from part to part: a resin is the same throughout, cloth is laid anew. */
  readonly differs: LearnedSide;
  /** Standard deviation of ln of that, before the workshop has its own. From memory. */
  readonly usual: number;
}
const together: readonly Together[] = [
  { sides: ['permeability', 'viscosity'], differs: 'permeability', usual: RUN_SCATTER },
  { sides: ['gelTime'], differs: 'gelTime', usual: 0.08 },
  { sides: ['compaction'], differs: 'compaction', usual: 0.03 },
];
/** Written to so many digits. */
const rounded = (value: number) => Number(value.toPrecision(4));

/**
 * What all runs together say of the library: each side of each entry by its share, its doubt, and how far runs differ.
 * @param library as it stands  @param book evidence of each run once, oldest first: the latest count, as many as an entry names
 * @returns those that any run told of, by name
 */
export function offersOf(library: readonly Material[], book: readonly RunEvidence[]): Offer[] {
  const known = library.flatMap((material) =>
    sidesOf(material).map((side) => ({
      material,
      side,
      id: idOf(material.id, side, baseOf(material, side)),
    })),
  );
  return together
    .flatMap(({ sides, differs, usual }) => {
      const runs = book.slice(-MOST_RUNS_BEHIND).flatMap((run) => toldBy(run, sides));
      const named = new Set(runs.flatMap(({ shares }) => [...shares.keys()]));
      const own = known.filter(({ id }) => named.has(id));
      const values: Unlearned[] = [
        ...own.map(({ id, material, side }) => ({
          id,
          deviation: Math.log(doubtBefore(material, side)) / NINE_IN_TEN,
        })),
        ...[...named]
          .filter((id) => !own.some((one) => one.id === id))
          .map((id) => ({ id, deviation: UNKNOWN })),
      ];
      const { factors, scatter } = learnFactors(values, runs, usual);
      return own.map(({ material, side }, k): Offer => {
        const { factor, ahead, deviation, runIds } = factors[k]!;
        const here = material.learned?.[side];
        return {
          ...{ materialId: material.id, name: material.name, side, runIds },
          scatter: Math.exp(NINE_IN_TEN * scatter),
          factor: rounded(factor),
          doubt: rounded(Math.exp(NINE_IN_TEN * (side === differs ? ahead : deviation))),
          now: {
            factor: factorIn(material, side),
            doubt: here ? 1 + here.doubt : doubtBefore(material, side),
            runIds: here?.runIds ?? [],
          },
          isNews:
            [...runIds].sort().join() !== [...(here?.runIds ?? [])].sort().join() ||
            Math.abs(rounded(factor) / factorIn(material, side) - 1) > 2e-3,
        };
      });
    })
    .sort((a, b) => a.name.localeCompare(b.name, 'en') || a.side.localeCompare(b.side));
}

/** Against the values as they were before anything was learned. */
function toldBy({ runId, evidence }: RunEvidence, sides: readonly LearnedSide[]): RunTold[] {
  return evidence
    .filter(({ side }) => sides.includes(side))
    .map(({ told, deviation, parts }): RunTold => {
      const shares = new Map<string, number>();
      for (const { materialId, side, share, base } of parts) {
        const id = idOf(materialId, side, base);
        shares.set(id, (shares.get(id) ?? 0) + share);
      }
      const used = parts.reduce((sum, part) => sum + part.share * Math.log(part.used), 0);
      return { runId, shares, told: told + used, deviation };
    });
}
