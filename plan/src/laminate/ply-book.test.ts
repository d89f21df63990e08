import { booksOf, checkOfBook, stackOfBook } from './books.ts';
import { materialOf } from '../job/material-of.ts';
import { partArea } from '../part/figures.ts';
import { describe, expect, test } from '@jest/globals';
import { regionArea } from '@wick/core/geometry/overlay';
import { piecesOf } from '@wick/core/kit/cut-pieces';
import { resinLedger } from '@wick/core/ledger/resin-ledger';
import { COARSE } from '../forecast/assess.ts';
import { demoShop } from '../demo/jobs.ts';
import { laidDemos } from '../test/laid-demos.ts';
import { problemOf } from '../forecast/problem.ts';
import type { LaidJob } from '../job/laid.ts';
import { layOrder, partSums, plyCutsOf } from './ply-book.ts';
import { regionsOf } from './regions.ts';
import { ledgerRequestOf } from '../resin/ledger.ts';

const named = (name: string) => laidDemos.find((job) => job.name === name)!;
const tray = named('Rescue sled tray');
const fascia = named('Kiosk fascia');
const gore = named('Dome gore 7');

/** Everything that is counted from the plies, by one road each. */
function countsOf(job: LaidJob) {
  const base = booksOf(job)[0]!;
  const stack = stackOfBook(job, base, demoShop);
  const sums = partSums(job, demoShop);
  const flow = problemOf(job, demoShop, COARSE).zones[0]!;
  const cuts = plyCutsOf(job);
  return {
    thickness: stack.laminateThickness,
    mass: sums.fibre,
    resin: resinLedger(ledgerRequestOf(job, sums)!).rows[0]!.mass,
    transmissibility: flow.layers[0]!.transmissibility.xx,
    storage: flow.layers[0]!.storage,
    fabricArea: cuts.reduce((sum, cut) => sum + regionArea(cut.region), 0),
    pieces: cuts.flatMap((cut) => piecesOf(cut, 1.27)).length,
  };
}

describe('one ply list', () => {
  const plain: LaidJob = {
    ...gore,
    zones: [],
    laminate: { ...gore.laminate, coreId: null },
    layers: [],
  };

  test('one ply more in it changes thickness, mass, resin, permeability and cut list together', () => {
    const last = plain.laminate.plies.at(-1)!;
    const more: LaidJob = {
      ...plain,
      laminate: { ...plain.laminate, plies: [...plain.laminate.plies, { ...last, id: 'one-more' }] },
    };
    const [before, after] = [countsOf(plain), countsOf(more)];
    for (const key of ['thickness', 'mass', 'resin', 'storage', 'fabricArea'] as const)
      expect(after[key] / before[key]).toBeCloseTo(5 / 4, 9);
    expect(after.transmissibility).toBeGreaterThan(before.transmissibility);
    expect(after.pieces).toBeGreaterThan(before.pieces);
  });

  test('turned or exchanged in the base, a ply is turned and exchanged in every zone it runs through', () => {
    const turned: LaidJob = {
      ...tray,
      laminate: {
        ...tray.laminate,
        plies: tray.laminate.plies.map((ply, i) => (i === 1 ? { ...ply, angle: 1 } : ply)),
      },
    };
    for (const { laminate } of booksOf(turned)) {
      const ply = laminate.plies.find(({ id }) => id === 'ply-2');
      expect(ply?.angle).toBe(1);
    }
  });
});

describe('zones', () => {
  test('their laminates share the part between them, later ones on top', () => {
    for (const job of laidDemos) {
      const shares = regionsOf(job).map(regionArea);
      expect(shares.reduce((sum, area) => sum + area, 0) / partArea(job.part)).toBeCloseTo(1, 3);
    }
    const [first] = tray.zones;
    const overlapped: LaidJob = { ...tray, zones: [first!, { ...first!, id: 'again', name: 'Again' }] };
    expect(regionArea(regionsOf(overlapped)[1]!)).toBe(0);
  });

  test('lay order puts a patch between the plies it lies between; labels count on over the part', () => {
    expect(layOrder(tray).map(({ ply }) => ply.id)).toEqual([
      'ply-1',
      'ply-2',
      'lash-1',
      'lash-2',
      'ply-3',
      'ply-4',
    ]);
    expect(layOrder(gore).at(-1)!.ply.id).toBe('brake-ply');
    expect(plyCutsOf(tray).map((cut) => cut.order)).toEqual([1, 2, 3, 4, 5, 6]);
  });

  test('a base ply that runs through covers the part; one that does not is cut away there', () => {
    const cuts = plyCutsOf(gore);
    const brakeOnPart = 0.06 * 0.4;
    for (const cut of cuts.slice(0, 4))
      expect(regionArea(cut.region)).toBeCloseTo(partArea(gore.part) - brakeOnPart, 2);
    expect(regionArea(cuts[4]!.region)).toBeCloseTo(brakeOnPart, 2);
    const traySize = partArea(tray.part);
    const full = plyCutsOf(tray)[0]!;
    expect(regionArea(full.region) / traySize).toBeCloseTo(1, 3);
  });

  test('fibre of the part is the sum of what is cut', () => {
    for (const job of [tray, fascia]) {
      const byHand = plyCutsOf(job).reduce(
        (sum, cut) => sum + regionArea(cut.region) * materialOf(job, cut.materialId, 'fabric')!.arealWeight,
        0,
      );
      expect(partSums(job, demoShop).fibre / byHand).toBeCloseTo(1, 3);
    }
  });

  test('core, mesh and resin are counted zone by zone', () => {
    const sums = partSums(tray, demoShop);
    const foam = materialOf(tray, 'foam-5', 'core')!;
    expect(sums.core).toBeCloseTo(1.1 * 0.4 * foam.thickness * foam.density, 6);
    expect(sums.resinInCore).toBeCloseTo(1.1 * 0.4 * foam.resinUptake!, 9);
    expect(sums.area).toBe(partArea(tray.part));
  });
});

test('the checks of the demo books say what is true of them', () => {
  const checks = (job: LaidJob) => booksOf(job).map((book) => checkOfBook(job, book));
  expect(checks(gore)[0]).toMatchObject({ isSymmetric: true, balance: 'yes' });
  expect(checks(named('Hydro spinner'))[0]).toMatchObject({ isSymmetric: false, firstOdd: 0 });
  expect(checks(tray)[2]).toMatchObject({ isSymmetric: false, firstOdd: 2 });
});
