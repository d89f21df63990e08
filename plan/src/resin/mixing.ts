import type { Entry } from '@wick/contract/run/run';
import { readMix, type MixReading, type RatioWindow, type Weighed } from '@wick/core/mix/ratio';
import { isOf, type EntryOf } from '../run/state.ts';

export type Component = 'resin' | 'hardener';
type MixStep = EntryOf<'mixStep'>['body']['step'];

/** A batch on the scale, by what was said of it. */
export interface Mix {
  /** Of the entry that began it. */
  readonly id: string;
  readonly begun: EntryOf<'mixBegun'>['body'];
  readonly by: string;
  /** What counts as nothing on the scale, kg; null before it has been set. */
  readonly zero: number | null;
  /** kg of each that is in it. */
  readonly poured: Weighed;
  readonly pours: readonly EntryOf<'poured'>[];
  /** When resin and hardener met, ms since 1970; null before that. */
  readonly contactAt: number | null;
  readonly steps: ReadonlySet<MixStep>;
}

/** Every batch of a run, in the order in which they were begun. @param entries those that count, in order of happening */
export function mixesOf(entries: readonly Entry[]): Mix[] {
  return entries.filter(isOf('mixBegun')).map((begun): Mix => {
    const of = <K extends 'tared' | 'poured' | 'contact' | 'mixStep'>(kind: K) =>
      entries.filter(isOf(kind)).filter(({ body }) => (body as { mixId: string }).mixId === begun.id);
    const pours = of('poured');
    const sum = (what: Component) =>
      pours.filter(({ body }) => body.what === what).reduce((all, { body }) => all + body.mass, 0);
    const met = of('contact').map(({ at }) => Date.parse(at));
    const firstOf = (what: Component) => pours.find(({ body }) => body.what === what)?.at;
    const both = [firstOf('resin'), firstOf('hardener')];
    const poured = both.every((at) => at !== undefined)
      ? Math.max(...both.map((at) => Date.parse(at!)))
      : null;
    return {
      ...{ id: begun.id, begun: begun.body, by: begun.by },
      zero: zeroOf(entries, begun.id),
      poured: { resin: sum('resin'), hardener: sum('hardener') },
      pours,
      contactAt: met.length > 0 ? Math.min(...met) : poured,
      steps: new Set(of('mixStep').map(({ body }) => body.step)),
    };
  });
}

/** As it was set last, or as the scale stood when a pour was taken. */
function zeroOf(entries: readonly Entry[], mixId: string): number | null {
  return entries.reduce<number | null>((zero, { body }) => {
    if (body.kind === 'tared' && body.mixId === mixId) return body.value;
    return body.kind === 'poured' && body.mixId === mixId && zero !== null ? body.zero : zero;
  }, null);
}

/** What a pour would come to if it were taken as it is now: what has to be added then, kg, and to how much; null where nothing has. */
export function afterTaking(
  mix: Mix,
  { what }: NextPour,
  amount: number,
  rule: MixRule,
): { readonly what: Component; readonly mass: number; readonly total: number } | null {
  const poured = { ...mix.poured, [what]: mix.poured[what] + amount };
  const state = mixState({ ...mix, poured }, rule);
  return state.at === 'pour' ? { what: state.next.what, mass: state.next.mass, total: state.total } : null;
}

/** Of each batch the one that was begun last: those before it were thrown away. */
export const currentMixes = (mixes: readonly Mix[]): Mix[] =>
  mixes.filter(({ begun }, n) => !mixes.slice(n + 1).some((later) => later.begun.number === begun.number));

/** When the resin of a run was first mixed, ms since 1970: the fuse burns from there. Null before that. */
export const firstContact = (mixes: readonly Mix[]): number | null =>
  currentMixes(mixes).reduce<number | null>(
    (first, { contactAt }) =>
      contactAt !== null && (first === null || contactAt < first) ? contactAt : first,
    null,
  );

/** What has to be poured next, kg. */
export interface NextPour {
  readonly what: Component;
  /** Of this pour; and between which it is good. */
  readonly mass: number;
  readonly from: number;
  readonly to: number;
  /** It makes good what was too much of the other. */
  readonly isCorrection: boolean;
}

/** A mix as it stands: what comes next, or that it is right. */
export type MixState =
  | { readonly at: 'tare' }
  | {
      readonly at: 'pour';
      readonly next: NextPour;
      readonly total: number;
      readonly reading: MixReading | null;
    }
  | { readonly at: 'mixed'; readonly reading: MixReading };

