import type { EntryBody } from '@wick/contract/run/run';
import type { Shop } from '@wick/contract/shop';
import { polygonOf } from '@wick/core/geometry/arcs';
import type { Patchwork } from '@wick/core/flow/patchwork';
import { createRandom, normalOf } from '@wick/core/random';
import { scatterOf } from '../forecast/doubt.ts';
import { AS_STATED, drawnJob, raceAlong, racingSides, scaledMaterial } from '../forecast/draw.ts';
import type { LaidJob } from '../job/laid.ts';
import { settle } from '../settle.ts';
import { patchy } from './patches.ts';
import { edgeWord } from './problem-shapes.ts';

/** What a rehearsal is made to suffer beside the scatter that every part has. */
export type DrawnFault =
  | { readonly kind: 'permeabilityOff'; readonly factor: number }
  /** Along a side, in a gap so many times the one that is entered. */
  | { readonly kind: 'race'; readonly where: string; readonly side: number; readonly gap: number }
  /** In the bag, from when so much of the part is full; times what the part can take. */
  | { readonly kind: 'leak'; readonly at: number; readonly amount: number }
  | { readonly kind: 'coldResin'; readonly by: number }
  /** When so much of the part is full. */
  | { readonly kind: 'pumpDies'; readonly at: number }
  /** The pot holds this share of what was thought to be poured. */
  | { readonly kind: 'dryBucket'; readonly share: number }
  /** It gels in this share of the time that its data say. */
  | { readonly kind: 'gelsEarly'; readonly share: number }
  /** Fabric spans an edge or corner along a side: hollow behind it, in a gap so many times the one that is entered. */
  | { readonly kind: 'bridge'; readonly where: string; readonly side: number; readonly gap: number };

/** The part as it really is. */
export interface Truth {
  readonly job: LaidJob;
  readonly patchwork: Patchwork;
  readonly potShare: number;
  readonly faults: readonly DrawnFault[];
}

/** Chance that something happens, and that a second thing does. */
const HAPPENS = 0.6;
const AGAIN = 0.25;

/** What is drawn of the scatter that the job's own doubts state. The same seed draws the same. */
export function drawTruth(
  job: LaidJob,
  shop: Shop,
  seed: number,
  faults: readonly DrawnFault[] = drawFaults(job, seed),
): Truth {
  const random = createRandom(seed ^ 0x5bd1e995);
  const normal = () => normalOf(random);
  const [permeability, thickness, viscosity, gelTime, temperature] = Array.from({ length: 5 }, normal);
  const own = job.materials.map(normal);
  const through = job.materials.map(normal);
  const side = faults.find((fault) => fault.kind === 'race' || fault.kind === 'bridge');
  const drawn = drawnJob(withFaults(job, shop, faults), shop, {
    ...{ permeability: permeability!, thickness: thickness!, viscosity: viscosity! },
    ...{ gelTime: gelTime!, temperature: temperature! },
    own: (n) => own[n]!,
    through: (n) => through[n]!,
    races: () => false,
  }).job;
  const { raceGap } = scatterOf(job);
  const sides = racingSides(job);
  return {
    faults,
    job: side
      ? { ...drawn, lines: [...drawn.lines, raceAlong(sides[side.side]!, side.side, side.gap * raceGap)] }
      : drawn,
    patchwork: patchy(job, random, faults.find((fault) => fault.kind === 'permeabilityOff')?.factor),
    potShare: faults.find((fault) => fault.kind === 'dryBucket')?.share ?? 1,
  };
}

function withFaults(job: LaidJob, shop: Shop, faults: readonly DrawnFault[]): LaidJob {
  const cold = faults.find((fault) => fault.kind === 'coldResin')?.by ?? 0;
  const gelTime = faults.find((fault) => fault.kind === 'gelsEarly')?.share ?? 1;
  if (cold === 0 && gelTime === 1) return job;
  const temperature = settle(job, shop)['resin.temperature'].value - cold;
  const materials = job.materials.map((material) =>
    material.kind === 'resin' ? scaledMaterial(material, { ...AS_STATED, gelTime }) : material,
  );
  return { ...job, materials, resin: cold === 0 ? job.resin : { ...job.resin, temperature } };
}

