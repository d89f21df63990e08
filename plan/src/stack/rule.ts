import type { Material } from '@wick/contract/materials';
import type { Shop } from '@wick/contract/shop';
import type { FlowForecast } from '@wick/core/flow/forecast';
import type { Point } from '@wick/core/geometry/polygon';
import type { Verdict } from '@wick/core/verdict/verdict';
import type { Edit } from '../job/edits.ts';
import type { LaidJob } from '../job/laid.ts';

/** Something about a stack that practice has taught not to do: where, why, and the change that mends it. */
export interface StackBreak {
  readonly rule: string;
  /** Layer or line that breaks it; null where one is missing. */
  readonly itemId: string | null;
  readonly at: Point | null;
  readonly message: string;
  readonly fix: { readonly label: string; readonly apply: Edit } | null;
}

export interface StackContext {
  readonly shop: Shop;
  /** What the workshop has. */
  readonly materials: readonly Material[];
  /** The forecast of this very layout and its verdict; null while there is none: what they would tell is then left out. */
  readonly flow: FlowForecast | null;
  readonly verdict: Verdict | null;
  readonly show: (value: number, quantity: 'length' | 'thickness' | 'mass' | 'temperature') => string;
}

type Breaks = ((Omit<StackBreak, 'rule' | 'at'> & { readonly at?: Point }) | false)[];
/** What breaks it, in a job. */
export type Rule = (job: LaidJob, context: StackContext) => Breaks;
