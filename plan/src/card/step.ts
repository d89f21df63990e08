import { LONGEST_TITLE } from '@wick/contract/run/card-bodies';
import type { Phase, ReleaseRecipe, Step } from '@wick/contract/steps';
import type { Point } from '@wick/core/geometry/polygon';

/** A clock that starts when a step is done; s at the temperature where one is given, K. */
export interface Wait {
  readonly word: string;
  readonly opens: number;
  readonly closes: number | null;
  readonly temperature: number | null;
  /** The step that ends it; null where nothing follows. */
  readonly endsWith: string | null;
}

/** A part of a step that is ticked by itself; one that has another before it waits for that. */
export interface Tick {
  readonly id: string;
  readonly what: string;
  readonly after: string | null;
}

/** One step of the card, as the job has filled it in. */
export interface CardStep {
  readonly id: string;
  readonly phase: Phase;
  readonly title: string;
  /** What of the job it is about, where it is about one thing of several. */
  readonly what: string;
  /** Beside it: angle, place, when. */
  readonly detail: string;
  readonly why: string;
  readonly caution: string;
  readonly takes: readonly string[];
  readonly who: string;
  /** s */
  readonly lasts: number | null;
  readonly waits: readonly Wait[];
  readonly ticks: readonly Tick[];
  readonly photo: boolean;
  readonly each: Step['each'];
  /** The thing of the job it is about, and where that lies. */
  readonly aboutId: string | null;
  readonly places: readonly Point[];
}

export interface CardPhase {
  readonly phase: Phase;
  readonly name: string;
  readonly steps: readonly CardStep[];
}

export interface Card {
  readonly phases: readonly CardPhase[];
  readonly steps: readonly CardStep[];
  readonly recipe: ReleaseRecipe;
}

export const phaseNames: Readonly<Record<Phase, string>> = {
  mould: 'Mould',
  release: 'Release',
  gelCoat: 'Gel coat',
  barrier: 'Skin coat',
  layUp: 'Lay-up',
  bag: 'Bag',
  leakCheck: 'Leak check',
  mix: 'Mix',
  infuse: 'Infuse',
  cure: 'Cure',
  debag: 'Debag',
  demould: 'Demould',
  trim: 'Trim',
  weigh: 'Weigh',
};

/** How a step is called in the log and on paper. */
export const stepTitle = ({ title, what }: Pick<CardStep, 'title' | 'what'>): string =>
  (what === '' ? title : `${title} ${what}`).slice(0, LONGEST_TITLE);
