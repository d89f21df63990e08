import { expect, test } from '@jest/globals';
import { resinLedger } from './resin-ledger.ts';

const request = {
  density: 1100,
  resinInPlies: 2e-3,
  resinAsItOpens: 1e-4,
  vented: 2e-4,
  reserve: null,
  resinInConsumables: 1e-3,
  resinInCore: 0,
  lines: [{ length: 2, bore: 0.01 }],
  hoses: [
    { length: 1, bore: 0.01 },
    { length: 0.5, bore: 0.01 },
  ],
  leftInPot: 0.2,
  fibre: 3.4,
  hardenerParts: 43,
};

test('every litre is counted once', () => {
  const ledger = resinLedger(request);
  const bore = (Math.PI / 4) * 1e-4;
  expect(ledger.total).toBeCloseTo(1100 * (2 * 1.5e-3 + 1e-4 + 2e-4 + 3.5 * bore) + 0.2, 9);
  expect(ledger.rows.map((row) => row.label)).not.toContain('In core holes, cuts and faces');
  expect(ledger.quickRule).toBeCloseTo(4.4, 9);
});

test('a reserve of a tenth, or of half a kilo, comes on top of all the rest', () => {
  const needed = resinLedger(request).total;
  const totals = [
    { kind: 'share' as const, share: 0.1 },
    { kind: 'mass' as const, mass: 0.5 },
  ].map((reserve) => resinLedger({ ...request, reserve }).total);
  expect(totals[0]).toBeCloseTo(1.1 * needed, 9);
  expect(totals[1]).toBeCloseTo(needed + 0.5, 9);
});

test('100:43 by weight of 1000 g is 699.3 g and 300.7 g (arithmetic)', () => {
  const ledger = resinLedger({
    ...request,
    resinInPlies: 0,
    resinAsItOpens: 0,
    vented: 0,
    resinInConsumables: 0,
    lines: [],
    hoses: [],
    leftInPot: 1,
  });
  expect(ledger.resin).toBeCloseTo(0.6993, 4);
  expect(ledger.hardener).toBeCloseTo(0.3007, 4);
});
