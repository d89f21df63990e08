import { AT_ONCE, drawnAt, timeDrawn, type Drawn } from './draw-down.ts';

/** What one pot has to give. */
export interface PotNeed {
  /** Drawn from it if all goes fast, and if all goes slowly; kg over s since first mix. Where the resin gels first they end before all is drawn. */
  readonly fast: Drawn;
  readonly slow: Drawn;
  /** To be drawn from it in all, kg. */
  readonly drawn: number;
  /** To be poured into it in all, kg: what is drawn, and what stays. */
  readonly total: number;
  /** Must be in it as long as it is drawn from, kg. */
  readonly floor: number;
  /** It holds so much at most, kg. */
  readonly capacity: number;
}

export interface ScheduleRequest {
  readonly pots: readonly PotNeed[];
  /** Batches that can be mixed at once. */
  readonly mixers: number;
  /** From the start of mixing until it is in the pot, s. */
  readonly preparation: number;
  /** A batch is in the pot so long before the resin would fall to the floor, s. */
  readonly spare: number;
  /** The bucket it is mixed in holds so much, kg. */
  readonly largestMix: number;
  /** How long so many kg in one pot stay safe and young enough, s since they were mixed; falls with the mass. */
  readonly stay: (mass: number) => number;
}

export interface PlannedBatch {
  readonly pot: number;
  /** s since first mix */
  readonly mixedAt: number;
  readonly pouredAt: number;
  readonly mass: number;
}

/** What stands in the way: a batch grows too old or warm, mixing takes too long, or pot or bucket are too small; several at once. */
export type Hindrance = 'stay' | 'mixers' | 'capacity' | 'largestMix' | 'several';

export type Schedule =
  | { readonly isFeasible: true; readonly batches: readonly PlannedBatch[] }
  | { readonly isFeasible: false; readonly hindrance: Hindrance };

/** Batches of one pot are so many shares of its total. */
const SHARES = 48;
const MOST_BATCHES = 8;

/**
 * The fewest batches, each mixed as late as it may be, so that no pot runs down to its floor if all goes fast, and no batch grows too
 * old or warm before it has left the pot if all goes slowly; first in, first out. The first is mixed at 0.
 *
 * Backwards over the shares of the total: with given batches, starting one later is never worse, so the latest start after each share
 * tells all that matters of the rest. Exact on its shares for one pot and one mixer; of several, what is mixed at once is moved
 * earlier and looked at again.
 * Source: dynamic programming, Bellman 1957. Checked by schedule.test.ts against trying everything on a coarse grid.
 */
export function suggestBatches(request: ScheduleRequest): Schedule {
  const batches = planned(request);
  return batches ? { isFeasible: true, batches } : { isFeasible: false, hindrance: hindranceOf(request) };
}

/** What would have to be out of the way for a schedule to be found. */
function hindranceOf(request: ScheduleRequest): Hindrance {
  const without: Record<Exclude<Hindrance, 'several'>, ScheduleRequest> = {
    mixers: { ...request, mixers: MOST_BATCHES * request.pots.length },
    largestMix: { ...request, largestMix: Infinity },
    capacity: { ...request, pots: request.pots.map((pot) => ({ ...pot, capacity: Infinity })) },
    stay: { ...request, stay: () => Infinity },
  };
  for (const [hindrance, relaxed] of Object.entries(without))
    if (planned(relaxed)) return hindrance as Hindrance;
  return 'several';
}

function planned(request: ScheduleRequest): PlannedBatch[] | null {
  const needs = request.pots.map((need, pot) => ({ need, pot })).filter(({ need }) => need.total > 0);
  const own = needs.map(({ need, pot }) => ofPot(request, need, pot));
  if (own.some((batches) => batches === null)) return null;
  const all = (own as PlannedBatch[][]).flat();
  const settled = request.mixers === 1 && needs.length === 1 ? all : sharedMixers(request, all);
  return settled && faultsOf(request, settled).length === 0 ? inOrder(settled) : null;
}

const inOrder = (batches: readonly PlannedBatch[]) =>
  [...batches].sort((a, b) => a.mixedAt - b.mixedAt || a.pot - b.pot);

/** Latest starts of what is still to come after so many shares, with so many batches at most; -Infinity where none do. */
interface Rest {
  readonly start: number;
  /** Shares after its first batch. */
  readonly next: number;
}

