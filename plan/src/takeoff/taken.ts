import type { Material } from '@wick/contract/materials';
import type { Shop } from '@wick/contract/shop';

/** What is counted: square metres, metres, kilograms, pieces. */
export type TakenUnit = 'area' | 'length' | 'mass' | 'piece';

/** A thing to fetch, with what asked for it. */
export interface TakenItem {
  /** In order of use. */
  readonly phase: 'plies' | 'stack' | 'lines' | 'resin' | 'hands';
  readonly name: string;
  readonly material: Material | null;
  readonly amount: number;
  readonly unit: TakenUnit;
  /** "peel ply, 20 mm past the edge: 1.2 m of a roll 1.5 m wide" */
  readonly why: string;
  /** Weight, kg; null where nobody has said what it weighs. */
  readonly weight: number | null;
  /** In the workshop's money, spread over the parts it serves; null where it has no price. */
  readonly cost: number | null;
  /** It comes back to be used again. */
  readonly comesBack: boolean;
  /** From the shelf, partly, or all to buy; null where nobody has counted the shelf. */
  readonly shelf: {
    readonly inStock: number;
    readonly toBuy: number;
    readonly isBelowMinimum: boolean;
  } | null;
}

/** A thing before it is priced. */
export type Bare = Omit<TakenItem, 'cost' | 'comesBack' | 'shelf' | 'weight'> & {
  /** kg a unit; null where it is not known. */
  readonly each: number | null;
  /** Parts it serves, where the job says so. */
  readonly uses?: number | null;
};

export interface TakeOffRequest {
  readonly shop: Shop;
  /** What the workshop has: prices and shelf are those of today. */
  readonly materials: readonly Material[];
  readonly people: number;
  readonly hours: number;
}

/** Hands on a usual day: common practice, no source. */
export const USUAL_CREW = { people: 2, hours: 4 } as const;
