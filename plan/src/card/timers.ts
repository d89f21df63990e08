import type { Entry } from '@wick/contract/run/run';
import { timeOfAge, type Warmth } from '@wick/core/cure/age';
import { isOf, type EntryOf } from '../run/state.ts';

/** A clock of a run, read off its log; times ms since 1970 by the clock of the run. */
export interface RunTimer {
  readonly id: string;
  readonly word: string;
  readonly stepId: string | null;
  readonly endsWith: string | null;
  readonly startedAt: number;
  readonly opensAt: number;
  readonly closesAt: number | null;
  readonly slides: boolean;
  readonly state: 'waiting' | 'open' | 'closing' | 'closed';
  /** What has been called of it. */
  readonly told: ReadonlySet<EntryOf<'due'>['body']['what']>;
}

/** A window is closing in its last tenth, at most so long before its end, ms. */
const CLOSING_SHARE = 0.1;
const CLOSING_AT_MOST = 15 * 60_000;

/** How warm it was told to be, s since 1970 and K; where nobody has said, as warm as the workshop. */
function warmthOf(entries: readonly Entry[], usual: number): Warmth {
  const told = entries.filter(isOf('warmth'));
  return told.length === 0
    ? { times: [0], temperatures: [usual] }
    : {
        times: told.map(({ at }) => Date.parse(at) / 1000),
        temperatures: told.map(({ body }) => body.temperature),
      };
}

/** Of several steps that are one of the library's, its id. */
const kindOf = (stepId: string): string => stepId.split(':')[0]!;

/**
 * Clocks that nothing has ended yet. One that leads to another kind of work goes on where that is left out: what comes after waits for it. Of a step done once more the last clock counts; one whose step no longer counts as done has gone
 * with it.
 * @param entries that count, in the order of their times
 */
export function runningTimers(entries: readonly Entry[]): EntryOf<'timer'>[] {
  const settled = entries.flatMap(({ at, body }) =>
    body.kind === 'done' || body.kind === 'skipped'
      ? [{ stepId: body.stepId, at: Date.parse(at), isDone: body.kind === 'done' }]
      : [],
  );
  const ended = new Set(entries.filter(isOf('timerEnds')).map(({ body }) => body.timerId));
  const last = new Map<string, EntryOf<'timer'>>();
  for (const entry of entries.filter(isOf('timer')))
    last.set(entry.body.stepId === null ? entry.id : `${entry.body.stepId} ${entry.body.word}`, entry);
  return [...last.values()].filter(({ id, at, body: { stepId, endsWith } }) => {
    if (ended.has(id)) return false;
    if (stepId !== null && !settled.some((one) => one.stepId === stepId)) return false;
    const isSibling = endsWith !== null && stepId !== null && kindOf(endsWith) === kindOf(stepId);
    return !settled.some(
      (one) => one.stepId === endsWith && one.at >= Date.parse(at) && (one.isDone || isSibling),
    );
  });
}

/** A clock that nobody ended is let go after three times its span, for it may slide, and a day. */
const LET_GO_SPANS = 3;
const DAY = 86_400_000;

/** Whether any of them has still to be called, or was called so lately that somebody may not have heard. */
export const isTimed = (entries: readonly Entry[], now: number): boolean =>
  runningTimers(entries).some(({ at, body: { opens, closes } }) => {
    const span = 1000 * Math.max(opens, closes ?? 0);
    return now < Date.parse(at) + LET_GO_SPANS * span + DAY;
  });

/**
 * Clocks that run, the one due first before the others.
 * @param entries that count, in the order of their times
 * @param usual temperature where nobody has said, K
 */
export function timersOf(entries: readonly Entry[], now: number, usual: number): RunTimer[] {
  const warmth = warmthOf(entries, usual);
  const told = new Map<string, Set<EntryOf<'due'>['body']['what']>>();
  for (const { body } of entries.filter(isOf('due')))
    told.set(body.timerId, (told.get(body.timerId) ?? new Set()).add(body.what));
  return runningTimers(entries)
    .map((entry) => timerOf(entry, now, warmth, told.get(entry.id) ?? new Set()))
    .sort((a, b) => nextOf(a) - nextOf(b));
}

/** When it next wants something. */
const nextOf = ({ state, opensAt, closesAt }: RunTimer): number =>
  state === 'waiting' ? opensAt : (closesAt ?? Infinity);

function timerOf(
  { id, at, body }: EntryOf<'timer'>,
  now: number,
  warmth: Warmth,
  told: RunTimer['told'],
): RunTimer {
  const startedAt = Date.parse(at);
  const { word, stepId, endsWith, slides } = body;
  const timeOf = (age: number): number =>
    slides
      ? 1000 *
        timeOfAge(warmth, startedAt / 1000, age, {
          reference: slides.temperature,
          activationEnergy: slides.activationEnergy,
        })
      : startedAt + 1000 * age;
  const opensAt = timeOf(body.opens);
  const closesAt = body.closes === null ? null : timeOf(body.closes);
  const closing =
    closesAt === null
      ? Infinity
      : closesAt - Math.min(CLOSING_AT_MOST, CLOSING_SHARE * (closesAt - startedAt));
  const state =
    now < opensAt
      ? 'waiting'
      : closesAt !== null && now >= closesAt
        ? 'closed'
        : now >= closing
          ? 'closing'
          : 'open';
  return {
    ...{ id, word, stepId, endsWith, startedAt, opensAt, closesAt, state, told },
    slides: slides !== null,
  };
}

/** What has to be called of clocks now, and has not been. */
export function duesOf(timers: readonly RunTimer[]): EntryOf<'due'>['body'][] {
  return timers.flatMap(({ id, state, told, opensAt, startedAt }) => {
    if (state === 'waiting') return [];
    const what = state === 'open' ? 'opens' : state;
    const isNews = what === 'opens' ? opensAt > startedAt : true;
    return isNews && !told.has(what) ? [{ kind: 'due' as const, timerId: id, what }] : [];
  });
}

/** What is called out when a clock is due. */
export const dueWords: Readonly<Record<EntryOf<'due'>['body']['what'], string>> = {
  opens: 'It is time',
  closing: 'It closes soon',
  closed: 'It has closed',
};
