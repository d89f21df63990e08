import type { JobLine } from '@wick/contract/job/job';
import type { Material } from '@wick/contract/materials';
import type { Shop } from '@wick/contract/shop';
import { polygonOf } from '@wick/core/geometry/arcs';
import type { Point } from '@wick/core/geometry/polygon';
import { sidesOf } from '@wick/core/geometry/sides';
import { ASSUMED_THROUGH } from '@wick/core/laminate/permeability';
import { carriedOn } from '@wick/core/resin/gel-table';
import { halton, normalQuantile } from '@wick/core/verdict/sampling';
import { NINE_IN_TEN } from '@wick/core/verdict/verdict';
import type { LaidJob } from '../job/laid.ts';
import { flowShares, inPlaneDoubt, throughDoubt } from '../laminate/doubt.ts';
import { bareLine } from '../layout/edits.ts';
import { settle } from '../settle.ts';
import { doubtOf, scatterOf } from './doubt.ts';

/** Most sides along which a race is tried. */
const MOST_SIDES = 6;

/** Sides of the part along which resin may race. */
export const racingSides = (job: Pick<LaidJob, 'part'>): Point[][] =>
  sidesOf(polygonOf(job.part.outline)).slice(0, MOST_SIDES);

/** What was drawn, as standard normal values; and whether it races along each side. */
export interface Draw {
  readonly permeability: number;
  readonly thickness: number;
  readonly viscosity: number;
  readonly gelTime: number;
  readonly temperature: number;
  /** Of each material by its place in the list, in its plane and through it. */
  readonly own: (material: number) => number;
  readonly through: (material: number) => number;
  readonly races: (side: number) => boolean;
}

/** The job as it would be if an evenly spread draw were true; the same index gives the same draw every time. */
export function drawJob(
  job: LaidJob,
  shop: Shop,
  index: number,
): { inputs: Record<string, number>; drawn: LaidJob } {
  const normal = (base: number) => normalQuantile(halton(index + 1, base));
  const z = {
    permeability: normal(2),
    thickness: normal(3),
    viscosity: normal(5),
    gelTime: normal(7),
    temperature: normal(11),
  };
  const { raceChance } = scatterOf(job);
  const drawn = drawnJob(job, shop, {
    ...z,
    own: (n) => (carriesMost(job, job.materials[n]!) ? z.permeability : scatteredNormal(index, 2 * n)),
    through: (n) => scatteredNormal(index, 2 * n + 1),
    races: (side) => scattered(index, -1 - side) < raceChance,
  });
  return { inputs: { ...z, raceTracking: drawn.races }, drawn: drawn.job };
}

/** The job as it would be if a draw were true, and along how many sides it then races. */
export function drawnJob(job: LaidJob, shop: Shop, z: Draw): { job: LaidJob; races: number } {
  const doubt = doubtOf(job);
  const scatter = scatterOf(job);
  const factor = (spread: number, value: number) => spread ** (value / NINE_IN_TEN);
  const thickness = factor(scatter.thickness, z.thickness);
  const shift = (doubt.temperature * z.temperature) / NINE_IN_TEN;
  const scaled = job.materials.map((material, n) =>
    scaledMaterial(material, {
      ...permeabilityOf(job, material, {
        all: factor(doubt.permeability, z.permeability),
        own: z.own(n),
        through: z.through(n),
      }),
      thickness,
      viscosity: factor(doubt.viscosity, z.viscosity),
      gelTime: factor(doubt.gelTime, z.gelTime),
      warmer: shift,
    }),
  );
  const races = racingSides(job)
    .map((points, side): JobLine | null => (z.races(side) ? raceAlong(points, side, scatter.raceGap) : null))
    .filter((line) => line !== null);
  const temperature = settle(job, shop)['resin.temperature'].value + shift;
  const fraction = job.laminate.fibreVolumeFraction;
  return {
    races: races.length,
    job: {
      ...job,
      materials: scaled,
      laminate: { ...job.laminate, fibreVolumeFraction: fraction && Math.min(0.79, fraction / thickness) },
      lines: [...job.lines, ...races],
      resin: {
        ...job.resin,
        temperature,
        mouldTemperature: job.resin.mouldTemperature && job.resin.mouldTemperature + shift,
      },
    },
  };
}

/** Factors on a material's permeability: one for all that somebody typed for the job, else by its own entry, each material by itself. */
function permeabilityOf(job: LaidJob, material: Material, z: { all: number; own: number; through: number }) {
  if (job.doubt.permeability !== null) return { permeability: z.all, through: 1 };
  return {
    permeability: inPlaneDoubt(material) ** (z.own / NINE_IN_TEN),
    through: throughDoubt(material) ** (z.through / NINE_IN_TEN),
  };
}

