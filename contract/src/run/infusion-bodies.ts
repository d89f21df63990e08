import { z } from 'zod';
import { coordinate } from '../job/places.ts';
import { quantity } from '../quantity.ts';
import { LONGEST_TITLE } from './card-bodies.ts';

const id = z.string().min(1).max(80);
const mass = quantity('mass', { atLeast: 0, below: 1000 });
const opening = quantity('fraction', { atLeast: 0, atMost: 1 });
const title = z.string().trim().min(1).max(LONGEST_TITLE);

/** What can go wrong while resin runs, each with a sheet of what to do. */
export const dayFaults = [
  'pumpStopped',
  'leakInFill',
  'bucketLow',
  'frontStalls',
  'race',
  'bagFloats',
  'potWarm',
  'gelsEarly',
  'powerOut',
] as const;
export type DayFault = (typeof dayFaults)[number];

/** Two schools of how a fill ends: vacuum kept until gel, or feed and vent both shut once all is wet. */
export const stopSchools = ['keepVacuum', 'shutBoth'] as const;
export type StopSchool = (typeof stopSchools)[number];

/** How somebody helps the cure along. */
export const warmings = ['none', 'blanket', 'lamps', 'tent'] as const;
export type WarmingKind = (typeof warmings)[number];

/** The live infusion and the cure. */
export const infusionBodies = [
  /** Resin and hardener met, where nobody mixed at the bench by the sheet: the clock starts. */
  z.strictObject({ kind: z.literal('mixed'), mass: mass.nullable() }),
  /** The front is here. */
  z.strictObject({
    kind: z.literal('front'),
    /** The planned mark it stands at; null for a place that was pointed at. */
    markId: id.nullable(),
    x: coordinate,
    y: coordinate,
    /** By which the place may be off, one standard deviation. */
    doubt: quantity('length', { above: 0, below: 1 }),
  }),
  /** A line is opened, throttled or clamped. */
  z.strictObject({
    kind: z.literal('valve'),
    lineId: id,
    opening,
    /** The action of the plan that it does; null of one that nobody planned. */
    actionId: id.nullable(),
  }),
  z.strictObject({ kind: z.literal('bubbles'), where: z.enum(['inlet', 'outlet', 'bag']) }),
  z.strictObject({ kind: z.literal('batchPoured'), mass }),
  /** What the pot weighs without itself. */
  z.strictObject({ kind: z.literal('potLeft'), mass }),
  /** One of the ways out was taken, with what it was to bring. */
  z.strictObject({ kind: z.literal('decided'), option: id, title, gain: z.string().max(300) }),
  z.strictObject({ kind: z.literal('school'), is: z.enum(stopSchools) }),
  /** All of it is wet, as far as anybody can see. */
  z.strictObject({ kind: z.literal('allWet') }),
  /** What of a sheet was done; and whether it stands in for what failed. */
  z.strictObject({
    kind: z.literal('fault'),
    fault: z.enum(dayFaults),
    did: z.string().trim().max(300),
    mends: z.boolean().default(false),
  }),
  z.strictObject({
    kind: z.literal('warming'),
    is: z.enum(warmings),
    /** It is set to; null without a setting. */
    temperature: quantity('temperature', { above: 233, below: 473 }).nullable(),
  }),
] as const;
