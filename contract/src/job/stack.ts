import { z } from 'zod';
import { itemId, point } from './places.ts';
import { quantity } from '../quantity.ts';

/** A drawn area of the plan. */
const areaSchema = z.strictObject({
  id: itemId,
  name: z.string().trim().min(1).max(40),
  outline: z.array(point).min(3, 'an area needs three corners').max(2000),
  holes: z.array(z.array(point).min(3, 'a hole needs three corners').max(500)).max(20),
});

const pastEdge = quantity('length', { atLeast: -5, atMost: 5 });
const width = quantity('length', { above: 0, below: 5 });

/** Where a layer lies. */
const coversSchema = z.discriminatedUnion('kind', [
  z.strictObject({
    kind: z.literal('part'),
    /** How far past the part's edge it ends, below 0 short of it. */
    edge: pastEdge,
    /** The same where a feed lies along the edge; null as elsewhere. */
    feed: pastEdge.nullable(),
    /** How far short of every vent it ends; null where vents do not end it. */
    vent: quantity('length', { atLeast: 0, atMost: 5 }).nullable(),
  }),
  z.strictObject({ kind: z.literal('areas'), areas: z.array(areaSchema).max(30) }),
  /** Strips under or over lines. */
  z.strictObject({ kind: z.literal('lines'), of: z.enum(['feed', 'vent', 'both']), width }),
  /** Patches where hoses come through the bag. */
  z.strictObject({ kind: z.literal('ports'), width }),
  /** A band round the part, between these distances past its edge. */
  z.strictObject({ kind: z.literal('rim'), from: pastEdge, to: pastEdge }),
]);

/** What stands in its list of layers for the laminate that is no zone's. */
export const BASE = 'base';

export const layerKinds = [
  'peelPly',
  'perforatedFilm',
  'releaseFilm',
  'flowMesh',
  'bleeder',
  'breather',
  'lines',
  'doubleTape',
  'flashTape',
  'sealantTape',
  'bag',
] as const;

/** One layer over the plies. Lines are laid at one place in the order; what they are cut from stands with each line. */
export const layerSchema = z.strictObject({
  id: itemId,
  kind: z.enum(layerKinds),
  /** Among the job's materials; null where it is not chosen yet. */
  materialId: z.string().nullable(),
  covers: coversSchema,
  /** Zones and brakes on which it is left off; "base" for the laminate that is no zone's. */
  except: z.array(itemId).max(60),
  /** By how much pieces of it lap. */
  lap: quantity('length', { atLeast: 0, below: 1 }),
  /** Under the plies or over them. */
  side: z.enum(['mould', 'bag']),
  /** For how many parts it serves before it is thrown away; null as its material says. */
  uses: z.number().int().min(1).max(1000).nullable(),
});

export type JobLayer = z.infer<typeof layerSchema>;
export type LayerKind = JobLayer['kind'];
export type LayerCovers = JobLayer['covers'];
export type JobArea = z.infer<typeof areaSchema>;
