import type { Phase } from '@wick/contract/steps';
import { isOf, type RunState } from '../run/state.ts';
import { phaseNames, type Card, type CardStep } from './step.ts';
import { isReady, lastTouch } from './surface.ts';
import type { RunTimer } from './timers.ts';

/** A point past which work does not go by itself. */
export interface Hold {
  readonly id: string;
  readonly title: string;
  /** What it keeps shut. */
  readonly before: readonly Phase[];
  readonly isOpen: boolean;
  /** Why it is shut, and what opens it. */
  readonly why: string;
  readonly todo: string;
  /** A step that opens it when it is done once more; null where there is none. */
  readonly again: string | null;
  /** Who went on past it, and for what reason; null where nobody has, or things have changed since. */
  readonly overruled: { readonly by: string; readonly why: string; readonly at: number } | null;
}

interface Seen {
  /** Steps that are done or left out, and when those that are done were, ms since 1970. */
  readonly settled: ReadonlySet<string>;
  readonly doneAt: ReadonlyMap<string, number>;
  readonly timers: readonly RunTimer[];
}
/** Since when it stands so, ms since 1970. */
type BareHold = Omit<Hold, 'overruled' | 'again'> & { readonly since: number; readonly again?: string };

/** Every hold point of a card, open or shut. */
export function holdsOf(card: Card, state: RunState, seen: Seen): Hold[] {
  const bare = [
    ...releasedHold(card, seen),
    ...clockHolds(card, state, seen),
    ...touchHold(card, state, seen),
    ...tightHold(card, state),
  ];
  return bare.map(({ since, again = null, ...hold }) => {
    const said = state.entries
      .filter(isOf('overruled'))
      .filter(({ at, body }) => body.holdId === hold.id && Date.parse(at) >= since)
      .at(-1);
    return {
      ...hold,
      again,
      overruled: said ? { by: said.by, why: said.body.why, at: Date.parse(said.at) } : null,
    };
  });
}

/** The first phase of the card that comes after one and is not left out as a whole: what waits for the one waits before it. */
function phaseAfter(card: Card, phase: Phase, seen: Seen): Phase | null {
  const n = card.phases.findIndex((own) => own.phase === phase);
  const later = n < 0 ? [] : card.phases.slice(n + 1);
  return later.find((own) => !isLeftOut(own.steps, seen))?.phase ?? null;
}
const isLeftOut = (steps: readonly CardStep[], { settled, doneAt }: Seen): boolean =>
  steps.every(({ id }) => settled.has(id) && !doneAt.has(id));
/** A step of it was done, since a time; one that is left out begins nothing. */
const hasBegun = (card: Card, phase: Phase, { doneAt }: Seen, since = 0): boolean =>
  card.steps.some((step) => step.phase === phase && (doneAt.get(step.id) ?? -1) >= since);

/** Nothing is laid on a mould whose release is not finished. */
function releasedHold(card: Card, seen: Seen): BareHold[] {
  const before = phaseAfter(card, 'release', seen);
  if (before === null || hasBegun(card, before, seen)) return [];
  const open = card.steps.filter(({ id, phase }) => phase === 'release' && !seen.settled.has(id));
  const first = open[0];
  return [
    {
      ...{ id: 'released', title: 'Release is on', before: [before], since: 0 },
      isOpen: open.length === 0,
      why: first
        ? `${open.length === 1 ? 'One coat is' : `${open.length} coats are`} still to be laid: ${first.what || first.title}.`
        : '',
      todo: 'Lay them on, or leave the phase out with a reason: a part that sticks costs the mould.',
    },
  ];
}

/** Where the finger says when it is time, it outranks the clock. */
const byTouch = (phase: Phase): 'gelCoat' | 'barrier' | null =>
  phase === 'gelCoat' || phase === 'barrier' ? phase : null;

/** Clocks that run from one phase into another, from the same phase together. */
function crossings(card: Card, seen: Seen) {
  const found = new Map<Phase, { from: CardStep; to: Phase; timers: RunTimer[] }>();
  for (const timer of seen.timers) {
    const from = card.steps.find(({ id }) => id === timer.stepId);
    const end = card.steps.find(({ id }) => id === timer.endsWith);
    if (!from || !end || from.phase === end.phase) continue;
    const to = phaseAfter(card, from.phase, seen);
    if (to === null || hasBegun(card, to, seen, timer.startedAt)) continue;
    const known = found.get(from.phase);
    if (known) known.timers.push(timer);
    else found.set(from.phase, { from, to, timers: [timer] });
  }
  return [...found.values()];
}

