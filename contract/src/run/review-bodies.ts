import { quantityNames } from '@wick/core/units/quantities';
import { z } from 'zod';
import { coordinate, point } from '../job/places.ts';
import { learnedSides, MOST_RUNS_BEHIND } from '../material/learned.ts';
import { mouldSides } from '../mould.ts';
import { quantity } from '../quantity.ts';
import { LONGEST_TITLE } from './card-bodies.ts';
import { runId } from './parts.ts';

const id = z.string().min(1).max(80);
const text = z.string().trim().max(1000);
const mass = quantity('mass', { above: 0, below: 10_000 });
const number = z.number();

/** What can be seen on a part that is out of the mould. */
export const findingKinds = [
  'drySpot',
  'pinholes',
  'bridge',
  'richCorner',
  'print',
  'race',
  'dryCore',
  'soft',
  'stain',
  'other',
] as const;
export type FindingKind = (typeof findingKinds)[number];

/** Where on the part it is seen. */
export const findingSides = ['bag', 'mould', 'through', 'edge'] as const;
export type FindingSide = (typeof findingSides)[number];

/** How pinholes or dry spots lie: spread evenly, in a fan from one place, in a line, here and there. */
export const findingPatterns = ['even', 'fan', 'line', 'scattered'] as const;
export type FindingPattern = (typeof findingPatterns)[number];

/** Pictures of one finding. */
export const MOST_PICTURES = 12;
/** Corners of what is drawn for it. */
export const MOST_CORNERS = 200;

/** What became of the part. */
export const outcomes = ['good', 'rework', 'scrap'] as const;
export type PartOutcome = (typeof outcomes)[number];

/** What a lesson changes. */
export const lessonTargets = ['plan', 'stack', 'steps', 'mould', 'library'] as const;
export type LessonTarget = (typeof lessonTargets)[number];

/** What was done with what parts taught. */
const learnings = ['taken', 'refused', 'takenBack'] as const;

/** Of a figure that is compared; figures and causes that are kept of a part. */
const rowId = z.string().max(160);
export const MOST_ROWS = 300;
export const MOST_CAUSES = 3;

/** Planned and measured; null where nobody knows. */
const pair = z.strictObject({ planned: number.nullable(), measured: number.nullable() });

/** What one run told of values of the library, kept so that it can be counted again with all others. */
const evidenceSchema = z.strictObject({
  side: z.enum(learnedSides),
  /** ln of what was measured over what the plan had, and its standard deviation. */
  told: number.gte(-20).lte(20),
  deviation: number.gt(0).lte(20),
  /** Entries it hangs on: by how much, the factor the plan already had learned of each, and a key of the values it stood on. */
  parts: z
    .array(
      z.strictObject({
        materialId: z.string().max(60),
        side: z.enum(learnedSides),
        share: number.gte(-5).lte(5),
        used: number.gt(0).lt(1e6),
        base: z.string().max(40),
      }),
    )
    .min(1)
    .max(30),
});
export type Evidence = z.infer<typeof evidenceSchema>;
export const bookEvidenceSchema = z.array(evidenceSchema).max(10);

/** A part as it stands in the shop's book: what a list, a chart and the learning need of it. */
export const bookFiguresSchema = z.strictObject({
  process: z.string().max(40),
  mouldId: z.string().max(60).nullable(),
  mouldName: z.string().max(80),
  materials: z.array(z.strictObject({ id: z.string().max(60), name: z.string().max(80) })).max(60),
  outcome: z.enum(outcomes),
  /** In the workshop's money. */
  cost: number.gte(0).lt(1e9).nullable(),
  /** s since first contact */
  fill: pair,
  /** That the forecast gave as early and late, s; null for not before gel. */
  fillRange: z.strictObject({ early: number.nullable(), late: number.nullable() }).nullable(),
  fraction: pair,
  /** kg */
  weight: pair,
  /** Pa m3/s; planned is the most that the part could take. */
  leak: pair,
  /** kg of resin drawn from the pot */
  drawn: pair,
  /** s since first contact */
  gel: pair,
  findings: z.partialRecord(z.enum(findingKinds), z.number().int().min(1).max(1000)),
  causeId: id.nullable(),
  /** What was observed or answered, by the question that tells causes apart. */
  answers: z.record(id, id),
  /** Which measured figures lie outside the doubt of their plan. */
  outside: z.array(rowId).max(MOST_ROWS),
});
export type BookFigures = z.infer<typeof bookFiguresSchema>;

const measure = number.nullable();
/** A figure as planned, with what one in ten lie below and above, and as measured; null where there is no end. */
const comparedSchema = z.strictObject({
  id: rowId,
  group: z.enum(['part', 'fill', 'resin', 'vacuum', 'cure']),
  name: z.string().max(120),
  quantity: z.enum(quantityNames),
  planned: z.strictObject({ early: measure, middle: measure, late: measure }).nullable(),
  measured: number,
  isInside: z.boolean().nullable(),
  means: z.string().max(300),
});
export type ComparedRow = z.infer<typeof comparedSchema>;
/** A cause as it was ranked, with what spoke for it and against it. */
const rankedSchema = z.strictObject({
  id,
  name: z.string().max(120),
  belief: quantity('fraction', { atLeast: 0, atMost: 1 }),
  for: z.array(z.string().max(200)).max(30),
  against: z.array(z.string().max(200)).max(30),
});

