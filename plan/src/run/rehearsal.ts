import type { Reading } from '@wick/contract/run/instrument';
import type { Entry, Run } from '@wick/contract/run/run';
import type { Shop } from '@wick/contract/shop';
import { createRandom, type Random } from '@wick/core/random';
import { shownBy } from '@wick/core/vacuum/gauge-reading';
import type { LaidJob } from '../job/laid.ts';
import { createPartRehearsal } from '../infusion/part-rehearsal.ts';
import { createScaleWorld, SCALE_EVERY } from '../resin/scale-world.ts';
import { createBagRehearsal } from '../vacuum/bag-rehearsal.ts';
import type { LeakPlace } from '../vacuum/places.ts';
import { instrumentIn, simulated } from './simulated.ts';

export interface RehearsalReading extends Reading {
  readonly instrumentId: string;
}

/** Wall seconds between readings at ordinary speed; a quicker clock takes longer steps. */
const EVERY = 1;
const AT_SPEED = 0.25;
/** s of a rehearsal between readings */
export const spacingAt = (speed: number): number => Math.max(EVERY, AT_SPEED * speed);

/** A bag, the part under it and a scale with their instruments as the job's own physics has them, driven by what is said in the log. The same seed comes to the same. */
export function createRehearsal(
  job: LaidJob,
  shop: Shop,
  run: Pick<Run, 'id' | 'startedAt' | 'speed' | 'seed'>,
  places: readonly LeakPlace[],
) {
  const start = Date.parse(run.startedAt);
  const spacing = spacingAt(run.speed);
  const bag = createBagRehearsal(job, shop, places);
  const part = createPartRehearsal(job, shop, run.seed, bag.truth().limit);
  const scale = createScaleWorld(run.seed);
  let sample = 0;
  /** kg in the pot before the feed is opened */
  let poured = 0;
  const done = new Set<string>();

  /** What an instrument shows of a true value at a time, s since the start. */
  const reading =
    (id: string, time: number, random: Random) =>
    (own: string, value: number): RehearsalReading => {
      const instrument = simulated.find((one) => one.id === own)!;
      const at = Math.round(start + time * 1000);
      return { id, at, instrumentId: instrumentIn(run, own), value: shownBy(instrument, value, random) };
    };

  function shown(): RehearsalReading[] {
    const random = createRandom((run.seed ^ (sample * 0x9e3779b1)) | 0);
    const show = reading(`${sample}`, bag.truth().time, random);
    const seen = part.world()?.seen();
    return [...bag.shown(spacing, random, show, seen?.temperature), show('potScale', seen?.pot ?? poured)];
  }

  /** Bag and part go on together; what befalls the bag meanwhile does so at its end. */
  function passBoth(to: number): void {
    bag.pass(to);
    part.pass(to, bag.truth().pressure);
    for (const body of part.troubles()) bag.hear(body);
  }

  /** What the scale showed up to a time: at ordinary speed a hand that pours watches it. */
  const weighedUntil = (to: number): RehearsalReading[] =>
    scale
      .pass(to, Math.max(SCALE_EVERY, spacing / 4))
      .map(({ sample: n, time, value, random }) => reading(`w${n}`, time, random)('scale', value));

  return {
    /** s of the run between readings */
    spacing,
    /**
     * Goes on to a time and says what the instruments showed on the way. What is said too late counts from now on.
     * @param to ms since 1970, by the clock of the run  @param entries all of the run, or those that are new
     * @param most readings of each instrument at once
     */
    pass(to: number, entries: readonly Entry[], most = 5000): RehearsalReading[] {
      const fresh = entries
        .filter(({ id }) => !done.has(id))
        .sort((a, b) => Date.parse(a.at) - Date.parse(b.at) || a.order - b.order);
      const out: RehearsalReading[] = [];
      const end = (to - start) / 1000;
      for (let n = 0; n < most; n++) {
        const next = (sample + 1) * spacing;
        const stop = Math.min(next, end);
        while (fresh.length > 0 && (Date.parse(fresh[0]!.at) - start) / 1000 <= stop) {
          const entry = fresh.shift()!;
          const then = (Date.parse(entry.at) - start) / 1000;
          passBoth(then);
          out.push(...weighedUntil(then));
          bag.hear(entry.body);
          part.hear(entry.body);
          scale.hear(entry.body);
          if (entry.body.kind === 'batchPoured') poured += entry.body.mass;
          done.add(entry.id);
        }
        passBoth(stop);
        out.push(...weighedUntil(stop));
        if (next > end) break;
        sample += 1;
        out.push(...shown());
      }
      return out;
    },
    truth: bag.truth,
    part,
  };
}
