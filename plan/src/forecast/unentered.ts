import type { Material } from '@wick/contract/materials';
import type { Shop } from '@wick/contract/shop';
import type { FlowForecast } from '@wick/core/flow/forecast';
import { ASSUMED_THROUGH, THROUGH_SHARES } from '@wick/core/laminate/permeability';
import { ACTIVATION_ENERGIES, ASSUMED_ACTIVATION_ENERGY, GAS_CONSTANT } from '@wick/core/resin/curve-fit';
import { ASSUMED_GEL_RATIO, chemistryOf, GEL_RATIOS } from '@wick/core/resin/resin-system';
import { USUAL_HEAT } from '@wick/core/resin/self-heating';
import type { Band } from '@wick/core/verdict/rule';
import type { LaidJob } from '../job/laid.ts';
import { runConditionsOf } from '../resin/run.ts';
import { materialOf } from '../job/material-of.ts';
import { ROUGH, ROUGH_LAYERS, verdictOf, type Resolution } from './assess.ts';
import { runsInLayers, runsOnClock } from './problem.ts';

/** What an entry does not say, what the forecast takes instead, and the job with the least and the most that it might be. */
export interface Unentered {
  readonly id: string;
  readonly label: string;
  readonly taken: string;
  readonly range: string;
  readonly between: readonly [LaidJob, LaidJob];
  /** The front itself moves with it, so it has to be run again; else it is looked up. */
  readonly movesFlow: boolean;
}

/** What the verdict would be at either end of what a value might be. */
export interface UnenteredEffect {
  /** Last corner and gel, s from first mix; Infinity where gel comes first. */
  readonly fill: readonly [number, number];
  readonly gel: readonly [number, number];
  readonly bands: readonly [Band, Band];
}

type Resin = Extract<Material, { kind: 'resin' }>;
type Fabric = Extract<Material, { kind: 'fabric' }>;

/** Of a core drilled for infusion; common practice, no source. */
const USUAL_HOLES = { diameter: 0.0025, spacing: 0.02 };
/** K between an entered point and one that the energy gives. */
const APART = 10;

const replaced = (job: LaidJob, material: Material): LaidJob => ({
  ...job,
  materials: job.materials.map((own) => (own.id === material.id ? material : own)),
});
const ends = <T>([least, most]: readonly [T, T], make: (value: T) => LaidJob) =>
  [make(least), make(most)] as const;

/** All that no entry says and the forecast of a job rests on, those of the resin first. */
export function unenteredOf(job: LaidJob, shop: Shop): Unentered[] {
  const resin = materialOf(job, job.resin.materialId, 'resin');
  const ofResin = resin && !resin.kinetics ? resinsUnentered(job, shop, resin) : [];
  return [...ofResin, ...(runsInLayers(job) ? laminateUnentered(job) : [])];
}

function resinsUnentered(job: LaidJob, shop: Shop, resin: Resin): Unentered[] {
  const movesFlow = runsOnClock(job) || job.forecast.soft;
  const found: Unentered[] = [];
  if (resin.gelViscosityRatio === null && !resin.viscosityCurve)
    found.push({
      ...{ id: 'growth', label: `thickening of ${resin.name} to gel`, movesFlow },
      ...{ taken: `${ASSUMED_GEL_RATIO} times`, range: `${GEL_RATIOS.join(' to ')} times` },
      between: ends(GEL_RATIOS, (gelViscosityRatio) => replaced(job, { ...resin, gelViscosityRatio })),
    });
  const [thin] = resin.viscosityPoints;
  if (resin.viscosityPoints.length === 1 && thin)
    found.push({
      ...{ id: 'thinning', label: `thinning of ${resin.name} with warmth, known at one temperature` },
      ...energyUnentered(thin.temperature, (temperature, share) => {
        const viscosity = share * thin.viscosity;
        return replaced(job, { ...resin, viscosityPoints: [thin, { temperature, viscosity }] });
      }),
      movesFlow,
    });
  const [gel] = resin.gelPoints;
  if (resin.gelPoints.length === 1 && gel && !resin.gelTable)
    found.push({
      ...{ id: 'quickening', label: `quickening of ${resin.name} with warmth, known at one temperature` },
      ...energyUnentered(gel.temperature, (temperature, share) =>
        replaced(job, { ...resin, gelPoints: [gel, { temperature, time: share * gel.time }] }),
      ),
      movesFlow,
    });
  if (resin.heatToGel == null && runConditionsOf(job, shop)?.pot) {
    const chemistry = chemistryOf(resin);
    const { toGel, between } = USUAL_HEAT[chemistry];
    found.push({
      ...{ id: 'heat', label: `heat of ${resin.name} to gel, which warms its pot`, movesFlow },
      taken: `${toGel / 1000} kJ/kg`,
      range: `${between.map((value) => value / 1000).join(' to ')} kJ/kg`,
      between: ends(between, (heatToGel) => replaced(job, { ...resin, heatToGel })),
    });
  }
  return found;
}

