import { z } from 'zod';
import { itemId, point } from './places.ts';
import { layerSchema } from './stack.ts';
import { quantity } from '../quantity.ts';

const delay = quantity('duration', { atLeast: 0, below: 1e5 });

/** What sets off an opening or closing. Times run from first mix; a delay runs from the trigger. */
const triggerSchema = z.discriminatedUnion('kind', [
  z.strictObject({ kind: z.literal('time'), time: quantity('duration', { atLeast: 0, below: 1e6 }) }),
  /** The front has passed a line or mark and gone so far beyond it. */
  z.strictObject({
    kind: z.literal('passed'),
    what: itemId,
    /** Of a line, by which part of it: where the front comes first, its middle, or where it comes last; last unless told. */
    at: z.enum(['first', 'middle', 'last']).optional(),
    distance: quantity('length', { atLeast: 0, below: 100 }),
    delay,
  }),
  z.strictObject({ kind: z.literal('zoneFull'), zone: itemId, delay }),
  z.strictObject({ kind: z.literal('drawn'), mass: quantity('mass', { above: 0, below: 1e5 }), delay }),
  z.strictObject({ kind: z.literal('opened'), what: itemId, delay }),
  /** The whole part is wet. */
  z.strictObject({ kind: z.literal('full'), delay }),
]);

const actionSchema = z.strictObject({
  id: itemId,
  /** 0 shut, 1 open, in between throttled. */
  opening: quantity('fraction', { atLeast: 0, atMost: 1 }),
  when: triggerSchema,
});

const bore = quantity('thickness', { above: 0.0005, below: 0.2 });
export const hoseLength = quantity('length', { atLeast: 0, below: 100 });

/** A feed, vent or race of a layout. */
const lineSchema = z.strictObject({
  id: itemId,
  /** A race is an edge along which resin runs ahead in a gap; its bore is the gap. */
  kind: z.enum(['feed', 'vent', 'race']),
  name: z.string().trim().min(1).max(40),
  points: z.array(point).min(1, 'a line needs a point').max(200),
  bore: quantity('thickness', { above: 0.00005, below: 0.2 }),
  /** Own hose of a feed from pot or tee; null takes the job's. */
  hoseLength: hoseLength.nullable(),
  hoseBore: bore.nullable(),
  /** What the line and its hose are cut from, among the job's materials; null where only a bore is known. */
  stockId: z.string().nullable(),
  hoseId: z.string().nullable(),
  /** Tee that the hose comes from; null for the pot. */
  tee: itemId.nullable(),
  /** Pot of a feed, pump of a vent; null for the first of its kind. */
  stationId: itemId.nullable(),
  /** Where the hose joins the line, as a share of its length. */
  inlet: quantity('fraction', { atLeast: 0, atMost: 1 }),
  /** Height of the resin in the pot over the inlet; null takes it as level. */
  potLevel: quantity('length', { atLeast: -10, below: 10 }).nullable(),
  startsOpen: z.boolean(),
  actions: z.array(actionSchema).max(20),
  /** Stays as it is when layouts are proposed. */
  pinned: z.boolean(),
});

/** A junction: several lines behind one hose. Null where it has not been put on the plan, or its hose is as long as the way there. */
const teeSchema = z.strictObject({
  id: itemId,
  name: z.string().trim().min(1).max(40),
  place: point.nullable(),
  hoseLength: hoseLength.nullable(),
  hoseBore: bore,
});

/** Where hoses end: a pot of resin, or a pump with its catch pot. */
const stationSchema = z.strictObject({
  id: itemId,
  kind: z.enum(['pot', 'pump']),
  name: z.string().trim().min(1).max(40),
  place: point,
  /** Height of the resin over the plan; null takes it as level. */
  level: quantity('length', { atLeast: -10, below: 10 }).nullable(),
});

/** Everything that is laid on the plies to bring resin in and air out. */
export const layoutShape = {
  lines: z.array(lineSchema).max(100),
  tees: z.array(teeSchema).max(30),
  stations: z.array(stationSchema).max(30),
  /** What lies on the plies, from the part up. */
  layers: z.array(layerSchema).max(40),
};
