import { polygonOf } from '@wick/core/geometry/arcs';
import type { Point } from '@wick/core/geometry/polygon';
import { sidesOf } from '@wick/core/geometry/sides';
import type { EnsembleSample } from '@wick/core/verdict/ensemble';
import { halton, normalQuantile } from '@wick/core/verdict/sampling';
import { clockOf } from '@wick/core/verdict/verdict';
import { forecastJob, timelineOf } from './assess.ts';
import { doubtOf, runConditionsOf } from './forecast-input.ts';
import { runsOnClock } from './flow-request.ts';
import type { Job, JobLine } from './job.ts';
import type { Material } from './materials.ts';
import type { Shop } from './shop.ts';

/** Usual spreads beside those of the verdict. Common practice, no source. */
export const usualScatter = { thickness: 1.05, raceChance: 0.15, raceGap: 0.001 };
/** One in ten lies beyond either end of a spread. */
const NINE_IN_TEN = 1.2815515655446004;
/** Most sides along which a race is tried. */
const MOST_SIDES = 6;
const RUN = { nodeCount: 600, steps: 40, soft: false };

/** Each sample has to be solved anew when more than a factor on the fluidity time is in doubt. */
export function needsSolving(job: Job): boolean {
  const { thickness, raceChance } = job.doubt;
  return (
    runsOnClock(job) ||
    (thickness ?? usualScatter.thickness) > 1 ||
    (raceChance ?? usualScatter.raceChance) > 0
  );
}

/**
 * One run of a job with its unknowns drawn from their spreads; the same index gives the same draw every time.
 * @throws ModelError as forecastJob, and when no resin is chosen
 */
export function sampleJob(job: Job, shop: Shop, index: number): EnsembleSample {
  const { inputs, drawn } = drawJob(job, shop, index);
  const flow = forecastJob(drawn, shop, RUN);
  const run = runConditionsOf(drawn, shop)!;
  const clock = clockOf(run);
  const { clockTime } = timelineOf(flow, clock, run.openTime);
  return {
    inputs,
    fillTime: flow.isFilled ? clockTime(flow.fillTime) : Infinity,
    gelTime: clock.gelTime,
    marks: flow.marks.map(({ arrival }) => (Number.isNaN(arrival) ? Infinity : clockTime(arrival))),
    worstPlace: flow.dryRegions[0]?.place ?? flow.lastPlace,
  };
}

/** The job as it would be if the draw were true. */
export function drawJob(job: Job, shop: Shop, index: number): { inputs: Record<string, number>; drawn: Job } {
  const doubt = doubtOf(job);
  const normal = (base: number) => normalQuantile(halton(index + 1, base));
  const z = {
    permeability: normal(2),
    thickness: normal(3),
    viscosity: normal(5),
    gelTime: normal(7),
    temperature: normal(11),
  };
  const factor = (spread: number, value: number) => spread ** (value / NINE_IN_TEN);
  const thickness = factor(job.doubt.thickness ?? usualScatter.thickness, z.thickness);
  const scaled = job.materials.map((material) =>
    scatterMaterial(material, {
      permeability: factor(doubt.permeability, z.permeability),
      thickness,
      viscosity: factor(doubt.viscosity, z.viscosity),
      gelTime: factor(doubt.gelTime, z.gelTime),
    }),
  );
  const chance = job.doubt.raceChance ?? usualScatter.raceChance;
  const gap = job.doubt.raceGap ?? usualScatter.raceGap;
  const races = sidesOf(polygonOf(job.part.outline))
    .slice(0, MOST_SIDES)
    .map((points, side): JobLine | null =>
      halton(index + 1, RACE_BASES[side]!) < chance ? raceAlong(points, side, gap) : null,
    )
    .filter((line) => line !== null);
  const shift = (doubt.temperature * z.temperature) / NINE_IN_TEN;
  const temperature = (job.resin.temperature ?? shop.temperature) + shift;
  const fraction = job.laminate.fibreVolumeFraction;
  return {
    inputs: { ...z, raceTracking: races.length },
    drawn: {
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

const RACE_BASES = [13, 17, 19, 23, 29, 31];

function scatterMaterial(
  material: Material,
  by: { permeability: number; thickness: number; viscosity: number; gelTime: number },
): Material {
  switch (material.kind) {
    case 'flowMesh':
      return { ...material, permeability: material.permeability * by.permeability };
    case 'fabric': {
      const { compaction } = material;
      const looser = (fraction: number) => Math.min(0.79, fraction / by.thickness);
      return {
        ...material,
        permeability: scalePermeability(material.permeability, by.permeability),
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
      return {
        ...material,
        viscosityPoints: material.viscosityPoints.map((p) => ({
          ...p,
          viscosity: p.viscosity * by.viscosity,
        })),
        gelPoints: material.gelPoints.map((p) => ({ ...p, time: p.time * by.gelTime })),
        gelTable: gelTable && {
          ...gelTable,
          time: gelTable.time.map((row) => row.map((t) => t * by.gelTime)),
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

function scalePermeability(law: FabricPermeability, by: number): FabricPermeability {
  if ('fibres' in law)
    return { fibres: { ...law.fibres, fibreRadius: law.fibres.fibreRadius * Math.sqrt(by) } };
  const scaled = (point: Exclude<FabricPermeability, { fibres: unknown } | { table: unknown }>) => ({
    ...point,
    along: point.along * by,
    across: point.across * by,
    through: point.through && point.through * by,
  });
  return 'table' in law ? { table: law.table.map(scaled) } : scaled(law);
}

/** A gap along a side, as a line of the job. */
export function raceAlong(points: readonly Point[], side: number, gap: number): JobLine {
  return {
    id: `race-drawn-${side}`,
    kind: 'race',
    name: `Race ${side + 1}`,
    points: points.slice(0, 200),
    bore: gap,
    hoseLength: null,
    hoseBore: null,
    stockId: null,
    hoseId: null,
    tee: null,
    stationId: null,
    inlet: 0.5,
    potLevel: null,
    startsOpen: true,
    actions: [],
    pinned: false,
  };
}
