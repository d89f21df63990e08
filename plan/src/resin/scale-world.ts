import type { EntryBody } from '@wick/contract/run/run';
import { passScale, type ScaleState } from '@wick/core/mix/scale-world';
import { createRandom, type Random } from '@wick/core/random';

/** s between two readings of the scale: so often that a hand can pour by it. */
export const SCALE_EVERY = 0.25;
/** An empty mixing bucket, kg. */
const BUCKET = 0.18;

/** What a hand did to the scale, and what it suffers. */
interface Acts {
  readonly pouring: number;
  readonly drift: number;
  readonly carried: number;
  readonly isFlat: boolean;
}
const calm: Acts = { pouring: 0, drift: 0, carried: 0, isFlat: false };

/** The scale of a rehearsal, driven by what is said in the log. The same seed and the same log come to the same. */
export function createScaleWorld(seed: number) {
  let state: ScaleState = { time: 0, load: 0, followed: 0, crept: 0 };
  let acts = calm;
  let sample = 0;

  function suffer({ what, amount }: Extract<EntryBody, { kind: 'trouble' }>): void {
    if (what === 'scaleDrifts') acts = { ...acts, drift: amount };
    else if (what === 'scaleFlat') acts = { ...acts, isFlat: true };
    else if (what === 'bucketLeans') acts = { ...acts, carried: Math.min(0.9, amount) };
    else if (what === 'none') acts = { ...calm, pouring: acts.pouring };
  }

  return {
    /** What is said changes what acts on it from the moment to which it has been passed. */
    hear(body: EntryBody): void {
      if (body.kind === 'trouble') return suffer(body);
      if (body.kind !== 'hand') return;
      switch (body.does) {
        case 'bucket':
          state = { ...state, load: BUCKET };
          acts = { ...acts, pouring: 0 };
          return;
        case 'clear':
          state = { ...state, load: 0 };
          acts = { ...acts, pouring: 0 };
          return;
        case 'pour':
          acts = { ...acts, pouring: state.load > 0 ? body.rate : 0 };
          return;
        case 'stop':
          acts = { ...acts, pouring: 0 };
      }
    },
    /**
     * Goes on to a time and says what the scale had to show on the way, every so often.
     * @param to s since the start  @param every s
     */
    pass(to: number, every: number): { sample: number; time: number; value: number; random: Random }[] {
      const shown: { sample: number; time: number; value: number; random: Random }[] = [];
      while (state.time < to) {
        const next = (sample + 1) * every;
        state = passScale(state, acts, Math.min(next, to) - state.time);
        if (state.time < next - 1e-9) break;
        sample += 1;
        const random = createRandom((seed ^ (sample * 0x85ebca6b)) | 0);
        if (!acts.isFlat) shown.push({ sample, time: next, value: state.followed + state.crept, random });
      }
      return shown;
    },
  };
}