/** Clocks that end in another phase keep it shut before their time, and after. */
function clockHolds(card: Card, state: RunState, seen: Seen): BareHold[] {
  return crossings(card, seen).flatMap(({ from, to, timers }): BareHold[] => {
    const before = [to];
    const name = phaseNames[to];
    const startedAt = Math.max(...timers.map((timer) => timer.startedAt));
    const where = byTouch(from.phase);
    const isFirm = where !== null && isReady(lastTouch(state, where, startedAt)?.body.word);
    const waiting = timers.filter((timer) => timer.state === 'waiting').map(({ word }) => `“${word}”`);
    const early: BareHold = {
      ...{ id: `early-${from.phase}`, title: `${name} not before its time`, before, since: startedAt },
      isOpen: waiting.length === 0 || isFirm,
      why: `${waiting.length === 1 ? 'This clock still runs' : 'These clocks still run'}: ${waiting.join(', ')}.`,
      todo: `Wait before ${name.toLowerCase()} begins.`,
    };
    const window = timers.find(({ closesAt }) => closesAt !== null);
    if (!window) return [early];
    return [
      early,
      {
        ...{ id: `late-${from.phase}`, title: `${name} inside its window`, before, since: window.closesAt! },
        isOpen: window.state !== 'closed',
        ...(from.phase === 'release' ? { again: from.id } : {}),
        why: `The window for ${name.toLowerCase()} after ${phaseNames[from.phase].toLowerCase()} has closed.`,
        todo:
          from.phase === 'release'
            ? 'Lay on one more coat: its window then begins anew.'
            : 'What is laid now bonds to a cured face: abrade it and clean it first.',
      },
    ];
  });
}

/** Gel coat takes the next layer when nothing stays on the finger. */
function touchHold(card: Card, state: RunState, seen: Seen): BareHold[] {
  const before = phaseAfter(card, 'gelCoat', seen);
  const passSteps = card.steps.filter(({ each }) => each === 'gelPass');
  if (before === null || hasBegun(card, before, seen) || isLeftOut(passSteps, seen)) return [];
  const passes = new Set(passSteps.map(({ id }) => id));
  const lastPass = state.entries
    .filter(isOf('done'))
    .filter(({ body }) => passes.has(body.stepId))
    .at(-1);
  const since = lastPass ? Date.parse(lastPass.at) : 0;
  const word = lastPass ? (lastTouch(state, 'gelCoat', since)?.body.word ?? null) : null;
  return [
    {
      ...{ id: 'touch-gelCoat', title: 'Gel coat leaves nothing on the finger', before: [before], since },
      isOpen: isReady(word),
      why: !lastPass
        ? 'The gel coat is not on yet.'
        : word === null
          ? 'Nobody has touched it since the last pass.'
          : 'It still comes off on the finger.',
      todo: 'Touch it with a clean glove at its thickest place, and say what you feel. Laid on too early it wrinkles.',
    },
  ];
}

/** Nothing is mixed for a bag that has not been shown to hold. */
function tightHold(card: Card, state: RunState): BareHold[] {
  if (!card.steps.some(({ id }) => id === 'drop-test')) return [];
  const last = state.shutTimes.at(-1);
  const isOpened = state.valve === 'letGo';
  const verdict = last?.judged?.verdict ?? null;
  const since = Math.max(last?.from ?? 0, isOpened ? (state.valveSince ?? 0) : 0);
  const why = isOpened
    ? 'Air was let into the bag since it was tested.'
    : verdict === 'leaks'
      ? 'The last drop test found a leak.'
      : verdict === 'cannotTell'
        ? 'The last drop test could not tell.'
        : 'No drop test of this part has been judged.';
  return [
    {
      ...{ id: 'tight', title: 'The bag holds', before: ['mix', 'infuse'], since },
      isOpen: verdict === 'passes' && !isOpened,
      why,
      todo: 'Pull, shut, read and judge under Vacuum; mend what it finds.',
    },
  ];
}
