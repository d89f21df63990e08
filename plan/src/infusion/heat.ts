import type { Shop } from '@wick/contract/shop';
import type { WarmingKind } from '@wick/contract/run/infusion-bodies';
import {
  exotherm,
  runawayNumbers,
  FRANK_KAMENETSKII_LIMIT,
  SEMENOV_LIMIT,
  type Exotherm,
  type HeatLayer,
} from '@wick/core/cure/exotherm';
import { heatSourceOf } from '@wick/core/cure/heat';
import { computeStack } from '@wick/core/laminate/stack';
import { ASSUMED_ACTIVATION_ENERGY } from '@wick/core/resin/curve-fit';
import type { LaidJob } from '../job/laid.ts';
import { materialOf } from '../job/material-of.ts';
import { booksOf } from '../laminate/books.ts';
import { stackRequestOf } from '../laminate/stack.ts';
import { laidOn } from '../stack/laid-on.ts';

/** How the part is warmed while it cures. */
export interface Warming {
  readonly is: WarmingKind;
  /** K; null where nothing is set. */
  readonly temperature: number | null;
}

/** The thickest place as it cures. Times s since it was full. */
export interface HeatForecast {
  /** Laminate it is of, and how thick, m. */
  readonly name: string;
  readonly thickness: number;
  readonly course: Exotherm;
  /** Of the resin at the start, K. */
  readonly start: number;
  /** Without any loss of heat, K. */
  readonly adiabatic: number;
  /** It could run away: integration says how far. */
  readonly canRunAway: boolean;
  /** What stands less than it gets, with its limit, K. */
  readonly tooWarmFor: readonly { readonly name: string; readonly limit: number }[];
}

/** J/(kg K), W/(m K); from memory: fibre by its density (carbon is lighter than glass), resin, laminate across the fibres, cores. */
const HEAT_OF = { carbon: 750, glass: 800, resin: 1900, core: 1400 };
const CONDUCTS = { glass: 0.3, carbon: 0.5, core: 0.035, mould: 0.3 };
const CARBON_BELOW = 2100;
/** A mould of glass laminate, m and kg/m3; air behind it and over the bag, W/(m2 K); from memory. */
const MOULD = { thickness: 0.008, density: 1850, specificHeat: 1100 };
const AIR = 8;
/** A blanket presses its heat on, a tent's air moves, lamps shine, W/(m2 K) and W/m2. */
const FACES: Readonly<Record<WarmingKind, { readonly transfer: number; readonly flux: number }>> = {
  none: { transfer: AIR, flux: 0 },
  blanket: { transfer: 40, flux: 0 },
  tent: { transfer: 12, flux: 0 },
  lamps: { transfer: AIR, flux: 250 },
};
/** s that are looked ahead. */
const AHEAD = 24 * 3600;

export interface HeatRequest {
  readonly job: LaidJob;
  readonly shop: Shop;
  /** When it is full: K, and how far the resin is on its way to gel. */
  readonly from: { readonly temperature: number; readonly gelShare: number };
  readonly warming: Warming;
}

/**
 * The thickest laminate through its thickness, from when it is full until a day later.
 * @returns null where nothing cures or nothing is chosen
 * @throws ModelError of the laminate and the resin's curves
 */
export function heatForecast({ job, shop, from, warming }: HeatRequest): HeatForecast | null {
  const resin = materialOf(job, job.resin.materialId, 'resin');
  const thick = thickestOf(job, shop);
  if (!resin || !thick) return null;
  const { fibreDensity, fraction, thickness } = thick;
  const isCarbon = fibreDensity < CARBON_BELOW;
  const density = fraction * fibreDensity + (1 - fraction) * resin.density;
  const resinShare = ((1 - fraction) * resin.density) / density;
  const specificHeat =
    resinShare * HEAT_OF.resin + (1 - resinShare) * (isCarbon ? HEAT_OF.carbon : HEAT_OF.glass);
  const conductivity = isCarbon ? CONDUCTS.carbon : CONDUCTS.glass;
  const skin = (of: number): HeatLayer => ({
    ...{ thickness: of, conductivity, density, specificHeat },
    resin: (1 - fraction) * resin.density,
  });
  const mould: HeatLayer = { ...MOULD, conductivity: CONDUCTS.mould, resin: 0 };
  const layers = thick.core
    ? [mould, skin(thickness / 2), coreLayer(thick.core), skin(thickness / 2)]
    : [mould, skin(thickness)];
  const source = heatSourceOf(resin);
  const around = warming.temperature ?? shop.temperature;
  const face = FACES[warming.is];
  const course = exotherm({
    layers,
    mouldFace: { transfer: AIR, temperature: () => (warming.is === 'tent' ? around : shop.temperature) },
    bagFace: { ...face, temperature: () => (warming.is === 'lamps' ? shop.temperature : around) },
    start: { temperature: from.temperature, state: from.gelShare * source.gelState, time: 0 },
    source,
    until: AHEAD,
  });
  const total = source.heat(1e6);
  const power = peakPower(source, from, (1 - fraction) * resin.density);
  const { semenov, frankKamenetskii } = runawayNumbers({
    activationEnergy: ASSUMED_ACTIVATION_ENERGY,
    temperature: from.temperature,
    ...{ power, thickness, reach: thickness, transfer: face.transfer, conductivity },
  });
  return {
    ...{ name: thick.name, thickness, course, start: from.temperature },
    adiabatic: (resinShare * total) / specificHeat,
    canRunAway: semenov > SEMENOV_LIMIT || frankKamenetskii > FRANK_KAMENETSKII_LIMIT,
    tooWarmFor: limitsOf(job).filter(({ limit }) => course.peak.temperature > limit),
  };
}

