import type { Instrument, Reading } from '@wick/contract/run/instrument';
import type { Entry, EntryBody, Run } from '@wick/contract/run/run';
import type { Shop } from '@wick/contract/shop';
import { distance } from '@wick/core/geometry/polygon';
import { createRandom, normalOf } from '@wick/core/random';
import { passTime, type BagParts, type BagState } from '@wick/core/vacuum/bag-world';
import { mostThroughput } from '@wick/core/vacuum/drop-test';
import { heardLevel, shownBy } from '@wick/core/vacuum/gauge-reading';
import type { LaidJob } from '../job/laid.ts';
import { createScaleWorld, SCALE_EVERY } from '../resin/scale-world.ts';
import { ambientOf } from '../shop/ambient.ts';
import { airBudgetOf } from './air.ts';
import { freeVolumeOf } from './free-volume.ts';
import type { LeakPlace } from './places.ts';
import { evacuationOf } from './reach.ts';

/** A simulated instrument: what it shows, and how well. */
export type SimulatedInstrument = Pick<
  Instrument,
  'id' | 'name' | 'measures' | 'unit' | 'resolution' | 'noise'
> & { readonly place: 'bag' | 'room' | 'mould' | 'bench' | null };

const simulated: readonly SimulatedInstrument[] = [
  {
    id: 'gauge',
    name: 'Absolute gauge',
    measures: 'absolutePressure',
    unit: 'mbar',
    resolution: 10,
    noise: 6,
    place: 'bag',
  },
  {
    id: 'needle',
    name: 'Needle gauge',
    measures: 'gaugePressure',
    unit: 'inHg',
    resolution: 1693.2,
    noise: 200,
    place: 'bag',
  },
  {
    id: 'barometer',
    name: 'Barometer',
    measures: 'absolutePressure',
    unit: 'mbar',
    resolution: 10,
    noise: 3,
    place: 'room',
  },
  {
    id: 'thermometer',
    name: 'Thermometer on the mould',
    measures: 'temperature',
    unit: '°C',
    resolution: 0.1,
    noise: 0.05,
    place: 'mould',
  },
  {
    id: 'listener',
    name: 'Leak listener',
    measures: 'soundLevel',
    unit: 'dB',
    resolution: 1,
    noise: 0.7,
    place: null,
  },
  {
    id: 'scale',
    name: 'Scale at the mixing bench',
    measures: 'mass',
    unit: 'g',
    resolution: 1e-3,
    noise: 3e-4,
    place: 'bench',
  },
];

export const instrumentIn = (run: Pick<Run, 'id'>, own: string) => `${run.id}-${own}`;
/** Of a rehearsal, with ids of their own. */
export const simulatedInstruments = (run: Pick<Run, 'id'>): SimulatedInstrument[] =>
  simulated.map((one) => ({ ...one, id: instrumentIn(run, one.id) }));

/** Time constant of wet core, and of a mould that is warmed or cools, s. */
const SETTLING = 900;
const MOULD_SETTLING = 1500;
/** A tight bag lets in this share of what the part can take, and gives off a little. */
const TIGHT_SHARE = 0.12;
const DRY = 25;
/** The weather moves the air outside by so much an hour at random, Pa. */
const WEATHER = 30;
/** Above the shop, where nothing says how warm the mould is kept, K. */
const HEATED = 8;
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

export interface RehearsalReading extends Reading {
  readonly instrumentId: string;
}

/** Wall seconds between readings at ordinary speed; a quicker clock takes longer steps. */
const EVERY = 1;
const AT_SPEED = 0.25;
/** s of a rehearsal between readings */
export const spacingAt = (speed: number): number => Math.max(EVERY, AT_SPEED * speed);

/** A bag with its instruments as the job's own physics has it, driven by what is said in the log. The same seed comes to the same. */
export function createRehearsal(
  job: LaidJob,
  shop: Shop,
  run: Pick<Run, 'id' | 'startedAt' | 'speed' | 'seed'>,
  places: readonly LeakPlace[],
) {
  const ambient = ambientOf(shop);
  const start = Date.parse(run.startedAt);
  const spacing = spacingAt(run.speed);
  const { pump, hose } = evacuationOf(job, shop);
  const parts: BagParts = {
    freeVolume: freeVolumeOf(job, shop).total,
    ...{ pump, hose, settling: SETTLING },
    hasCheckValve: job.vacuum.hasCheckValve ?? false,
  };
  const budget = airBudgetOf(job, shop, { fillTime: null, gelTime: null });
  const limit = budget ? mostThroughput(budget) : 1e-3;
  const set = job.resin.mouldTemperature ?? shop.temperature + HEATED;

  const scale = createScaleWorld(run.seed);
  const scaleShows = simulated.find(({ id }) => id === 'scale')!;
  let bag: BagState = { time: 0, pressure: ambient, moisture: DRY };
  let mould = { time: 0, temperature: set };
  let valve: 'pull' | 'shut' | 'letGo' = 'letGo';
  let plight: Plight = {
    ...{ leaks: new Map(), pumpRuns: true, isSilent: false, heaterRuns: true, weather: 0 },
  };
  let listening: string | null = null;
  let sample = 0;
  const done = new Set<string>();
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
    const goal = plight.heaterRuns ? set : shop.temperature;
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
      // What the scale suffers is its own affair.
      case 'scaleDrifts':
      case 'scaleFlat':
      case 'bucketLeans':
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
    scale.hear(body);
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
      case 'listen':
        listening = body.placeId;
        return;
      default:
    }
  }

  function shown(): RehearsalReading[] {
    const random = createRandom((run.seed ^ (sample * 0x9e3779b1)) | 0);
    const at = Math.round(start + bag.time * 1000);
    const id = `${sample}`;
    const read = (own: string, value: number): RehearsalReading => {
      const instrument = simulated.find((one) => one.id === own)!;
      return { id, at, instrumentId: instrumentIn(run, own), value: shownBy(instrument, value, random) };
    };
    outside += (WEATHER / 60) * Math.sqrt(spacing / 60) * normalOf(random);
    const drift = DRIFT * Math.sin((2 * Math.PI * bag.time) / 86_400);
    const pressures = [
      read('gauge', bag.pressure + drift),
      read('needle', Math.max(0, outsideAt() - bag.pressure)),
    ];
    const others = [read('barometer', outsideAt()), read('thermometer', mould.temperature)];
    const heard = listening === null ? [] : [read('listener', levelAt(listening))];
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

  /** What the scale showed up to a time: at ordinary speed a hand that pours watches it. */
  function weighedUntil(to: number): RehearsalReading[] {
    return scale.pass(to, Math.max(SCALE_EVERY, spacing / 4)).map(({ sample: n, time, value, random }) => ({
      ...{ id: `w${n}`, at: Math.round(start + time * 1000), instrumentId: instrumentIn(run, 'scale') },
      value: shownBy(scaleShows, value, random),
    }));
  }

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
          pass(then);
          out.push(...weighedUntil(then));
          hear(entry.body);
          done.add(entry.id);
        }
        pass(stop);
        out.push(...weighedUntil(stop));
        if (next > end) break;
        sample += 1;
        out.push(...shown());
      }
      return out;
    },
    /** What it is in truth, for tests and for saying afterwards what was missed. */
    truth: () => ({ ...bag, leaks: plight.leaks, throughput: throughput(), limit }),
  };
}