function ofPot(request: ScheduleRequest, need: PotNeed, pot: number): PlannedBatch[] | null {
  const { preparation, mixers } = request;
  const look = lookAt(request, need);
  const waits = mixers === 1 ? preparation : 0;
  const nothing = { start: -Infinity, next: SHARES };
  let rest: readonly Rest[] = look.masses.map((_, n) =>
    n === SHARES ? { start: Infinity, next: SHARES } : nothing,
  );
  const levels = [rest];
  while (levels.length <= MOST_BATCHES) {
    const after = rest;
    let isBetter = false;
    rest = after.map((known, from) => {
      let best = known;
      for (let to = from + 1; to <= SHARES; to++) {
        const latest = Math.min(look.latest[from], after[to].start - waits);
        // Of two that start together, the one after which the next starts later.
        const isLater =
          latest > best.start || (latest === best.start && after[to].start > after[best.next].start);
        if (isLater && latest >= 0 && isSound(look, from, to, latest)) best = { start: latest, next: to };
      }
      isBetter ||= best !== known;
      return best;
    });
    levels.push(rest);
    if (rest[0].start >= 0) return chained(look, levels, pot);
    if (!isBetter) return null;
  }
  return null;
}

/** A pot's need at every share of its total. */
interface Look {
  readonly request: ScheduleRequest;
  readonly need: PotNeed;
  /** kg */
  readonly masses: readonly number[];
  /** When the batch after so much has to be mixed, s. */
  readonly latest: readonly number[];
  /** When so much has left the pot if all goes slowly, s. */
  readonly emptied: readonly number[];
}

function lookAt(request: ScheduleRequest, need: PotNeed): Look {
  const masses = Array.from({ length: SHARES + 1 }, (_, n) => (need.total * n) / SHARES);
  return {
    ...{ request, need, masses },
    latest: masses.map((poured) => latestStart(request, need, poured)),
    emptied: masses.map((poured) => emptiedAt(need, poured)),
  };
}

/** When the batch after so much has to be mixed; the first at 0. */
function latestStart({ spare, preparation }: ScheduleRequest, { fast, floor }: PotNeed, poured: number) {
  if (poured === 0) return 0;
  const last = fast.times[fast.times.length - 1];
  return Math.min(last, timeDrawn(fast, poured - floor)) - spare - preparation;
}

/** A batch that brings what has been poured from one share to another, mixed at a time: it has room and leaves the pot in time. */
function isSound({ request, need, masses, emptied }: Look, from: number, to: number, mixedAt: number) {
  if (masses[to] - masses[from] > request.largestMix * (1 + 1e-9)) return false;
  const content = masses[to] - Math.min(masses[from], drawnAt(need.slow, mixedAt + request.preparation));
  if (content > need.capacity * (1 + 1e-9)) return false;
  return emptied[to] - mixedAt <= request.stay(content);
}

/** When the last of so much has left the pot if all goes slowly, s; what stays in it counts to the end of the draw. Infinity where it gels first. */
const emptiedAt = ({ slow, drawn }: PotNeed, poured: number): number =>
  timeDrawn(slow, Math.min(poured, drawn * (1 - 1e-9)));

/** @param levels the rests with none to the fewest batches that do */
function chained(
  { request, masses }: Look,
  levels: readonly (readonly Rest[])[],
  pot: number,
): PlannedBatch[] {
  const batches: PlannedBatch[] = [];
  let at = 0;
  for (let level = levels.length - 1; at < SHARES; level--) {
    const rest = levels[level][at];
    // One batch fewer does as well.
    if (levels[level - 1][at] === rest) continue;
    const mass = masses[rest.next] - masses[at];
    batches.push({ pot, mixedAt: rest.start, pouredAt: rest.start + request.preparation, mass });
    at = rest.next;
  }
  return batches;
}

