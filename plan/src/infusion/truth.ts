import type { Shop } from '@wick/contract/shop';
import { polygonOf } from '@wick/core/geometry/arcs';
import { sidesOf } from '@wick/core/geometry/sides';
import type { Patchwork } from '@wick/core/flow/patchwork';
import { createRandom, normalOf } from '@wick/core/random';
import { scatterOf } from '../forecast/doubt.ts';
import { drawnJob, raceAlong } from '../forecast/draw.ts';
import type { LaidJob } from '../job/laid.ts';
import { patchy } from './patches.ts';
import { edgeWord } from './problem-shapes.ts';

/** What a rehearsal is made to suffer beside the scatter that every part has. */
export type DrawnFault =
  | { readonly kind: 'permeabilityOff'; readonly factor: number }
  /** Along a side, in a gap so many times the one that is entered. */
  | { readonly kind: 'race'; readonly where: string; readonly side: number; readonly gap: number }
  /** In the bag from a share of the planned fill on; times what the part can take. */
  | { readonly kind: 'leak'; readonly at: number; readonly amount: number }
  | { readonly kind: 'coldResin'; readonly by: number }
  | { readonly kind: 'pumpDies'; readonly at: number }
  /** The pot holds this share of what was thought to be poured. */
  | { readonly kind: 'dryBucket'; readonly share: number };

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
  const side = faults.find((fault) => fault.kind === 'race');
  const drawn = drawnJob(withFaults(job, faults), shop, {
    ...{ permeability: permeability!, thickness: thickness!, viscosity: viscosity! },
    ...{ gelTime: gelTime!, temperature: temperature! },
    own: (n) => own[n]!,
    through: (n) => through[n]!,
    races: () => false,
  }).job;
  const { raceGap } = scatterOf(job);
  const sides = sidesOf(polygonOf(job.part.outline));
  return {
    faults,
    job: side
      ? { ...drawn, lines: [...drawn.lines, raceAlong(sides[side.side]!, side.side, side.gap * raceGap)] }
      : drawn,
    patchwork: patchy(job, random, faults.find((fault) => fault.kind === 'permeabilityOff')?.factor),
    potShare: faults.find((fault) => fault.kind === 'dryBucket')?.share ?? 1,
  };
}

function withFaults(job: LaidJob, faults: readonly DrawnFault[]): LaidJob {
  const cold = faults.find((fault) => fault.kind === 'coldResin')?.by ?? 0;
  return cold === 0
    ? job
    : { ...job, resin: { ...job.resin, temperature: (job.resin.temperature ?? 293.15) - cold } };
}

/** A race along one of the outline's sides, the last where there are fewer; none along one without corners. */
export function raceAlongSide(job: LaidJob, number: number, gap: number): DrawnFault[] {
  const outline = polygonOf(job.part.outline);
  const sides = sidesOf(outline);
  const side = Math.min(Math.max(0, number), sides.length - 1);
  const places = sides[side];
  return places ? [{ kind: 'race', side, where: edgeWord(places, outline), gap }] : [];
}

/** None, one or two of them, by the seed. */
export function drawFaults(job: LaidJob, seed: number): DrawnFault[] {
  const random = createRandom(seed ^ 0x27d4eb2f);
  const sides = sidesOf(polygonOf(job.part.outline)).slice(0, 6);
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
};

export const wordsOfDrawn = (fault: DrawnFault): string =>
  (drawnWords[fault.kind] as (fault: DrawnFault) => string)(fault);
