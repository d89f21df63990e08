import { describe, expect, test } from '@jest/globals';
import type { Job } from '@wick/contract/job/job';
import { rectangle } from '@wick/core/geometry/shapes';
import { drawDown, drawnAt } from '@wick/core/mix/draw-down';
import { forecastPot } from '@wick/core/resin/pot';
import { demoJobs, demoShop } from '../demo/jobs.ts';
import { demoMaterials } from '../demo/materials.ts';
import { forecastJob } from '../forecast/assess.ts';
import { problemOf } from '../forecast/problem.ts';
import { readJobFile } from '../files/job-file.ts';
import { jobOf, laidOut, type LaidJob } from '../job/laid.ts';
import { jobWithShape } from '../job/new-job.ts';
import { bareLine } from '../layout/edits.ts';
import { batchesOf } from './batches.ts';
import { byHandWords } from './by-hand.ts';
import { drawOf } from './draw.ts';
import { addBatch, changeBatch, clearBatches, deleteBatch, takeBatches } from './edits.ts';
import { ledgerOf } from './ledger.ts';
import { batchesWith, resinCsv, resinTables, resinWorkbook } from './out.ts';
import { potsOf } from './pots.ts';
import { runConditionsOf } from './run.ts';
import { mixSheetOf, weighed } from './sheet.ts';
import { batchFaults, stayOf, suggestFor, usableShare } from './suggest.ts';
import { systemsOn, timesOfDay } from './systems.ts';
import { degasOf } from './degas.ts';
import { faultWords, suggestionWords } from './words.ts';

const named = (name: string) => laidOut(demoJobs.find((job) => job.name === name)!);
const kerb = named('Footbridge kerb plate');
const LOOK = { nodeCount: 400, steps: 40, layers: false, soft: false };
const kg = (mass: number) => `${mass.toFixed(2)} kg`;

/** A plain strip, fed along one end through a wide hose by a resin that does not thicken: Darcy's root of time. */
const start = jobWithShape({ name: 'Strip', outline: rectangle({ length: 1, width: 0.3 }) });
const thin = {
  ...demoMaterials.find(({ id }) => id === 'epoxy-long-s5')!,
  ...{ gelViscosityRatio: 1.5, viscosityPoints: [{ temperature: 293.15, viscosity: 0.2 }], gelMass: 0 },
  ...{ gelPoints: [{ temperature: 293.15, time: 9e5 }], heatToGel: 1000 },
} as Job['materials'][number];
const strip: LaidJob = {
  ...laidOut(start),
  laminate: {
    ...start.laminate,
    plies: [1, 2, 3, 4].map((n) => ({ id: `ply-${n}`, materialId: 'quad-glass-850', angle: 0, inset: 0 })),
  },
  lines: [
    {
      ...bareLine(
        'feed',
        [
          { x: 0, y: 0 },
          { x: 0, y: 0.3 },
        ],
        'feed-1',
      ),
      bore: 0.004,
      hoseLength: 0.01,
      hoseBore: 0.02,
    },
    bareLine(
      'vent',
      [
        { x: 1, y: 0 },
        { x: 1, y: 0.3 },
      ],
      'vent-1',
    ),
  ],
  resin: { ...start.resin, materialId: 'epoxy-long-s5', temperature: 293.15, hoseFillDuration: 0 },
  doubt: { ...start.doubt, permeability: 1.5, viscosity: 1, gelTime: 1, temperature: 0 },
  materials: [...demoMaterials.filter(({ id }) => id === 'quad-glass-850'), thin],
};
/** As two feeds from the ends to a vent in the middle, each from a pot of its own. */
const twoPots: LaidJob = {
  ...strip,
  lines: [
    { ...strip.lines[0]!, stationId: 'pot-1' },
    {
      ...strip.lines[0]!,
      id: 'feed-2',
      name: 'Feed 2',
      points: [
        { x: 1, y: 0 },
        { x: 1, y: 0.3 },
      ],
      stationId: 'pot-2',
    },
    {
      ...strip.lines[1]!,
      points: [
        { x: 0.25, y: 0 },
        { x: 0.25, y: 0.3 },
      ],
    },
  ],
  stations: [0, 1].map((n) => ({
    ...{ id: `pot-${n + 1}`, kind: 'pot' as const, name: `Pot ${n + 1}`, level: null },
    place: { x: n * 1.2 - 0.1, y: 0.5 },
  })),
};