/** A race along one of the outline's sides, the last where there are fewer; none along one without corners. */
export function raceAlongSide(job: LaidJob, number: number, gap: number): DrawnFault[] {
  const sides = racingSides(job);
  const side = Math.min(Math.max(0, number), sides.length - 1);
  const places = sides[side];
  return places ? [{ kind: 'race', side, where: edgeWord(places, polygonOf(job.part.outline)), gap }] : [];
}

/** None, one or two of them, by the seed. */
export function drawFaults(job: LaidJob, seed: number): DrawnFault[] {
  const random = createRandom(seed ^ 0x27d4eb2f);
  const sides = racingSides(job);
  const makers: readonly (() => DrawnFault[])[] = [
    () => [{ kind: 'permeabilityOff', factor: random() < 0.7 ? 0.5 + 0.2 * random() : 1.5 + 0.5 * random() }],
    () => raceAlongSide(job, Math.floor(random() * sides.length), 1 + random()),
    () => [{ kind: 'leak', at: 0.1 + 0.4 * random(), amount: 8 + 30 * random() }],
    () => [{ kind: 'coldResin', by: 3 + 4 * random() }],
    () => [{ kind: 'pumpDies', at: 0.2 + 0.5 * random() }],
    () => [{ kind: 'dryBucket', share: 0.5 + 0.3 * random() }],
  ];
  const drawn = [HAPPENS, AGAIN].flatMap((chance) =>
    random() < chance ? makers[Math.floor(random() * makers.length)]!() : [],
  );
  return drawn.filter((fault, n) => drawn.findIndex(({ kind }) => kind === fault.kind) === n);
}

type Trouble = Extract<EntryBody, { kind: 'trouble' }>;

/**
 * What of the drawn befalls the bag, each once, as the part fills.
 * @param limit of the leak that the part can take, Pa m3/s  @param placeId where it leaks; the likeliest place when left out
 * @returns what is due when so much of the part is full, 0-1
 */
export function createBefalling(faults: readonly DrawnFault[], limit: number, placeId: string | null = null) {
  let coming = faults.flatMap((fault): { at: number; body: Trouble }[] => {
    if (fault.kind === 'pumpDies')
      return [{ at: fault.at, body: { kind: 'trouble', what: 'pumpDies', placeId: null, amount: 0 } }];
    if (fault.kind === 'leak')
      return [
        { at: fault.at, body: { kind: 'trouble', what: 'leak', placeId, amount: fault.amount * limit } },
      ];
    return [];
  });
  return (filled: number): Trouble[] => {
    const due = coming.filter(({ at }) => at <= filled).map(({ body }) => body);
    coming = coming.filter(({ at }) => at > filled);
    return due;
  };
}

const drawnWords: {
  readonly [K in DrawnFault['kind']]: (fault: Extract<DrawnFault, { kind: K }>) => string;
} = {
  permeabilityOff: ({ factor }) =>
    factor < 1
      ? `The stack took resin ${Math.round(100 * (1 - factor))} % worse than planned`
      : `The stack took resin ${Math.round(100 * (factor - 1))} % better than planned`,
  race: ({ where }) => `Resin raced along ${where}`,
  leak: () => 'A leak opened in the fill',
  coldResin: ({ by }) => `The resin was ${Math.round(by)} K colder than planned`,
  pumpDies: () => 'The pump died',
  dryBucket: ({ share }) => `The pot held ${Math.round(100 * share)} % of what was thought`,
  gelsEarly: ({ share }) => `It gelled in ${Math.round(100 * share)} % of its time`,
  bridge: ({ where }) => `Fabric bridged along ${where}`,
};

export const wordsOfDrawn = (fault: DrawnFault): string =>
  (drawnWords[fault.kind] as (fault: DrawnFault) => string)(fault);
