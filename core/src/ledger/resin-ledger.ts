import { bottomArea } from '../resin/pot-shape.ts';

/** What on the plan asks for resin: a laminate (its zone, or the part's own), a layer, a line, a tee or a pot, by its id. */
export interface LedgerSource {
  readonly kind: 'part' | 'zone' | 'layer' | 'line' | 'tee' | 'pot';
  /** None of the part's own laminate, or where there is only one. */
  readonly id: string | null;
}

export type LedgerWhat =
  'plies' | 'opens' | 'layer' | 'core' | 'line' | 'hose' | 'vents' | 'cup' | 'heel' | 'reserve';

/** Resin that something takes, m3. */
export interface LedgerItem {
  readonly what: LedgerWhat;
  /** Of what takes it. */
  readonly name: string;
  readonly volume: number;
  /** Part: it stays in the part. Waste: it is thrown away with consumables, lines and hoses. Pot: it never leaves the pot. */
  readonly where: 'part' | 'waste' | 'pot';
  readonly sources: readonly LedgerSource[];
}

/** What is kept back and mixed on top, by school: nothing more than the heel, a share of all the rest, a mass, or a depth of each pot in place of the heel. */
export type Reserve =
  | { readonly kind: 'share'; readonly share: number }
  | { readonly kind: 'mass'; readonly mass: number }
  | { readonly kind: 'depth'; readonly depth: number }
  | null;

/** What the resin of one part is made of. */
export interface ResinLedgerRequest {
  /** kg/m3 */
  readonly density: number;
  readonly items: readonly LedgerItem[];
  readonly reserve: Reserve;
  /** Left in each pot, kg, where no depth is asked for; and how many litres a pot holds, m3. */
  readonly leftInPot: number;
  readonly potCapacity: number;
  readonly potCount: number;
  /** Mixed in so many batches: each leaves a film on its bucket. */
  readonly batchCount: number;
  /** kg in the part; only for the quick rule beside it. */
  readonly fibre: number;
  readonly hardenerParts: number;
}

export interface LedgerRow {
  readonly what: LedgerWhat;
  readonly name: string;
  /** kg */
  readonly mass: number;
  readonly where: LedgerItem['where'];
  readonly sources: readonly LedgerSource[];
}

export interface ResinLedger {
  readonly rows: readonly LedgerRow[];
  readonly total: number;
  /** Of it what leaves the pots, kg. */
  readonly drawn: number;
  readonly resin: number;
  readonly hardener: number;
  /** Fibre mass plus a kilogram: common practice, no source. */
  readonly quickRule: number;
}

/** What clings to a bucket that has been scraped, m; from memory. */
const CLINGS = 2e-4;

/** Mass of mixed resin to have ready, line by line. Arithmetic; checked by resin-ledger.test.ts. */
export function resinLedger(request: ResinLedgerRequest): ResinLedger {
  const { density, reserve, potCount, batchCount } = request;
  const taken = request.items.map(({ volume, ...item }): LedgerRow => ({ ...item, mass: density * volume }));
  const drawn = sum(taken);
  const heel = potCount * (reserve?.kind === 'depth' ? heelOf(request, reserve.depth) : request.leftInPot);
  // Bottom and wall to the height of the mix, of a bucket as tall as wide.
  const cup = drawn > 0 ? density * CLINGS * 5 * batchCount * bottomArea(drawn / density / batchCount) : 0;
  const pots = { where: 'pot', sources: [{ kind: 'pot', id: null }] } as const;
  const kept: LedgerRow[] = [
    ...taken,
    { ...pots, what: 'cup', name: 'On the mixing bucket', mass: cup },
    { ...pots, what: 'heel', name: potCount > 1 ? 'Heels in the pots' : 'Heel in the pot', mass: heel },
  ];
  const needed = sum(kept);
  const more =
    reserve?.kind === 'share' ? reserve.share * needed : reserve?.kind === 'mass' ? reserve.mass : 0;
  const rows = [...kept, { ...pots, what: 'reserve', name: 'Reserve', mass: more } as const].filter(
    ({ mass }) => mass > 0,
  );
  const total = sum(rows);
  const parts = 100 + request.hardenerParts;
  return {
    rows,
    total,
    drawn,
    resin: (total * 100) / parts,
    hardener: (total * request.hardenerParts) / parts,
    quickRule: request.fibre + 1,
  };
}

/** kg that stand so deep in one pot. */
const heelOf = ({ density, potCapacity }: ResinLedgerRequest, depth: number): number =>
  density * Math.min(potCapacity, depth * bottomArea(potCapacity));

const sum = (rows: readonly LedgerRow[]): number => rows.reduce((all, { mass }) => all + mass, 0);