describe('draw-down of a job', () => {
  const flow = forecastJob(strip, demoShop, { nodeCount: 900, steps: 60, layers: false });
  const draw = drawOf(strip, demoShop, flow)!;
  const [pot] = draw.pots;

  test('a strip is drawn with the root of time from the opening on (Darcy, closed form)', () => {
    const { times, masses } = pot!.middle;
    const [open, end] = [times[0]!, times[times.length - 1]!];
    // The hose is filled first, in no time here.
    const hose = masses[1]!;
    const whole = masses[masses.length - 1]! - hose;
    for (const share of [0.25, 0.5, 0.75]) {
      const drawn = drawnAt(pot!.middle, open + (end - open) * share ** 2) - hose;
      expect(Math.abs(drawn / whole - share)).toBeLessThan(0.03);
    }
  });

  test('all that the ledger asks for but heel, bucket and reserve is drawn; its fast and slow side lie 1.5 times apart either way', () => {
    const ledger = ledgerOf(strip, demoShop, flow)!;
    expect(pot!.middle.masses[pot!.middle.masses.length - 1]).toBeCloseTo(ledger.drawn, 9);
    expect(pot!.total).toBeCloseTo(ledger.total, 9);
    expect(pot!.total).toBeCloseTo(ledger.drawn + pot!.heel + pot!.cup, 9);
    const lengthOf = ({ times }: { times: ArrayLike<number> }) => times[times.length - 1]! - times[0]!;
    // One in ten lies beyond either end of x/÷ 1.5; the resin hardly thickens.
    expect(lengthOf(pot!.slow) / lengthOf(pot!.middle)).toBeCloseTo(1.5, 1);
    expect(lengthOf(pot!.middle) / lengthOf(pot!.fast)).toBeCloseTo(1.5, 1);
  });

  test('two pots: each gives its own side, together as much as one', () => {
    const both = drawOf(twoPots, demoShop, forecastJob(twoPots, demoShop, LOOK))!;
    expect(both.pots.map(({ pot: { name } }) => name)).toEqual(['Pot 1', 'Pot 2']);
    const [near, far] = both.pots.map(({ middle: { masses } }) => masses[masses.length - 1]!);
    const ledger = ledgerOf(twoPots, demoShop, forecastJob(twoPots, demoShop, LOOK))!;
    expect(near! + far!).toBeCloseTo(ledger.drawn, 6);
    expect(problemOf(twoPots, demoShop).lines.map(({ pot: own }) => own ?? null)).toEqual([0, 1, null]);
    expect(batchesOf(twoPots, demoShop).map(({ pot: own, mixedAt }) => [own, mixedAt])).toEqual([
      [0, 0],
      [1, 0],
    ]);
  });
});

test('hoses are filled before the feed opens, and a pot whose feed opens later gives nothing until just before', () => {
  const later: LaidJob = {
    ...twoPots,
    resin: { ...twoPots.resin, hoseFillDuration: 90 },
    lines: twoPots.lines.map((line) =>
      line.id === 'feed-2'
        ? {
            ...line,
            startsOpen: false,
            actions: [{ id: 'later', opening: 1, when: { kind: 'time', time: 900 } }],
          }
        : line,
    ),
  };
  const flow = forecastJob(later, demoShop, LOOK);
  const [first, second] = drawOf(later, demoShop, flow)!.pots.map(({ middle }) => middle);
  // Mixed for 120 s, then 90 s at the hose.
  expect(first!.times[0]).toBeCloseTo(120, 6);
  expect(first!.times[1]).toBeCloseTo(210, 6);
  expect(first!.masses[0]).toBe(0);
  // The second feed opens 900 s after the first mix, to a sample.
  expect(second!.times[1]!).toBeGreaterThan(600);
  expect(second!.times[1]!).toBeLessThanOrEqual(900.001);
});