/**
 * A value known at one temperature only, K, is given a second point at another.
 * @param at makes the job with the point there, as a share of the known value
 */
function energyUnentered(known: number, at: (temperature: number, share: number) => LaidJob) {
  const other = known + APART;
  return {
    taken: `${ASSUMED_ACTIVATION_ENERGY / 1000} kJ/mol`,
    range: `${ACTIVATION_ENERGIES.map((energy) => energy / 1000).join(' to ')} kJ/mol`,
    between: ends(ACTIVATION_ENERGIES, (energy) =>
      at(other, Math.exp((energy / GAS_CONSTANT) * (1 / other - 1 / known))),
    ),
  };
}

function laminateUnentered(job: LaidJob): Unentered[] {
  const laminates = [job.laminate, ...job.zones.map((zone) => zone.laminate)];
  const laid = new Set(
    laminates.flatMap(({ plies, coreId }) => [
      ...plies.map((ply) => ('materialId' in ply ? ply.materialId : null)),
      coreId,
    ]),
  );
  const used = job.materials.filter(({ id }) => laid.has(id));
  const fabrics = used.filter((own): own is Fabric => own.kind === 'fabric' && lacksThrough(own));
  const closed = used.filter((own) => own.kind === 'core' && !own.holes && !own.slits);
  const share = (value: number) => `${Math.round(100 * value)} %`;
  return [
    ...(fabrics.length === 0
      ? []
      : [
          {
            ...{ id: 'through', label: `flow through the plies, of that in their plane`, movesFlow: true },
            ...{ taken: share(ASSUMED_THROUGH), range: THROUGH_SHARES.map(share).join(' to ') },
            between: ends(THROUGH_SHARES, (part) =>
              fabrics.reduce((changed, fabric) => replaced(changed, withThrough(fabric, part)), job),
            ),
          },
        ]),
    ...(closed.length === 0
      ? []
      : [
          {
            ...{
              id: 'holes',
              label: `holes of ${closed.map(({ name }) => name).join(', ')}`,
              movesFlow: true,
            },
            taken: 'none',
            range: `none, or ${1000 * USUAL_HOLES.diameter} mm every ${1000 * USUAL_HOLES.spacing} mm`,
            between: [
              job,
              closed.reduce(
                (changed, core) => replaced(changed, { ...core, holes: USUAL_HOLES } as Material),
                job,
              ),
            ] as const,
          },
        ]),
  ];
}

const pointsOf = ({ permeability }: Fabric) =>
  'fibres' in permeability ? [] : 'table' in permeability ? permeability.table : [permeability];
const lacksThrough = (fabric: Fabric) => pointsOf(fabric).some(({ through }) => through == null);

function withThrough(fabric: Fabric, part: number): Fabric {
  const { permeability } = fabric;
  const filled = <P extends { along: number; across: number; through?: number | null }>(point: P): P => ({
    ...point,
    through: point.through ?? part * Math.min(point.along, point.across),
  });
  if ('fibres' in permeability) return fabric;
  return {
    ...fabric,
    permeability: 'table' in permeability ? { table: permeability.table.map(filled) } : filled(permeability),
  };
}

/** The runs that tell what a value does to the front: of the job as it is, and of both ends. None where it is looked up. */
export const runsFor = ({ between, movesFlow }: Unentered, job: LaidJob) =>
  movesFlow ? [job, ...between].map((own) => ({ job: own, how: roughly(own) })) : [];

const roughly = (job: LaidJob): Resolution => (runsInLayers(job) ? ROUGH_LAYERS : ROUGH);

/**
 * The verdict at both ends of what a value might be: the forecast there is goes so much faster or slower as the rough runs
 * differ.
 * @param runs as runsFor asks for them
 * @returns null while no resin is chosen
 * @throws ModelError where the resin cannot be judged there
 */
export function effectOf(
  { between }: Unentered,
  { shop, flow }: { shop: Shop; flow: FlowForecast },
  [base, ...runs]: readonly FlowForecast[],
): UnenteredEffect | null {
  const [least, most] = between.map((changed, n) =>
    verdictOf(changed, shop, base ? scaled(flow, runs[n]!, base) : flow),
  );
  return least && most
    ? {
        fill: [least.fillTime, most.fillTime],
        gel: [least.gelTime, most.gelTime],
        bands: [least.band, most.band],
      }
    : null;
}

/** A forecast that runs as much slower as one rough run does than another; where either stays dry, the rough one itself. */
function scaled(flow: FlowForecast, own: FlowForecast, base: FlowForecast): FlowForecast {
  if (!flow.isFilled || !own.isFilled || !base.isFilled) return own;
  const factor = own.fillTime / base.fillTime;
  return {
    ...flow,
    fillTime: factor * flow.fillTime,
    samples: flow.samples.map((sample) => ({ ...sample, time: factor * sample.time })),
  };
}
