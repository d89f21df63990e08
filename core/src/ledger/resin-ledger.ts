/** What the resin of one part is made of; volumes in m3. */
export interface ResinLedgerRequest {
  /** kg/m3 */
  readonly density: number;
  /** In the whole part, all its zones. */
  readonly resinInPlies: number;
  /** More of it in the plies, as they open up under the resin's own pressure. */
  readonly resinAsItOpens: number;
  readonly resinInConsumables: number;
  readonly resinInCore: number;
  readonly lines: readonly { readonly length: number; readonly bore: number }[];
  readonly hoses: readonly { readonly length: number; readonly bore: number }[];
  /** What the vents draw out of the part. */
  readonly vented: number;
  /** Mixed on top: a share of all the rest, or kg. */
  readonly reserve:
    | { readonly kind: 'share'; readonly share: number }
    | { readonly kind: 'mass'; readonly mass: number }
    | null;
  /** Left in pot and cup, kg. */
  readonly leftInPot: number;
  /** kg in the part; only for the quick rule beside it. */
  readonly fibre: number;
  readonly hardenerParts: number;
}

export interface LedgerRow {
  readonly label: string;
  readonly mass: number;
  /** Part: it stays in the part. Waste: it is thrown away with consumables, lines and hoses. Pot: it never leaves the pot. */
  readonly where: 'part' | 'waste' | 'pot';
}

export interface ResinLedger {
  readonly rows: readonly LedgerRow[];
  readonly total: number;
  readonly resin: number;
  readonly hardener: number;
  /** Fibre mass plus a kilogram: common practice, no source. */
  readonly quickRule: number;
}

/** Mass of mixed resin to have ready, line by line. Arithmetic; checked by resin-ledger.test.ts. */
export function resinLedger(request: ResinLedgerRequest): ResinLedger {
  const { density } = request;
  const boreVolume = ({ length, bore }: { length: number; bore: number }) =>
    (Math.PI / 4) * bore * bore * length;
  const all: LedgerRow[] = [
    { where: 'part', label: 'In the plies', mass: density * request.resinInPlies },
    { where: 'part', label: 'As the plies open up under it', mass: density * request.resinAsItOpens },
    { where: 'waste', label: 'In mesh and peel ply', mass: density * request.resinInConsumables },
    { where: 'part', label: 'In core holes, cuts and faces', mass: density * request.resinInCore },
    {
      where: 'waste',
      label: 'In the lines',
      mass: density * request.lines.reduce((sum, line) => sum + boreVolume(line), 0),
    },
    {
      where: 'waste',
      label: 'In the feed hoses',
      mass: density * request.hoses.reduce((sum, h) => sum + boreVolume(h), 0),
    },
    { where: 'waste', label: 'Into the vents', mass: density * request.vented },
    { where: 'pot', label: 'Heel in pot and cup', mass: request.leftInPot },
  ];
  const needed = all.reduce((sum, row) => sum + row.mass, 0);
  all.push({ where: 'pot', label: 'Reserve', mass: reserveOf(request.reserve, needed) });
  const rows = all.filter((row) => row.mass > 0);
  const total = rows.reduce((sum, row) => sum + row.mass, 0);
  const parts = 100 + request.hardenerParts;
  return {
    rows,
    total,
    resin: (total * 100) / parts,
    hardener: (total * request.hardenerParts) / parts,
    quickRule: request.fibre + 1,
  };
}

function reserveOf(reserve: ResinLedgerRequest['reserve'], needed: number): number {
  if (!reserve) return 0;
  return reserve.kind === 'share' ? reserve.share * needed : reserve.mass;
}