describe('batches of the kerb plate', () => {
  const flow = forecastJob(kerb, demoShop, LOOK);
  const draw = drawOf(kerb, demoShop, flow)!;
  const run = runConditionsOf(kerb, demoShop)!;
  const suggestion = suggestFor(kerb, demoShop, flow, demoMaterials)!;

  test('one batch is more than its bucket holds; the suggested ones fit, and stay right when they are taken', () => {
    expect(batchFaults(kerb, demoShop, draw, run).faults.map(({ kind }) => kind)).toEqual(['largestMix']);
    if (!suggestion.isFeasible) throw new Error(suggestion.hindrance);
    expect(suggestion.batches).toHaveLength(2);
    const taken = laidOut(takeBatches(suggestion.batches, potsOf(kerb), ['b1', 'b2'])(jobOf(kerb)));
    expect(batchFaults(taken, demoShop, draw, run).faults).toEqual([]);
    const read = readJobFile(JSON.stringify(jobOf(taken)));
    expect(read.ok && read.value.job.resin.batches.map(({ mass }) => mass === null)).toEqual([false, true]);
  });

  test('the second dragged later runs the pot dry on its fast side, and the words say which and by how much', () => {
    const late = {
      ...kerb,
      resin: {
        ...kerb.resin,
        batches: [
          { id: 'b1', stationId: null, mixedAt: 0, mass: 2.4 },
          { id: 'b2', stationId: null, mixedAt: 2400, mass: null },
        ],
      },
    };
    const { batches, faults } = batchFaults(late, demoShop, draw, run);
    expect(faults.map(({ kind }) => kind)).toEqual(['dry']);
    const words = faultWords(faults[0]!, batches, draw);
    expect(words).toMatch(
      /If it goes fast the resin is down to the end of the hose at \d+:\d\d: it would draw air/,
    );
    expect(words).toMatch(/Batch 2 has to be in by then: mix it \d+ min earlier/);
    const stock = drawDown(
      draw.pots[0]!.fast,
      batches.map(({ pouredAt, mass }) => ({ time: pouredAt, mass })),
      draw.pots[0]!.floor,
    );
    expect(stock.dryAt).toBeCloseTo(faults[0]!.time, 3);
  });

  test('one pair of hands with a bucket of 3 L and 14 min a batch cannot keep up: two can, and the words say so', () => {
    const found = suggestFor(
      { ...kerb, resin: { ...kerb.resin, mixers: 1 } },
      demoShop,
      flow,
      demoMaterials,
    )!;
    const words = suggestionWords(found, potsOf(kerb), kg).join(' ');
    if (found.isFeasible) expect(words).toMatch(/Batch 2/);
    else {
      expect(found.hindrance).toBe('mixers');
      expect(words).toMatch(/With two who mix 2 batches do/);
    }
  });

  test('a resin that sets before the part is full has no batches: each stays too long, and what would help is tried', () => {
    const quick = demoMaterials.find(({ id }) => id === 'epoxy-mid-s2')!;
    const hot = {
      ...kerb,
      resin: { ...kerb.resin, materialId: quick.id },
      materials: [...kerb.materials, quick],
    };
    const found = suggestFor(hot, demoShop, forecastJob(hot, demoShop, LOOK), demoMaterials)!;
    if (found.isFeasible) throw new Error('one was found');
    expect(['stay', 'several']).toContain(found.hindrance);
    expect(found.remedies.some(({ what }) => what === 'resin')).toBe(true);
    expect(suggestionWords(found, potsOf(hot), kg).join(' ')).toMatch(/Epoxy extra slow S5/);
  });

  test('how long a batch may stay falls with its mass, to nothing where even a cup sets', () => {
    const stay = stayOf(run, demoShop, 10);
    const stays = [0.01, 0.1, 1, 3, 8, 15].map(stay);
    for (let n = 1; n < stays.length; n++) expect(stays[n]).toBeLessThanOrEqual(stays[n - 1]!);
    expect(usableShare(run, demoShop)).toBeGreaterThan(0.2);
    expect(usableShare(run, demoShop)).toBeLessThan(0.6);
  });
});

