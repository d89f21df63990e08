/** What the resin of one part is made of; volumes in m3. */
export interface ResinLedgerRequest {
  /** kg/m3 */
  readonly density: number;
  /** In the whole part, all its zones. */
  readonly resinInPlies: number;
  readonly resinInConsumables: number;
  readonly resinInCore: number;
  readonly lines: readonly { readonly length: number; readonly bore: number }[];
  readonly hoses: readonly { readonly length: number; readonly bore: number }[];
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
    { where: 'waste', label: 'In mesh and peel ply', mass: density * request.resinInConsumables },
    { where: 'part', label: 'In core holes and cuts', mass: density * request.resinInCore },
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
    { where: 'pot', label: 'Left in pot and cup', mass: request.leftInPot },
  ];
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
