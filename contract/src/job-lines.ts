import { z } from 'zod';
import { itemId, point } from './job-places.ts';
import { quantity } from './quantity.ts';

const delay = quantity('duration', { atLeast: 0, below: 1e5 });

/** What sets off an opening or closing. Times run from first mix; a delay runs from the trigger. */
const triggerSchema = z.discriminatedUnion('kind', [
  z.strictObject({ kind: z.literal('time'), time: quantity('duration', { atLeast: 0, below: 1e6 }) }),
  /** The front has passed a line or mark and gone so far beyond it. */
  z.strictObject({
    kind: z.literal('passed'),
    what: itemId,
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
  /** 0 shut, 1 open, in between throttled. */
  opening: z.number().min(0).max(1),
  when: triggerSchema,
});

export const bore = quantity('length', { above: 0.0005, below: 0.2 });
export const hoseLength = quantity('length', { atLeast: 0, below: 100 });

/** A feed, vent or race of a job. */
export const lineSchema = z.strictObject({
  id: itemId,
  /** A race is an edge along which resin runs ahead in a gap; its bore is the gap. */
  kind: z.enum(['feed', 'vent', 'race']),
  name: z.string().trim().min(1).max(40),
  points: z.array(point).min(1, 'a line needs a point').max(200),
  bore: quantity('length', { above: 0.00005, below: 0.2 }),
  /** Own hose of a feed from pot or tee; null takes the job's. */
  hoseLength: hoseLength.nullable(),
  hoseBore: bore.nullable(),
  /** Tee that the hose comes from; null for the pot. */
  tee: itemId.nullable(),
  /** Where the hose joins the line, as a share of its length. */
  inlet: z.number().min(0).max(1),
  /** Height of the resin in the pot over the inlet; null takes it as level. */
  potLevel: quantity('length', { atLeast: -10, below: 10 }).nullable(),
  startsOpen: z.boolean(),
  actions: z.array(actionSchema).max(20),
});