/** The material whose doubt moves the fill most takes the evenly spread draws. */
function carriesMost(job: LaidJob, { id }: Material): boolean {
  const shares = flowShares(job);
  return (shares.get(id) ?? 0) === Math.max(...shares.values());
}

const scatteredNormal = (index: number, stream: number) => normalQuantile(scattered(index, stream));

/** A number between 0 and 1 that looks like chance, the same for the same draw and stream: neighbouring streams go their own ways. Source: finaliser of MurmurHash3 (Appleby). */
function scattered(index: number, stream: number): number {
  let h = Math.imul(index + 1, 0x9e3779b1) ^ Math.imul(stream + 0x51ed27, 0x85ebca6b);
  h = Math.imul(h ^ (h >>> 16), 0x85ebca6b);
  h = Math.imul(h ^ (h >>> 13), 0xc2b2ae35);
  return ((h ^ (h >>> 16)) >>> 0) / 2 ** 32 + 2 ** -33;
}

/** By which values of an entry are multiplied; those it has not are left out. */
export interface Scaling {
  readonly permeability: number;
  /** On top of it, through the thickness. */
  readonly through: number;
  /** Of the pressed fabric: its fibre fraction falls as this rises. */
  readonly thickness: number;
  readonly viscosity: number;
  readonly gelTime: number;
  /** K by which it is used warmer than what is stated. */
  readonly warmer: number;
}
export const AS_STATED: Scaling = {
  ...{ permeability: 1, through: 1, thickness: 1, viscosity: 1, gelTime: 1, warmer: 0 },
};

/** The entry with its values multiplied. */
export function scaledMaterial(material: Material, by: Scaling): Material {
  switch (material.kind) {
    case 'flowMesh':
      return { ...material, permeability: material.permeability * by.permeability };
    case 'fabric': {
      const { compaction } = material;
      const looser = (fraction: number) => Math.min(0.79, fraction / by.thickness);
      return {
        ...material,
        permeability: scalePermeability(material.permeability, by),
        compaction: {
          ...compaction,
          fractionAt100kPa: looser(compaction.fractionAt100kPa),
          wet: compaction.wet && {
            ...compaction.wet,
            fractionAt100kPa: looser(compaction.wet.fractionAt100kPa),
          },
        },
      };
    }
    case 'resin': {
      const { kinetics, gelTable, viscosityCurve } = material;
      const wide = gelTable && carriedOn(gelTable, Math.abs(by.warmer), material.name);
      return {
        ...material,
        viscosityPoints: material.viscosityPoints.map((p) => ({
          ...p,
          viscosity: p.viscosity * by.viscosity,
        })),
        gelPoints: material.gelPoints.map((p) => ({ ...p, time: p.time * by.gelTime })),
        gelTable: wide && {
          ...wide,
          catalyst: [...wide.catalyst],
          temperature: [...wide.temperature],
          time: wide.time.map((row) => row.map((t) => t * by.gelTime)),
        },
        viscosityCurve: viscosityCurve && {
          ...viscosityCurve,
          points: viscosityCurve.points.map((p) => ({ ...p, time: p.time * by.gelTime })),
        },
        kinetics: kinetics && {
          ...kinetics,
          A1: kinetics.A1 / by.gelTime,
          A2: kinetics.A2 / by.gelTime,
          viscosityA: kinetics.viscosityA * by.viscosity,
        },
      };
    }
    default:
      return material;
  }
}

type FabricPermeability = Extract<Material, { kind: 'fabric' }>['permeability'];

/** @param by through is on top of what scales all directions */
function scalePermeability(
  law: FabricPermeability,
  { permeability: by, through: more }: { permeability: number; through: number },
): FabricPermeability {
  if ('fibres' in law)
    return { fibres: { ...law.fibres, fibreRadius: law.fibres.fibreRadius * Math.sqrt(by) } };
  const throughOf = ({
    along,
    across,
    through,
  }: {
    along: number;
    across: number;
    through?: number | null;
  }) =>
    more === 1 ? through && through * by : (through ?? ASSUMED_THROUGH * Math.min(along, across)) * by * more;
  const scaled = (point: Exclude<FabricPermeability, { fibres: unknown } | { table: unknown }>) => ({
    ...point,
    along: point.along * by,
    across: point.across * by,
    through: throughOf(point),
  });
  return 'table' in law ? { table: law.table.map(scaled) } : scaled(law);
}

/** A gap along a side, as a line of the job. */
export const raceAlong = (points: readonly Point[], side: number, gap: number): JobLine => ({
  ...bareLine('race', points.slice(0, 200), `race-drawn-${side}`),
  name: `Race ${side + 1}`,
  bore: gap,
});
