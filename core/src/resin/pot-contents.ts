import type { ResinClock } from './resin-clock.ts';

/** A batch as it goes into a pot. */
export interface PouredBatch {
  /** s since first mix: when its resin and hardener met, and when it was poured into the pot. */
  readonly mixedAt: number;
  readonly pouredAt: number;
  /** In whatever what is drawn is counted in: m3, or kg. */
  readonly amount: number;
  /** Of the batch by itself, from its own mixing on. */
  readonly clock: ResinClock;
}

/** What leaves one pot. */
export interface PotContents {
  /**
   * Share of the way to gel, 0-1, of what leaves it at a time (s since first mix) when so much has been drawn. Asked in the order of
   * time; an earlier time forgets what came after it.
   */
  ageAt(time: number, drawn: number): number;
}

/**
 * A pot that is topped up: its batches stirred together, each ageing as it does in a pot of its own, and what leaves has the mean
 * by mass of their states.
 * @param batches in the order in which they are poured; the first stands in the pot from the start
 * Valid: well stirred; a batch keeps the warmth of its own mass. Checked by pot-contents.test.ts.
 */
export function createPotContents(batches: readonly PouredBatch[]): PotContents {
  /** What had been drawn when each batch was poured. */
  const drawnBefore: number[] = [0];
  let last = { time: 0, drawn: 0 };

  function note(time: number, drawn: number) {
    while (drawnBefore.length > 1 && batches[drawnBefore.length - 1].pouredAt > time) drawnBefore.pop();
    for (let next = drawnBefore.length; next < batches.length && batches[next].pouredAt <= time; next++) {
      const span = time - last.time;
      const share = span > 0 ? Math.min(1, Math.max(0, (batches[next].pouredAt - last.time) / span)) : 1;
      drawnBefore.push(last.drawn + share * (drawn - last.drawn));
    }
    last = { time, drawn };
  }

  return {
    ageAt(time, drawn) {
      note(time, drawn);
      const shares = sharesOf(batches, drawnBefore);
      return shares.reduce((sum, share, n) => sum + share * ageOf(batches[n], time), 0);
    },
  };
}

function ageOf({ mixedAt, clock }: PouredBatch, time: number): number {
  const since = Math.max(0, time - mixedAt);
  return since < clock.gelTime ? Math.min(1, clock.ageAt(since)) : 1;
}

/** Of each batch in what is in the pot now: what is drawn takes of all alike. */
function sharesOf(batches: readonly PouredBatch[], drawnBefore: readonly number[]): number[] {
  let shares = [1];
  let poured = batches[0].amount;
  for (let n = 1; n < drawnBefore.length; n++) {
    const left = Math.max(0, poured - drawnBefore[n]);
    const { amount } = batches[n];
    const fresh = amount / (left + amount);
    shares = [...shares.map((share) => share * (1 - fresh)), fresh];
    poured += amount;
  }
  return shares;
}