describe('edits of batches', () => {
  const first = { id: 'b1', stationId: null, mixedAt: 0, mass: 2 };
  const second = { id: 'b2', stationId: null, mixedAt: 900, mass: null };
  const job = addBatch(second, first)(jobOf(kerb));

  test('a further batch names the one that stood for all; the clock starts with the first', () => {
    expect(job.resin.batches).toEqual([first, second]);
    const earlier = changeBatch('b2', { mixedAt: -300 })(job);
    expect(earlier.resin.batches.map(({ mixedAt }) => mixedAt)).toEqual([300, 0]);
    expect(batchesOf(laidOut(earlier), demoShop).map(({ id }) => id)).toEqual(['b2', 'b1']);
  });

  test('the last one left without a mass is all again; cleared it is too', () => {
    expect(deleteBatch('b1')(job).resin.batches).toEqual([]);
    expect(clearBatches(job).resin.batches).toEqual([]);
    expect(deleteBatch('b2')(job).resin.batches).toEqual([first]);
  });

  test('those without a mass share what is left; more than all leaves nothing', () => {
    const total = ledgerOf(laidOut(job), demoShop)!.total;
    expect(batchesOf(laidOut(job), demoShop)[1]!.mass).toBeCloseTo(total - 2, 9);
    const much = laidOut(changeBatch('b1', { mass: 50 })(job));
    expect(batchesOf(much, demoShop)[1]!.mass).toBe(0);
    // A batch of nothing is not mixed: the flow does not know it.
    expect(problemOf(much, demoShop).moving!.batches).toHaveLength(1);
  });
});

describe('the mix sheet', () => {
  const batches = batchesOf(kerb, demoShop);
  const sheet = mixSheetOf(kerb, demoShop, batches, 0)!;

  test('one ratio, both masses, the band, and what the bucket says', () => {
    expect(sheet.masses.resin + sheet.masses.hardener).toBeCloseTo(sheet.batch.mass, 9);
    expect(sheet.masses.hardener / sheet.masses.resin).toBeCloseTo(0.33, 9);
    expect(sheet.hardenerTo / sheet.masses.hardener).toBeCloseTo(1.02, 9);
    expect(sheet.volumeParts).toBeCloseTo(40, 9);
    expect(sheet.bucket!.isFull).toBe(true);
    // A gram at 2 %: 25 g of hardener, and what belongs to it.
    expect(sheet.smallest).toBeCloseTo(0.025 * (133 / 33), 9);
  });

  test('the order, with what can hurt where it can: degassing only where it is done, glass and peroxide where they are', () => {
    const texts = sheet.steps.map(({ text }) => text);
    expect(texts[1]).toMatch(/Empty bucket on the scale/);
    expect(texts.findIndex((text) => /Pour resin/.test(text))).toBeLessThan(
      texts.findIndex((text) => /Pour hardener/.test(text)),
    );
    expect(sheet.steps.some(({ caution }) => /implodes/.test(caution ?? ''))).toBe(true);
    const gore = named('Dome gore 7');
    const other = mixSheetOf(gore, demoShop, batchesOf(gore, demoShop), 0)!;
    expect(other.steps[0]!.caution).toMatch(/never in one place with accelerator/);
    expect(other.steps.some(({ text }) => /Degas/.test(text))).toBe(false);
  });

  test('no sheet without resin, ratio or mass', () => {
    expect(
      mixSheetOf({ ...kerb, resin: { ...kerb.resin, materialId: null } }, demoShop, batches, 0),
    ).toBeNull();
    expect(mixSheetOf(kerb, demoShop, batches, 3)).toBeNull();
    expect(mixSheetOf(kerb, demoShop, [{ ...batches[0]!, mass: 0 }], 0)).toBeNull();
  });

  test('masses as they are weighed: grams to the step of the scale, ounces where the shop has them', () => {
    expect(weighed(0.6993, { units: {} })).toBe('699 g');
    expect(weighed(0.6993, { units: {} }, 1e-4)).toBe('699.3 g');
    expect(weighed(0.6993, { units: { mass: 'lb' } })).toBe('24.67 oz');
  });
});