/** What a part came to, once it is out of the mould. */
export const reviewBodies = [
  /** Pin, line or area on the plan. */
  z.strictObject({
    kind: z.literal('finding'),
    is: z.enum(findingKinds),
    side: z.enum(findingSides),
    form: z.enum(['pin', 'line', 'area']),
    path: z.array(point).min(1, 'a finding lies somewhere on the plan').max(MOST_CORNERS),
    /** Largest way across, where the drawing does not tell. */
    size: quantity('length', { above: 0, below: 1000 }).nullable(),
    pattern: z.enum(findingPatterns).nullable(),
    photoIds: z.array(runId).max(MOST_PICTURES),
    note: text,
  }),
  /** What was done about a finding. */
  z.strictObject({ kind: z.literal('mended'), findingId: runId, did: text.min(1, 'say what was done') }),
  /** One more picture of a finding. */
  z.strictObject({ kind: z.literal('pictured'), findingId: runId, photoId: runId }),
  z.strictObject({
    kind: z.literal('weighed'),
    /** The part; what was left of the resin that was mixed. */
    what: z.enum(['part', 'resinLeft']),
    mass,
    flange: z.enum(['on', 'off']).nullable(),
    isTrimmed: z.boolean(),
  }),
  z.strictObject({
    kind: z.literal('gauged'),
    x: coordinate,
    y: coordinate,
    thickness: quantity('thickness', { above: 0, below: 1 }),
  }),
  /** A coupon whose resin was burned or dissolved away; masses kg, density kg/m3. */
  z.strictObject({
    kind: z.literal('burned'),
    how: z.enum(['burned', 'dissolved']),
    mass,
    left: mass,
    density: quantity('density', { above: 100, below: 20_000 }),
  }),
  /** Fresh resin in a cup or a viscometer. */
  z.strictObject({
    kind: z.literal('cupRead'),
    viscosity: quantity('viscosity', { above: 0, below: 1000 }),
    temperature: quantity('temperature', { above: 233, below: 473 }),
  }),
  /** It no longer flows: strings, or stands when tipped. */
  z.strictObject({ kind: z.literal('gelled'), where: z.enum(['pot', 'cup', 'part']) }),
  /** Answer to a question that tells causes apart. */
  z.strictObject({ kind: z.literal('told'), questionId: id, answer: id }),
  /** What the workshop holds to be the cause in the end. */
  z.strictObject({ kind: z.literal('causeNamed'), causeId: id, why: text }),
  z.strictObject({
    kind: z.literal('lesson'),
    target: z.enum(lessonTargets),
    text: text.min(1, 'a lesson says what to change'),
    /** Which of the known changes it is; null of one in words alone. */
    change: id.nullable(),
    /** By which it is changed, where there is a number to it. */
    amount: number.nullable(),
  }),
  /** A lesson was taken into a job, or set aside. */
  z.strictObject({
    kind: z.literal('lessonSettled'),
    lessonId: runId,
    is: z.enum(['taken', 'dropped']),
    jobId: z.string().max(60).nullable(),
  }),
  /** A value of the library was changed by what was learned, or left, or set back. */
  z.strictObject({
    kind: z.literal('learned'),
    materialId: z.string().max(60),
    title: z.string().max(LONGEST_TITLE),
    side: z.enum(learnedSides),
    is: z.enum(learnings),
    factor: number.gt(0).lt(1e6),
    /** x/÷ of the next forecast */
    doubt: number.gte(1).lt(1e6),
    runIds: z.array(runId).max(MOST_RUNS_BEHIND),
  }),
  /** The same of a mould: what its bags let in, Pa m3/s, or what its parts draw over the plan. */
  z.strictObject({
    kind: z.literal('mouldLearned'),
    mouldId: z.string().max(60),
    title: z.string().max(LONGEST_TITLE),
    side: z.enum(mouldSides),
    is: z.enum(learnings),
    value: z.number().gt(0).lt(1e6),
    /** x/÷ of the next part */
    doubt: z.number().gte(1).lte(1000),
    runIds: z.array(runId).max(MOST_RUNS_BEHIND),
  }),
  /** Into the shop's book; the last one counts. */
  z.strictObject({
    kind: z.literal('booked'),
    figures: bookFiguresSchema,
    evidence: bookEvidenceSchema,
    rows: z.array(comparedSchema).max(MOST_ROWS),
    causes: z.array(rankedSchema).max(MOST_CAUSES),
  }),
  z.strictObject({
    kind: z.literal('signed'),
    as: z.string().trim().min(1, 'say as what you sign').max(40),
  }),
] as const;
