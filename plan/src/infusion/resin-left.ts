import type { Shop } from '@wick/contract/shop';
import type { LaidJob } from '../job/laid.ts';
import { ledgerOf } from '../resin/ledger.ts';
import { preparationOf } from '../resin/batches.ts';
import type { Infusion } from './infusion.ts';
import type { LiveClock } from './live-clock.ts';
import type { Reforecast } from './reforecast.ts';

/** Resin of a fill that goes on; kg, and s since first contact. */
export interface ResinLeft {
  /** To be poured in all, heel and cup among it. */
  readonly needed: number;
  readonly poured: number;
  /** Drawn by now: as the pot was weighed, else as the forecast has it. */
  readonly drawn: number;
  readonly isWeighed: boolean;
  readonly inPot: number;
  /** Still to be mixed for it. */
  readonly short: number;
  /** When the hose would draw air; null where what is poured is enough. */
  readonly dryAt: number | null;
  /** Until when the next batch has to be begun; null where none is needed. */
  readonly mixBy: number | null;
  /** From the start of mixing until it is in the pot, s. */
  readonly preparation: number;
  /** What may still be drawn before the heel is touched. */
  readonly free: number;
}

/** Less is within what a scale and a bucket's wall say, kg. */
const SPECK = 0.02;

/** @returns null where the laminate does not tell yet how much */
export function resinLeftOf(
  job: LaidJob,
  shop: Shop,
  infusion: Pick<Infusion, 'poured' | 'potLeft' | 'openedAt'>,
  clock: LiveClock,
  answer: Pick<Reforecast, 'likeliest' | 'now'>,
): ResinLeft | null {
  const ledger = ledgerOf(job, shop);
  if (!ledger) return null;
  const massOf = (kind: string) =>
    ledger.rows.filter(({ what }) => what === kind).reduce((sum, { mass }) => sum + mass, 0);
  const heel = massOf('heel');
  const preparation = preparationOf(job);
  const poured = infusion.poured.reduce((sum, { mass }) => sum + mass, 0);
  const { shape, factor } = answer.likeliest;
  const inHoses = massOf('hose');
  const end = shape.drawn[shape.drawn.length - 1]?.volume ?? 0;
  const massAt = (volume: number) => inHoses + (ledger.drawn - inHoses) * (end > 0 ? volume / end : 0);
  const volumeAt = (time: number) => readVolume(shape.drawn, factor * clock.driven.at(time));
  const forecast = infusion.openedAt === null ? 0 : massAt(volumeAt(answer.now));
  const weighed = infusion.potLeft.at(-1);
  const drawnAtWeighing = weighed
    ? infusion.poured.filter(({ at }) => at <= weighed.at).reduce((sum, { mass }) => sum + mass, 0) -
      weighed.mass
    : 0;
  // A pot that holds less than was thought has lost it to something: it counts as drawn.
  const off = weighed ? drawnAtWeighing - massAt(volumeAt((weighed.at - clock.zero) / 1000)) : 0;
  const drawn = Math.max(0, forecast + off);
  const needed = ledger.total + Math.max(0, off);
  const inPot = Math.max(0, poured - drawn);
  const short = Math.max(0, needed - poured);
  const free = poured - heel - off;
  const dryVolume = shape.drawn.find(({ volume }) => massAt(volume) > free);
  const dryAt = poured > 0 && dryVolume ? clock.driven.timeOf(dryVolume.time / factor) : null;
  return {
    ...{ needed, poured, drawn, isWeighed: weighed !== undefined, inPot, preparation },
    short: short > SPECK ? short : 0,
    dryAt: dryAt !== null && dryAt < Infinity ? dryAt : null,
    mixBy: dryAt !== null && dryAt < Infinity ? dryAt - preparation : null,
    free: Math.max(0, poured - heel - drawn),
  };
}

/** Volume drawn by a fluidity time, straight between samples. */
function readVolume(
  drawn: readonly { readonly time: number; readonly volume: number }[],
  time: number,
): number {
  const after = drawn.findIndex((sample) => sample.time >= time);
  if (after < 0) return drawn[drawn.length - 1]?.volume ?? 0;
  if (after === 0) return drawn[0]!.volume;
  const [a, b] = [drawn[after - 1]!, drawn[after]!];
  return a.volume + ((b.volume - a.volume) * (time - a.time)) / (b.time - a.time);
}