describe('every system on one clock', () => {
  const flow = forecastJob(kerb, demoShop, LOOK);
  const rows = systemsOn(kerb, demoShop, flow, demoMaterials);

  test('the job’s own first, all others beside it, three times of the day', () => {
    expect(rows[0]).toMatchObject({ isOwn: true });
    expect(rows).toHaveLength(demoMaterials.filter(({ kind }) => kind === 'resin').length);
    expect(timesOfDay(kerb, demoShop).map(({ temperature }) => temperature)).toEqual([
      288.15, 293.15, 297.15,
    ]);
    const [morning, now, afternoon] = rows[0]!.times;
    if (!morning!.isKnown || !now!.isKnown || !afternoon!.isKnown) throw new Error('not known');
    expect(morning!.gel).toBeGreaterThan(now!.gel);
    expect(now!.gel).toBeGreaterThan(afternoon!.gel);
    expect(now!.fill).toBeGreaterThan(now!.viscosity);
  });

  test('outside its table a peroxide says so, and is not guessed', () => {
    const cold = systemsOn(kerb, { ...demoShop, morningTemperature: 278.15 }, flow, demoMaterials);
    const [morning] = cold.find(({ resin }) => resin.id === 'polyester-p2')!.times;
    expect(morning).toMatchObject({ isKnown: false, why: expect.stringMatching(/5 °C is outside it/) });
  });

  test('a morning nobody has measured is assumed', () => {
    const shop = { ...demoShop, morningTemperature: null };
    expect(timesOfDay(kerb, shop)[0]).toMatchObject({ temperature: 289.15, isAssumed: true });
  });
});

test('wetted by hand: the fewest batches that are spread before they are past their time, none smaller than needed', () => {
  const tray = named('Rescue sled tray');
  const partOf = (length: number, width: number): LaidJob => ({
    ...tray,
    part: { ...tray.part, outline: rectangle({ length, width }), holes: [] },
    zones: [],
  });
  const words = byHandWords(partOf(3, 1.5), demoShop, kg)!;
  const [, count] = /mix (\d+) batches of [\d.]+ kg, one after the other/.exec(words)!;
  const total = ledgerOf(partOf(3, 1.5), demoShop)!.total;
  const run = runConditionsOf(partOf(3, 1.5), demoShop)!;
  // Four plies at a quarter of an hour; the heat balance itself, and 120 s of mixing.
  const isFit = (n: number) => {
    const { curve } = forecastPot({ ...run, ...run.pot!, mass: total / n, start: run.temperature });
    const end = curve.filter(({ time }) => time <= 120 + 3600 / n).at(-1)!;
    return end.age <= 1.02 * usableShare(run, demoShop) && end.temperature - run.temperature < 20.5;
  };
  expect(isFit(Number(count))).toBe(true);
  expect(isFit(Number(count) - 1)).toBe(false);
  expect(byHandWords({ ...tray, laminate: { ...tray.laminate, plies: [] } }, demoShop, kg)).toBeNull();
});

test('degassing takes out nine tenths of what is stirred in, and styrene is told when it would boil', () => {
  const degas = degasOf(kerb, demoShop)!;
  expect(degas.voidsWith / degas.voidsWithout).toBeCloseTo(0.1, 9);
  expect(degas.boilsBelow).toBeNull();
  expect(degas.isPlanned).toBe(true);
  const gore = degasOf(named('Dome gore 7'), demoShop)!;
  expect(gore.boilsBelow).toBeGreaterThan(900);
  expect(gore.isPlanned).toBe(false);
});

test('ledger and batches as CSV and XLSX: masses to the gram, minutes from first mix', async () => {
  const flow = forecastJob(kerb, demoShop, LOOK);
  const tables = resinTables(kerb, demoShop, flow)!;
  const [total] = tables.ledger.filter(([what]) => what === 'Total');
  expect(total![1]).toBeCloseTo(ledgerOf(kerb, demoShop, flow)!.total, 3);
  const csv = resinCsv(tables);
  expect(csv).toMatch(/what,mass_kg,where/);
  expect(csv).toMatch(/batch,pot,mix_at_min/);
  expect(tables.batches).toHaveLength(1 + batchesWith(kerb, demoShop, flow).length);
  const bytes = new Uint8Array(await (await resinWorkbook(tables)).arrayBuffer());
  // A zip of at least two sheets.
  expect([...bytes.subarray(0, 2)]).toEqual([0x50, 0x4b]);
  expect(resinTables({ ...kerb, laminate: { ...kerb.laminate, plies: [] } }, demoShop, null)).toBeNull();
});
