import type { EntryBody } from '@wick/contract/run/run';
import type { Shop } from '@wick/contract/shop';
import { distance } from '@wick/core/geometry/polygon';
import { createRandom, normalOf, type Random } from '@wick/core/random';
import { passTime, type BagParts, type BagState } from '@wick/core/vacuum/bag-world';
import { mostThroughput } from '@wick/core/vacuum/drop-test';
import { heardLevel } from '@wick/core/vacuum/gauge-reading';
import type { LaidJob } from '../job/laid.ts';
import { settle } from '../settle.ts';
import { ambientOf } from '../shop/ambient.ts';
import { airBudgetOf } from './air.ts';
import { freeVolumeOf } from './free-volume.ts';
import type { LeakPlace } from './places.ts';
import { evacuationOf } from './reach.ts';

/** Time constant of wet core, and of a mould that is warmed or cools, s. */
const SETTLING = 900;
const MOULD_SETTLING = 1500;
/** A tight bag lets in this share of what the part can take, and gives off a little. */
const TIGHT_SHARE = 0.12;
const DRY = 25;
/** The weather moves the air outside by so much an hour at random, Pa. */
const WEATHER = 30;
/** By which the mould cools when nothing heats mould and hall, K. */
const UNHEATED = 8;
/** Of the absolute gauge over a day, Pa. */
const DRIFT = 40;

type Trouble = Extract<EntryBody, { kind: 'trouble' }>;

/** What a rehearsal suffers from now. */
interface Plight {
  readonly leaks: ReadonlyMap<string, number>;
  readonly pumpRuns: boolean;
  readonly isSilent: boolean;
  readonly heaterRuns: boolean;
  /** Pa an hour beside what is usual. */
  readonly weather: number;
}