const coreLayer = (core: { thickness: number; density: number }): HeatLayer => ({
  ...{ thickness: core.thickness, density: core.density, resin: 0 },
  ...{ conductivity: CONDUCTS.core, specificHeat: HEAT_OF.core },
});

/** The most that a cubic metre of laminate gives at the temperature it starts with, W. */
function peakPower(
  { rate, heat, gelState }: ReturnType<typeof heatSourceOf>,
  { temperature }: { temperature: number },
  resin: number,
): number {
  let most = 0;
  for (let state = 0; state < 3 * gelState; state += 0.02 * gelState) {
    const grown = rate(state, temperature);
    most = Math.max(most, resin * (heat(state + grown) - heat(state)));
  }
  return most;
}

function thickestOf(job: LaidJob, shop: Shop) {
  const found = booksOf(job)
    .filter(({ laminate, isBrake }) => !isBrake && laminate.plies.length > 0)
    .map(({ name, laminate, zoneId }) => {
      const stack = computeStack(stackRequestOf(job, laminate, shop, laidOn(job, zoneId)));
      const fabric = materialOf(job, laminate.plies[0]!.materialId, 'fabric')!;
      return {
        name,
        thickness: stack.laminateThickness,
        fraction: stack.fibreVolumeFraction,
        fibreDensity: fabric.fibreDensity,
        core: materialOf(job, laminate.coreId, 'core'),
      };
    });
  return found.reduce<(typeof found)[number] | null>(
    (most, one) => (most && most.thickness >= one.thickness ? most : one),
    null,
  );
}

/** What lies in or on the part and has a limit of its own. */
function limitsOf(job: LaidJob): { name: string; limit: number }[] {
  const laid = new Set(job.layers.map(({ materialId }) => materialId));
  return job.materials.flatMap((material) =>
    laid.has(material.id) && 'maxTemperature' in material && material.maxTemperature
      ? [{ name: material.name, limit: material.maxTemperature }]
      : [],
  );
}

/** Warmest the resin may get before fumes and cracks are a worry, K over the start; common practice, no source. */
const WARM = 25;
const HOT = 60;

/** What to say of it; null where nothing comes of it. */
export function heatWords({ course, start, canRunAway, tooWarmFor, name }: HeatForecast): {
  readonly level: 'warm' | 'hot' | 'unknown';
  readonly words: string;
} | null {
  const rise = course.peak.temperature - start;
  const at = `${Math.round(course.peak.time / 60)} min after it is full`;
  const celsius = Math.round(course.peak.temperature - 273.15);
  const beyond = tooWarmFor.map((one) => one.name).join(', ');
  const over = beyond ? ` That is more than ${beyond} may have.` : '';
  if (course.knownUntil < Infinity && (rise > WARM || canRunAway))
    return {
      level: rise > HOT ? 'hot' : 'unknown',
      words: `${name} leaves the resin’s data ${Math.round(course.knownUntil / 60)} min after it is full; carried on it comes to about ${celsius} °C, ${at}.${over}`,
    };
  if (rise > HOT)
    return { level: 'hot', words: `${name} comes to ${celsius} °C in its middle, ${at}.${over}` };
  if (rise > WARM || beyond) return { level: 'warm', words: `${name} warms to ${celsius} °C, ${at}.${over}` };
  return null;
}
