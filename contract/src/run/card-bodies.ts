import { z } from 'zod';
import { coordinate } from '../job/places.ts';
import { quantity } from '../quantity.ts';
import { phases } from '../steps.ts';
import { instrumentId } from './instrument.ts';
import { runId } from './parts.ts';

/** A step of the card, by its place in the plan and as it was worded. */
const stepId = z.string().min(1).max(120);
/** Letters of a title, a caption or one difference; of a reason at least. */
export const LONGEST_TITLE = 200;
export const SHORTEST_REASON = 3;
/** Differences that are written down of a newer plan. */
export const MOST_DIFFERENCES = 100;
const title = z.string().max(LONGEST_TITLE);
const reason = (of: string) => z.string().trim().min(SHORTEST_REASON, `${of} needs a reason`).max(300);
const duration = quantity('duration', { atLeast: 0, below: 1e7 });

/** What a finger says of a surface. */
export const touchWords = ['transfers', 'tacky', 'noTransfer', 'pools', 'damp', 'dry'] as const;
export type TouchWord = (typeof touchWords)[number];

/** Work by the card, its clocks, and what is read and felt meanwhile. */
export const cardBodies = [
  z.strictObject({ kind: z.literal('done'), stepId, phase: z.enum(phases), title }),
  z.strictObject({
    kind: z.literal('skipped'),
    ...{ stepId, phase: z.enum(phases), title },
    why: reason('leaving a step out'),
  }),
  /** Somebody goes on past a hold point, by name and for a reason. */
  z.strictObject({
    kind: z.literal('overruled'),
    holdId: z.string().min(1).max(60),
    title,
    why: reason('going on past a hold point'),
  }),
  /** A clock that runs from this entry on: when it is time, by when it is too late, and how it slides with temperature. */
  z.strictObject({
    kind: z.literal('timer'),
    word: z.string().trim().min(1, 'a clock has a name').max(80),
    /** The step that started it, and the one that ends it. */
    stepId: stepId.nullable(),
    endsWith: stepId.nullable(),
    opens: duration,
    closes: duration.nullable(),
    slides: z
      .strictObject({
        temperature: quantity('temperature', { above: 233, below: 473 }),
        activationEnergy: z.number().gte(0).lte(200_000),
      })
      .nullable(),
  }),
  z.strictObject({ kind: z.literal('timerEnds'), timerId: runId }),
  /** Given by the server: a clock has come to its time. */
  z.strictObject({ kind: z.literal('due'), timerId: runId, what: z.enum(['opens', 'closing', 'closed']) }),
  /** So warm it is from now on where the part lies. */
  z.strictObject({
    kind: z.literal('warmth'),
    temperature: quantity('temperature', { above: 233, below: 473 }),
    instrumentId: instrumentId.nullable(),
  }),
  /** Wet film read with a comb at a place of the plan. */
  z.strictObject({
    kind: z.literal('comb'),
    pass: z.number().int().min(1).max(10),
    x: coordinate,
    y: coordinate,
    film: quantity('thickness', { atLeast: 0, below: 0.02 }),
  }),
  z.strictObject({
    kind: z.literal('touched'),
    where: z.enum(['gelCoat', 'barrier', 'laminate']),
    word: z.enum(touchWords),
  }),
  z.strictObject({
    kind: z.literal('photo'),
    photoId: runId,
    stepId: stepId.nullable(),
    caption: z.string().trim().max(LONGEST_TITLE),
  }),
  /** The run goes on by a newer plan. */
  z.strictObject({
    kind: z.literal('planTaken'),
    number: z.number().int().min(1).max(1000),
    differences: z.array(z.string().max(LONGEST_TITLE)).max(MOST_DIFFERENCES),
  }),
] as const;

/** What the server alone says. */
export const serverKinds: readonly string[] = ['alarm', 'due', 'planTaken'];
