import { z } from 'zod';
import { itemId, coordinate, point } from './places.ts';
import { hoseLength, layoutShape } from './layout.ts';
import { prepSchema } from './prep.ts';
import { materialSchema } from '../materials.ts';
import { quantity } from '../quantity.ts';

export const JOB_FORMAT = 'vivid-wick-job';
export const JOB_VERSION = 10;

/** An arc of nearly a whole circle: 4 atan(20) is 348 degrees. */
const MAX_BULGE = 20;

/** The edge that leaves a corner is an arc where it has a bulge: the tangent of a quarter of the arc's angle, positive to the left. */
const corner = z.strictObject({
  x: coordinate,
  y: coordinate,
  bulge: z.number().min(-MAX_BULGE).max(MAX_BULGE).optional(),
});
const ring = (most: number, what: string) =>
  z
    .array(corner)
    .max(most)
    .refine(
      (corners) => corners.length > 2 || (corners.length === 2 && corners.some(({ bulge }) => bulge)),
      `${what} needs three corners, or two with an arc between them`,
    );

/** How far a ply stops short of the edge of its laminate; below 0 it reaches past it. */
const inset = quantity('length', { atLeast: -0.5, below: 5 });

const plySchema = z.strictObject({
  id: itemId,
  materialId: z.string(),
  angle: quantity('angle', { atLeast: -7, below: 7 }),
  inset,
});

/** A ply of the base laminate that runs on through a zone: counted, turned and cut where it stands in the base. */
const throughSchema = z.strictObject({ through: itemId });

const stackShape = {
  coreId: z.string().nullable(),
  /** Plies between mould and core; null lays it in the middle. */
  pliesUnderCore: z.number().int().min(0).max(500).nullable(),
  /** Either is wanted and gives the other; both null take what the vacuum presses. */
  fibreVolumeFraction: quantity('fraction', { above: 0, below: 0.8 }).nullable(),
  compactionPressure: quantity('gaugePressure', { above: 0, below: 1e6 }).nullable(),
};
const oneTarget = {
  check: (laminate: { fibreVolumeFraction: number | null; compactionPressure: number | null }) =>
    laminate.fibreVolumeFraction === null || laminate.compactionPressure === null,
  message: 'fibre volume and compaction pressure give each other: state one of them',
};

/** Plies from the mould up. */
const laminateSchema = z
  .strictObject({ plies: z.array(plySchema).max(500), ...stackShape })
  .refine(oneTarget.check, oneTarget.message);
const zoneLaminateSchema = z
  .strictObject({ plies: z.array(z.union([plySchema, throughSchema])).max(500), ...stackShape })
  .refine(oneTarget.check, oneTarget.message);

const featureSchema = z.strictObject({
  id: itemId,
  name: z.string().trim().min(1).max(40),
  /** Rise: the mould climbs there. Step: a sudden change of level. Inside corner: where bag and plies bridge. */
  kind: z.enum(['rise', 'step', 'insideCorner']),
  points: z.array(point).min(2, 'a line needs two points').max(200),
  height: quantity('length', { atLeast: 0, below: 10 }),
  radius: quantity('length', { atLeast: 0, below: 10 }),
  /** By which the mould turns there; null for a right angle. */
  angle: quantity('angle', { above: 0.05, atMost: Math.PI / 2 }).nullable(),
});

const temperature = quantity('temperature', { above: 233, below: 473 });
const factor = quantity('factor', { atLeast: 1, atMost: 20 });
const rise = quantity('fraction', { atLeast: -1, atMost: 1 });

/** Layouts that a job may have. */
export const MOST_LAYOUTS = 13;

/** A region with a laminate of its own. */
const zoneSchema = z.strictObject({
  id: itemId,
  name: z.string().trim().min(1).max(40),
  outline: ring(500, 'a zone'),
  laminate: zoneLaminateSchema,
  /** Of the mould there; null for the resin's own. */
  temperature: temperature.nullable(),
});