/** Resin may miss its mark by this share: the hardener follows what was poured. Common practice, no source. */
const RESIN_BAND = 0.05;

/** By what a mix is judged. */
export interface MixRule {
  /** Hardener to 100 of resin by weight, and how far hardener may be off. */
  readonly parts: number;
  readonly window: RatioWindow;
  /** Of the scale, kg: closer than half of it nobody weighs. */
  readonly step: number;
}

/** Where a mix stands, and what has to be poured next. */
export function mixState(mix: Mix, { parts, window, step }: MixRule): MixState {
  const { begun, poured, zero } = mix;
  if (zero === null) return { at: 'tare' };
  const q = parts / 100;
  // Taken too early, it is poured on; hardener comes when the resin is in.
  if (poured.hardener === 0 && poured.resin < begun.resin * (1 - RESIN_BAND)) {
    const next = {
      ...({ what: 'resin', mass: begun.resin - poured.resin, isCorrection: false } as const),
      from: begun.resin * (1 - RESIN_BAND) - poured.resin,
      to: begun.resin * (1 + RESIN_BAND) - poured.resin,
    };
    return { at: 'pour', next, total: begun.resin * (1 + q), reading: null };
  }
  const reading = readMix(poured, parts, window);
  if (reading.isWithin) return { at: 'mixed', reading };
  const { what, mass } = reading.add!;
  const isCorrection = poured.hardener > 0;
  if (what === 'hardener') {
    const whole = q * poured.resin;
    return {
      at: 'pour',
      next: {
        ...{ what, mass, isCorrection },
        from: Math.max(step / 2, whole * (1 + window.from) - poured.hardener),
        to: whole * (1 + window.to) - poured.hardener,
      },
      total: reading.total,
      reading,
    };
  }
  // Resin until the hardener that is in it is no more than may be, and no less.
  return {
    at: 'pour',
    next: {
      ...{ what, mass, isCorrection: true },
      from: Math.max(step / 2, poured.hardener / q / (1 + window.to) - poured.resin),
      to: window.from > -1 ? poured.hardener / q / (1 + window.from) - poured.resin : Infinity,
    },
    total: reading.total,
    reading,
  };
}

/** What to say of an amount on the scale against what is to be poured. */
export interface PourState {
  readonly tone: 'under' | 'good' | 'over';
  /** kg still to pour; below 0 too much. */
  readonly left: number;
}

export function pourState(next: NextPour, amount: number): PourState {
  const left = next.mass - amount;
  return { tone: amount < next.from ? 'under' : amount > next.to ? 'over' : 'good', left };
}

/** What is odd about the readings of a scale while it is poured by; null where nothing is. */
export function scaleTrouble(
  readings: readonly { readonly at: number; readonly value: number }[],
  now: number,
  step: number,
): 'silent' | 'fell' | 'creeps' | null {
  const last = readings.at(-1);
  if (!last || now - last.at > SILENT) return 'silent';
  const lately = readings.filter(({ at }) => last.at - at <= LATELY);
  const most = Math.max(...lately.map(({ value }) => value));
  if (most - last.value > FALLS * step) return 'fell';
  const window = readings.filter(({ at }) => last.at - at <= CREEP_TIME);
  const span = last.at - (window[0]?.at ?? last.at);
  if (span < 0.8 * CREEP_TIME) return null;
  // Nobody pours so slowly for so long.
  const values = window.map(({ value }) => value);
  const quarter = Math.max(1, Math.floor(values.length / 4));
  const crept = Math.abs(mean(values.slice(-quarter)) - mean(values.slice(0, quarter))) / step;
  const spread = (Math.max(...values) - Math.min(...values)) / step;
  return crept > CREEPS && spread < DRIPS ? 'creeps' : null;
}

const mean = (values: readonly number[]) => values.reduce((sum, value) => sum + value, 0) / values.length;

/** ms, and steps of the display. */
const SILENT = 5000;
const LATELY = 8000;
const FALLS = 5;
const CREEP_TIME = 20_000;
const CREEPS = 2.5;
const DRIPS = 10;

/** A reading that can be taken: the last ones hardly differ. */
export function isSteady(
  readings: readonly { readonly at: number; readonly value: number }[],
  step: number,
): boolean {
  const last = readings.at(-1);
  if (!last) return false;
  const lately = readings.filter(({ at }) => last.at - at <= STEADY);
  const values = lately.map(({ value }) => value);
  return lately.length >= 3 && Math.max(...values) - Math.min(...values) <= 1.01 * step;
}
const STEADY = 1600;
