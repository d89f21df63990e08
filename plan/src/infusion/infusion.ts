import type { Entry } from '@wick/contract/run/run';
import type { DayFault, StopSchool, WarmingKind } from '@wick/contract/run/infusion-bodies';
import type { LaidJob } from '../job/laid.ts';
import { firstContact, mixesOf } from '../resin/mixing.ts';
import { isOf, type EntryOf, type RunState } from '../run/state.ts';

/** A line that was turned; times here are ms since 1970 by the clock of the run. */
export interface Turned {
  readonly entryId: string;
  readonly at: number;
  readonly lineId: string;
  readonly opening: number;
  readonly actionId: string | null;
}

/** Where the front was seen. */
export interface SeenFront {
  readonly entryId: string;
  readonly at: number;
  readonly x: number;
  readonly y: number;
  /** m, one standard deviation */
  readonly doubt: number;
  readonly markId: string | null;
}

/** What was said of the fill, in order of happening. */
export interface Infusion {
  /** When resin and hardener first met; null before that. */
  readonly contactAt: number | null;
  /** When the first feed was opened. */
  readonly openedAt: number | null;
  readonly turned: readonly Turned[];
  readonly seen: readonly SeenFront[];
  readonly bubbles: readonly EntryOf<'bubbles'>[];
  /** Into the pot, kg. */
  readonly poured: readonly { readonly at: number; readonly mass: number }[];
  readonly potLeft: readonly { readonly at: number; readonly mass: number }[];
  readonly decided: readonly EntryOf<'decided'>[];
  readonly school: StopSchool | null;
  readonly allWetAt: number | null;
  readonly faults: readonly { readonly at: number; readonly fault: DayFault; readonly did: string }[];
  readonly warming: {
    readonly at: number;
    readonly is: WarmingKind;
    readonly temperature: number | null;
  } | null;
}

/** When resin and hardener first met, ms since 1970; null before that. @param entries that count */
export function contactOf(entries: readonly Entry[]): number | null {
  const met = [
    firstContact(mixesOf(entries)),
    ...entries.filter(isOf('mixed')).map(({ at }) => Date.parse(at)),
  ];
  const known = met.filter((at) => at !== null);
  return known.length > 0 ? Math.min(...known) : null;
}

/** A cure is followed for so long, ms: the slowest is through by then. */
const CURES = 5 * 86_400_000;

/** Resin has been mixed, and may still cure. */
export function isCuring(entries: readonly Entry[], now: number): boolean {
  const met = contactOf(entries);
  return met !== null && now < met + CURES;
}

/** @param state entries that count, in the order of their times */
export function infusionOf({ entries }: Pick<RunState, 'entries'>, job: Pick<LaidJob, 'lines'>): Infusion {
  const all = <K extends Entry['body']['kind']>(kind: K) => entries.filter(isOf(kind));
  const timed = <T extends Entry>(entry: T) => Date.parse(entry.at);
  const feeds = new Set(job.lines.filter(({ kind }) => kind === 'feed').map(({ id }) => id));
  const turned = all('valve').map((entry): Turned => {
    const { lineId, opening, actionId } = entry.body;
    return { entryId: entry.id, at: timed(entry), lineId, opening, actionId };
  });
  const warming = all('warming').at(-1);
  return {
    contactAt: contactOf(entries),
    openedAt: turned.find(({ lineId, opening }) => feeds.has(lineId) && opening > 0)?.at ?? null,
    turned,
    seen: all('front').map((entry): SeenFront => {
      const { x, y, doubt, markId } = entry.body;
      return { entryId: entry.id, at: timed(entry), x, y, doubt, markId };
    }),
    bubbles: all('bubbles'),
    poured: [
      ...all('batchPoured').map((entry) => ({ at: timed(entry), mass: entry.body.mass })),
      ...mixesInPot(entries),
    ].sort((a, b) => a.at - b.at),
    potLeft: all('potLeft').map((entry) => ({ at: timed(entry), mass: entry.body.mass })),
    decided: all('decided'),
    school: all('school').at(-1)?.body.is ?? null,
    allWetAt: all('allWet').map(timed)[0] ?? null,
    faults: all('fault').map((entry) => ({ at: timed(entry), fault: entry.body.fault, did: entry.body.did })),
    warming: warming
      ? { at: timed(warming), is: warming.body.is, temperature: warming.body.temperature }
      : null,
  };
}

/** Batches mixed by the sheet, when each was poured into the pot. */
function mixesInPot(entries: readonly Entry[]): { at: number; mass: number }[] {
  const mixes = new Map(mixesOf(entries).map((mix) => [mix.id, mix]));
  return entries.filter(isOf('mixStep')).flatMap(({ at, body }) => {
    const mix = body.step === 'inPot' ? mixes.get(body.mixId) : undefined;
    return mix ? [{ at: Date.parse(at), mass: mix.poured.resin + mix.poured.hardener }] : [];
  });
}

/** How far a line stands open now: by what was said last, else as the plan has it once the fill has begun. */
export function openingNow(
  { turned, openedAt }: Pick<Infusion, 'turned' | 'openedAt'>,
  line: Pick<LaidJob['lines'][number], 'id' | 'kind' | 'startsOpen'>,
): number {
  const last = turned.findLast(({ lineId }) => lineId === line.id);
  if (last) return last.opening;
  return line.kind === 'vent' || openedAt !== null ? Number(line.startsOpen) : 0;
}