/** The bag of a rehearsal, with the mould under it and the air outside, driven by what is said in the log. The same draws come to the same. */
export function createBagRehearsal(job: LaidJob, shop: Shop, places: readonly LeakPlace[]) {
  const ambient = ambientOf(shop);
  const { pump, hose } = evacuationOf(job, shop);
  const parts: BagParts = {
    freeVolume: freeVolumeOf(job, shop).total,
    ...{ pump, hose, settling: SETTLING },
    hasCheckValve: job.vacuum.hasCheckValve ?? false,
  };
  const budget = airBudgetOf(job, shop, { fillTime: null, gelTime: null });
  const limit = budget ? mostThroughput(budget) : 1e-3;
  const set = job.resin.mouldTemperature ?? settle(job, shop)['resin.temperature'].value;

  let bag: BagState = { time: 0, pressure: ambient, moisture: DRY };
  let mould = { time: 0, temperature: set };
  let valve: 'pull' | 'shut' | 'letGo' = 'letGo';
  let plight: Plight = {
    ...{ leaks: new Map(), pumpRuns: true, isSilent: false, heaterRuns: true, weather: 0 },
  };
  let listening: string | null = null;
  /** Of the air outside beside ambient: drawn once, then a slow walk, Pa. */
  let outside = 0;

  const outsideAt = () => ambient + outside;
  const throughput = () =>
    TIGHT_SHARE * limit + [...plight.leaks.values()].reduce((sum, one) => sum + one, 0);

  function pass(to: number): void {
    if (to <= bag.time) return;
    const duration = to - bag.time;
    outside += (plight.weather * duration) / 3600;
    bag = passTime(
      bag,
      parts,
      { valve, pumpRuns: plight.pumpRuns, throughput: throughput(), ambient: outsideAt() },
      duration,
    );
    const goal = plight.heaterRuns ? set : set - UNHEATED;
    const left = Math.exp(-(to - mould.time) / MOULD_SETTLING);
    mould = { time: to, temperature: goal + (mould.temperature - goal) * left };
  }

  function suffer({ what, placeId, amount }: Trouble): void {
    const leaks = new Map(plight.leaks);
    switch (what) {
      case 'leak':
        leaks.set(placeId ?? places[0]?.id ?? 'mould:own', amount);
        plight = { ...plight, leaks };
        return;
      case 'wetCore':
        bag = { ...bag, moisture: bag.moisture + amount };
        return;
      case 'pumpDies':
        plight = { ...plight, pumpRuns: false };
        return;
      case 'silent':
        plight = { ...plight, isSilent: true };
        return;
      case 'heaterOff':
        plight = { ...plight, heaterRuns: false };
        return;
      case 'weather':
        plight = { ...plight, weather: amount };
        return;
      case 'drawn':
        drawTrouble(Math.round(amount));
        return;
      // What the scale and the part suffer is their own affair.
      case 'scaleDrifts':
      case 'scaleFlat':
      case 'bucketLeans':
      case 'coldResin':
      case 'race':
      case 'dryBucket':
      case 'day':
        return;
      case 'none':
        plight = { leaks: new Map(), pumpRuns: true, isSilent: false, heaterRuns: true, weather: 0 };
    }
  }

  /** A leak at a likely place, or moisture, or both; what it is stays untold. */
  function drawTrouble(seed: number): void {
    const random = createRandom(seed);
    const sum = places.reduce((total, { chance }) => total + chance, 0);
    let left = random() * sum;
    const place = places.find(({ chance }) => (left -= chance) <= 0) ?? places[0];
    const kind = random();
    if (kind < 0.7 && place)
      suffer({ kind: 'trouble', what: 'leak', placeId: place.id, amount: limit * (1.5 + 8 * random()) });
    if (kind > 0.5) suffer({ kind: 'trouble', what: 'wetCore', placeId: null, amount: 200 + 900 * random() });
  }

  function hear(body: EntryBody): void {
    switch (body.kind) {
      case 'pull':
      case 'shut':
      case 'letGo':
        valve = body.kind;
        return;
      case 'trouble':
        return suffer(body);
      case 'looked':
        if (body.state === 'sealed') {
          const leaks = new Map(plight.leaks);
          leaks.delete(body.placeId);
          plight = { ...plight, leaks };
        }
        return;
      case 'fault':
        // Another pump stands in.
        if (body.fault === 'pumpStopped' && body.mends) plight = { ...plight, pumpRuns: true };
        return;
      case 'listen':
        listening = body.placeId;
        return;
      default:
    }
  }

  /**
   * What its instruments have to show now, each by its own name.
   * @param spacing s since they last did  @param show what is drawn of a true value  @param warmth of resin that is in the part, K
   */
  function shown<R>(
    spacing: number,
    random: Random,
    show: (own: string, value: number) => R,
    warmth = mould.temperature,
  ): R[] {
    outside += (WEATHER / 60) * Math.sqrt(spacing / 60) * normalOf(random);
    const drift = DRIFT * Math.sin((2 * Math.PI * bag.time) / 86_400);
    const pressures = [
      show('gauge', bag.pressure + drift),
      show('needle', Math.max(0, outsideAt() - bag.pressure)),
    ];
    const others = [show('barometer', outsideAt()), show('thermometer', warmth)];
    const heard = listening === null ? [] : [show('listener', levelAt(listening))];
    listening = null;
    return [...(plight.isSilent ? [] : pressures), ...others, ...heard];
  }

  function levelAt(placeId: string): number {
    const here = places.find(({ id }) => id === placeId)?.at ?? null;
    const hisses = [...plight.leaks].map(([id, amount]) => {
      const there = places.find((place) => place.id === id)?.at ?? null;
      const away = id === placeId ? 0.1 : here && there ? distance(here, there) : 3;
      return { throughput: amount, away };
    });
    return heardLevel(bag.pressure < 0.5 * ambient ? hisses : [], valve === 'pull' && plight.pumpRuns);
  }

  return {
    pass,
    hear,
    shown,
    /** What it is in truth, for tests and for saying afterwards what was missed. */
    truth: () => ({ ...bag, leaks: plight.leaks, throughput: throughput(), limit }),
  };
}