/** One way to lay lines on the part, under a letter. */
const layoutSchema = z.strictObject({
  id: itemId,
  letter: z.string().regex(/^[A-Z]$/, 'a layout has a letter from A to Z'),
  name: z.string().trim().max(40),
  ...layoutShape,
  /** Zones that slow the resin between part and vent, and need not fill; they lie over the part's zones. */
  brakes: z.array(zoneSchema).max(30),
});

/** The plan of a job as it is stored and exported. A null is "unknown": the forecast assumes a value and says so. */
export const jobSchema = z.strictObject({
  format: z.literal(JOB_FORMAT),
  version: z.literal(JOB_VERSION),
  name: z.string().trim().min(1, 'give the job a name').max(80),
  process: z.enum(['infusion', 'wetLayup', 'closedMould', 'bonding']),
  part: z.strictObject({
    outline: ring(2000, 'an outline'),
    holes: z.array(z.strictObject({ id: itemId, outline: ring(500, 'a hole') })).max(50),
    /** Rise of the mould along the plan's x and y axes, metre per metre along the surface; null when it lies level. */
    rise: z
      .strictObject({ x: rise, y: rise })
      .refine(({ x, y }) => Math.hypot(x, y) <= 1, 'a surface cannot rise by more than its own length')
      .nullable(),
    /** Mould beyond the part's edge for tape and bag; null where nobody has measured it. */
    flange: quantity('length', { atLeast: 0, below: 5 }).nullable(),
    /** Rim of the laid part that is trimmed off when it is out of the mould; null for none. */
    trim: quantity('length', { atLeast: 0, below: 1 }).nullable(),
    /** Lines that matter to bag and plies: where the surface climbs, steps or turns in. */
    features: z.array(featureSchema).max(100),
    /** Where the bag is looked at in section, besides across every feature. */
    sections: z
      .array(
        z.strictObject({
          id: itemId,
          name: z.string().trim().min(1).max(40),
          points: z.array(point).min(2, 'a section needs two points').max(50),
        }),
      )
      .max(30),
  }),
  /** The mould it is made on, by its record in the workshop's list. */
  mould: z.strictObject({ id: z.string().max(60), name: z.string().max(80) }).nullable(),
  prep: prepSchema,
  /** The side that will be seen. */
  showFace: z.enum(['mould', 'bag']).nullable(),
  /** The side that something will be bonded to afterwards. */
  bondFace: z.enum(['mould', 'bag']).nullable(),
  laminate: laminateSchema,
  /** Regions with a laminate of their own; later ones lie over earlier ones. */
  zones: z.array(zoneSchema).max(30),
  layouts: z.array(layoutSchema).min(1, 'a job has at least one layout').max(MOST_LAYOUTS),
  /** The one that is worked on. */
  currentLayoutId: itemId,
  /** Places where the front is timed. */
  marks: z
    .array(
      z.strictObject({ id: itemId, name: z.string().trim().min(1).max(40), x: coordinate, y: coordinate }),
    )
    .max(50),
  resin: z.strictObject({
    materialId: z.string().nullable(),
    temperature: temperature.nullable(),
    /** Of the mould where it differs from the resin's; null for the same. */
    mouldTemperature: temperature.nullable(),
    /** The warmest that the part and what lies on it get until it is cured; null for no warmer than the mould. */
    cureTemperature: temperature.nullable(),
    /** K/s by which shop and resin warm or cool meanwhile. */
    drift: quantity('temperatureRate', { atLeast: -0.01, atMost: 0.01 }).nullable(),
    /** All batches where there is more than one: into which pot (null for the first), when mixed, from the first mix on, and how much (null for the rest). */
    batches: z
      .array(
        z.strictObject({
          id: itemId,
          stationId: itemId.nullable(),
          mixedAt: quantity('duration', { atLeast: 0, below: 1e6 }),
          mass: quantity('mass', { above: 0, below: 1e5 }).nullable(),
        }),
      )
      .max(20),
    /** Batches that can be mixed at once. */
    mixers: z.number().int().min(1).max(10).nullable(),
    /** What resin is mixed in, and what it is drawn from, among the job's materials. */
    mixingPotId: z.string().nullable(),
    feedPotId: z.string().nullable(),
    /** Step of the scale it is weighed on. */
    scaleStep: quantity('mass', { above: 0, below: 10 }).nullable(),
    mixDuration: quantity('duration', { atLeast: 0, below: 1e5 }).nullable(),
    degasDuration: quantity('duration', { atLeast: 0, below: 1e5 }).nullable(),
    hoseFillDuration: quantity('duration', { atLeast: 0, below: 1e5 }).nullable(),
    hoseLength: hoseLength.nullable(),
    /** Kept in the pot to the end, so that the hose draws no air; and what is mixed on top of all that is reckoned with. */
    heel: quantity('mass', { atLeast: 0, below: 1000 }).nullable(),
    reserve: z
      .discriminatedUnion('kind', [
        z.strictObject({ kind: z.literal('share'), share: quantity('fraction', { atLeast: 0, atMost: 2 }) }),
        z.strictObject({ kind: z.literal('mass'), mass: quantity('mass', { atLeast: 0, below: 1000 }) }),
        /** So much resin over the bottom of each pot, in place of a heel. */
        z.strictObject({ kind: z.literal('depth'), depth: quantity('length', { above: 0, below: 1 }) }),
      ])
      .nullable(),
  }),
  vacuum: z.strictObject({
    ventPressure: quantity('absolutePressure', { atLeast: 0, below: 110_000 }).nullable(),
    /** Half of the interval it was measured in; null where nobody has measured it. */
    ventSpread: quantity('absolutePressure', { atLeast: 0, below: 20_000 }).nullable(),
    /** Among the job's materials. */
    pumpId: z.string().nullable(),
    /** Catch pot between bag and pump, among the job's materials. */
    potId: z.string().nullable(),
    /** A valve that holds the vacuum when the pump stops; null where nobody has said. */
    hasCheckValve: z.boolean().nullable(),
    /** What the part is for: few voids are taken where it carries load; null where nobody has said. */
    isStructural: z.boolean().nullable(),
  }),
  /** How the forecast is made. */
  forecast: z.strictObject({
    /** Mesh, plies and core as layers, or averaged through the thickness; null as it matters. */
    layers: z.boolean().nullable(),
    /** The laminate gives way under resin pressure and settles after the feed shuts. */
    soft: z.boolean(),
    /** Nodes of the fine mesh; null takes the usual number. */
    nodeCount: z.number().int().min(500).max(20_000).nullable(),
  }),
  /** Spread of what is not known, as factors (one in ten beyond either end); null takes the usual ones. */
  doubt: z.strictObject({
    permeability: factor.nullable(),
    viscosity: factor.nullable(),
    gelTime: factor.nullable(),
    temperature: quantity('temperatureDifference', { atLeast: 0, below: 30 }).nullable(),
    thickness: factor.nullable(),
    /** Chance that resin races along an edge, and the gap it then finds. */
    raceChance: quantity('fraction', { atLeast: 0, atMost: 1 }).nullable(),
    raceGap: quantity('thickness', { above: 0, below: 0.05 }).nullable(),
  }),
  /** The values the job was computed with; ids used above refer to these. */
  materials: z.array(materialSchema).max(500),
});

export interface Job extends z.infer<typeof jobSchema> {}
export type JobLayout = Job['layouts'][number];
export type JobLine = JobLayout['lines'][number];
export type JobAction = JobLine['actions'][number];
export type JobTee = JobLayout['tees'][number];
export type JobStation = JobLayout['stations'][number];
export type JobTrigger = JobAction['when'];
export type JobPly = Job['laminate']['plies'][number];
export type JobLaminate = Job['laminate'];
export type JobZone = Job['zones'][number];
export type ZonePly = JobZone['laminate']['plies'][number];
export type JobFeature = Job['part']['features'][number];
export type JobSection = Job['part']['sections'][number];
export type JobHole = Job['part']['holes'][number];
