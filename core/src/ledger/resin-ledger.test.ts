import { expect, test } from '@jest/globals';
import { resinLedger, type LedgerItem, type ResinLedgerRequest } from './resin-ledger.ts';

const item = (what: LedgerItem['what'], volume: number, where: LedgerItem['where'] = 'part'): LedgerItem => ({
  ...{ what, name: what, volume, where, sources: [] },
});
const request: ResinLedgerRequest = {
  density: 1100,
  items: [item('plies', 3e-3), item('layer', 1e-3, 'waste'), item('core', 0)],
  reserve: null,
  ...{ leftInPot: 0.2, potCapacity: 0.01, potCount: 1, batchCount: 1 },
  ...{ fibre: 3.4, hardenerParts: 43 },
};
/** A bucket as tall as wide for so many litres, and five quarters pi d2 of it wetted. */
const clings = (volume: number) => 2e-4 * 1.25 * Math.PI * Math.cbrt((4 * volume) / Math.PI) ** 2;

test('every litre is counted once, what takes none has no row', () => {
  const ledger = resinLedger(request);
  expect(ledger.total).toBeCloseTo(1100 * (4e-3 + clings(4e-3)) + 0.2, 9);
  expect(ledger.drawn).toBeCloseTo(4.4, 9);
  expect(ledger.rows.map(({ what }) => what)).toEqual(['plies', 'layer', 'cup', 'heel']);
  expect(ledger.quickRule).toBeCloseTo(4.4, 9);
});

test('two batches leave two films, two pots two heels', () => {
  const ledger = resinLedger({ ...request, potCount: 2, batchCount: 2 });
  const cup = ledger.rows.find(({ what }) => what === 'cup')!.mass;
  expect(cup).toBeCloseTo(1100 * 2 * clings(2e-3), 9);
  expect(ledger.total).toBeCloseTo(4.4 + cup + 0.4, 9);
});

test('a reserve of a tenth, or of half a kilo, comes on top of all the rest; a depth stands in place of the heel', () => {
  const needed = resinLedger(request).total;
  const totalOf = (reserve: ResinLedgerRequest['reserve']) => resinLedger({ ...request, reserve }).total;
  expect(totalOf({ kind: 'share', share: 0.1 })).toBeCloseTo(1.1 * needed, 9);
  expect(totalOf({ kind: 'mass', mass: 0.5 })).toBeCloseTo(needed + 0.5, 9);
  // 10 L as tall as wide: 233.5 mm wide, so 50 mm of it are 2.14 L.
  const heel = 1100 * 0.05 * (Math.PI / 4) * Math.cbrt(0.04 / Math.PI) ** 2;
  expect(heel).toBeCloseTo(2.355, 3);
  expect(totalOf({ kind: 'depth', depth: 0.05 })).toBeCloseTo(needed - 0.2 + heel, 9);
  expect(totalOf({ kind: 'depth', depth: 1 })).toBeCloseTo(needed - 0.2 + 11, 9);
});

test('100:43 by weight of 1000 g is 699.3 g and 300.7 g (common practice, no source; arithmetic)', () => {
  const ledger = resinLedger({ ...request, items: [], leftInPot: 1 });
  expect(ledger.resin).toBeCloseTo(0.6993, 4);
  expect(ledger.hardener).toBeCloseTo(0.3007, 4);
});