/** Latest first, each moved earlier until a mixer is free for it; null where one would have to start before the first mix. */
function sharedMixers(
  { mixers, preparation, pots }: ScheduleRequest,
  batches: readonly PlannedBatch[],
): PlannedBatch[] | null {
  const opensAt = ({ pot }: PlannedBatch) => pots[pot].fast.times[0] - preparation;
  // The first of another pot than the first mixed may wait until its own feeds open.
  const wanted = batches.map((batch) =>
    batch.mixedAt > 0 ? batch : { ...batch, mixedAt: Math.max(0, opensAt(batch)) },
  );
  const first = wanted.reduce((a, b) => (b.mixedAt < a.mixedAt ? b : a));
  const placed: PlannedBatch[] = [];
  for (const batch of [...wanted].sort((a, b) => b.mixedAt - a.mixedAt)) {
    let { mixedAt } = batch === first ? { mixedAt: 0 } : batch;
    for (;;) {
      const busy = placed.filter((other) => Math.abs(other.mixedAt - mixedAt) < preparation - 1e-9);
      if (busy.length < mixers) break;
      mixedAt = Math.min(...busy.map((other) => other.mixedAt)) - preparation;
    }
    if (mixedAt < -1e-9) return null;
    placed.push({ ...batch, mixedAt, pouredAt: mixedAt + preparation });
  }
  return placed;
}

export interface BatchFault {
  readonly kind: 'dry' | 'stay' | 'capacity' | 'largestMix' | 'mixers' | 'short';
  /** Index of the batch; null where it is of the pot as a whole. */
  readonly batch: number | null;
  readonly pot: number;
  /** s since first mix: when it shows. */
  readonly time: number;
}

/**
 * What is wrong with batches that somebody has set: a pot that runs down to its floor if all goes fast, a batch too heavy, too old or
 * too warm before it has left if all goes slowly, more mixed at once than there are mixers, and less poured than is needed.
 * Arithmetic; checked by schedule.test.ts.
 */
export function faultsOf(request: ScheduleRequest, batches: readonly PlannedBatch[]): BatchFault[] {
  const { mixers, preparation, largestMix } = request;
  const indexed = batches.map((batch, index) => ({ ...batch, index }));
  const faults = request.pots.flatMap((need, pot) =>
    faultsOfPot(
      request,
      need,
      pot,
      indexed.filter((batch) => batch.pot === pot).sort((a, b) => a.pouredAt - b.pouredAt),
    ),
  );
  for (const { index, pot, mixedAt, mass } of indexed) {
    if (mass > largestMix * (1 + 1e-9)) faults.push({ kind: 'largestMix', batch: index, pot, time: mixedAt });
    const busy = batches.filter(
      (other, n) =>
        (other.mixedAt < mixedAt || (other.mixedAt === mixedAt && n < index)) &&
        mixedAt - other.mixedAt < preparation - 1e-6,
    );
    if (busy.length >= mixers) faults.push({ kind: 'mixers', batch: index, pot, time: mixedAt });
  }
  return faults;
}

function faultsOfPot(
  { stay }: ScheduleRequest,
  need: PotNeed,
  pot: number,
  batches: readonly (PlannedBatch & { readonly index: number })[],
): BatchFault[] {
  const faults: BatchFault[] = [];
  const { times, masses } = need.fast;
  if (times.length === 0) return faults;
  const enough = 1e-6 * need.total;
  let poured = 0;
  for (let n = 0; n <= batches.length; n++) {
    // Until the next one is in, what has been poured has to last.
    const until = n < batches.length ? batches[n].pouredAt : Infinity;
    const from = n === 0 ? times[0] : batches[n - 1].pouredAt;
    const drawn = Math.min(masses[masses.length - 1], drawnAt(need.fast, until));
    if (until > times[0] + AT_ONCE && poured - drawn < need.floor - enough) {
      const time = Math.max(from, Math.min(until, timeDrawn(need.fast, poured - need.floor)));
      faults.push({ kind: 'dry', batch: n > 0 ? batches[n - 1].index : null, pot, time });
    }
    if (n === batches.length) break;
    const { index, mass, mixedAt, pouredAt } = batches[n];
    const content = poured + mass - Math.min(poured, drawnAt(need.slow, pouredAt));
    poured += mass;
    if (content > need.capacity * (1 + 1e-9))
      faults.push({ kind: 'capacity', batch: index, pot, time: pouredAt });
    const longest = stay(content);
    if (emptiedAt(need, poured) - mixedAt > longest * (1 + 1e-9))
      faults.push({ kind: 'stay', batch: index, pot, time: mixedAt + longest });
  }
  if (poured < need.total - enough)
    faults.push({ kind: 'short', batch: null, pot, time: times[times.length - 1] });
  return faults;
}
