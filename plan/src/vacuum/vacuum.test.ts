import { describe, expect, test } from '@jest/globals';
import type { Mould } from '@wick/contract/mould';
import { distance } from '@wick/core/geometry/polygon';
import { createRandom } from '@wick/core/random';
import { mostThroughput, voidsOf } from '@wick/core/vacuum/drop-test';
import { pressureAfter, type Rise, type RiseReadings } from '@wick/core/vacuum/rise';
import { shownBy } from '@wick/core/vacuum/gauge-reading';
import { bagOf } from '../bag/bag.ts';
import { demoJobs, demoShop } from '../demo/jobs.ts';
import { demoMaterials } from '../demo/materials.ts';
import { withVacuum } from '../job/edits.ts';
import { jobOf, laidOut } from '../job/laid.ts';
import { partSums } from '../laminate/ply-book.ts';
import { ambientOf } from '../shop/ambient.ts';
import { airBudgetOf } from './air.ts';
import { correctedReadings, valueIn, WATER_RISE } from './corrected.ts';
import { compareTests, readDrop } from './drop-test.ts';
import { freeVolumeOf, volumesDisagree } from './free-volume.ts';
import { catchPotOf, comesBack, holdOf, stoppedPumpCard } from './hold.ts';
import { bestClamp, kindsOfPlace, leakIsBeyond, leakPlacesOf } from './places.ts';
import { evacuationOf, gaugeSanity, gaugesDisagree, pumpDownForecast, reachOf } from './reach.ts';
import {
  airWords,
  causeWords,
  dropSentence,
  leakWords,
  rangeWords,
  shareWords,
  twoTestWords,
  waitWords,
} from './words.ts';

const jobs = demoJobs.map((job) => laidOut(job));
const gore = jobs.find(({ name }) => name === 'Dome gore 7')!;
const sled = jobs.find(({ name }) => name === 'Rescue sled tray')!;
const show = (value: number, quantity: string) =>
  quantity === 'gaugePressure' ? `${(value / 3386.389).toFixed(1)} inHg` : `${(value / 100).toFixed(1)} mbar`;

describe('free volume', () => {
  test('is what the ledger knows as resin, and lines, hoses and pot by their bores', () => {
    const { rows, total } = freeVolumeOf(gore, demoShop);
    const of = (id: string) => rows.find((row) => row.id === id)?.volume ?? 0;
    const sums = partSums(gore, demoShop);
    expect(of('plies')).toBe(sums.resinInPlies);
    expect(of('layers')).toBe(sums.resinInConsumables);
    expect(of('pot')).toBe(0.005);
    // Four lines of 12 mm: 0.9 + 0.8 + 0.7 + 0.4 m.
    expect(of('lines')).toBeCloseTo((Math.PI / 4) * 0.012 ** 2 * 2.8, 9);
    // Three feeds on 1.2 m of hose of the usual 12 mm.
    expect(of('hoses')).toBeCloseTo((Math.PI / 4) * 0.012 ** 2 * 3.6, 9);
    expect(total).toBeCloseTo(
      rows.reduce((sum, { volume }) => sum + volume, 0),
      12,
    );
    const without = laidOut(withVacuum({ potId: null })(jobOf(gore)));
    expect(freeVolumeOf(without, demoShop).total).toBeCloseTo(total - 0.005, 12);
  });

  test('a wet layup has its breather in it; a job of nothing has none', () => {
    expect(freeVolumeOf(sled, demoShop).rows.map(({ id }) => id)).toContain('breather');
    const bare = { ...gore, laminate: { ...gore.laminate, plies: [] }, zones: [], lines: [], layers: [] };
    expect(freeVolumeOf(laidOut(withVacuum({ potId: null })(jobOf(bare))), demoShop).total).toBe(0);
  });

  test('measured beside computed: a third apart is said', () => {
    expect(volumesDisagree(0.012, 0.0125)).toBeNull();
    expect(volumesDisagree(0.012, 0.017)).toBe('more');
    expect(volumesDisagree(0.012, 0.008)).toBe('less');
  });
});

describe('best reachable', () => {
  test('the pump’s own end, and what a relative gauge shows for it at this altitude', () => {
    const { best, onGauge, ambient, isMeasured } = reachOf(gore, demoShop);
    // ISO 2533 at 640 m: 101 325 (1 - 0.0065 x 640 / 288.15)^5.2559.
    expect(ambient).toBeCloseTo(101_325 * (1 - (0.0065 * 640) / 288.15) ** 5.2559, 0);
    expect(isMeasured).toBe(false);
    expect(best).toBeCloseTo(50, 6);
    expect(onGauge).toBeCloseTo(ambient - 50, 6);
    // 26 inHg is all there is near 1170 m: common practice, no source.
    const high = reachOf(gore, { ...demoShop, altitude: 1170 });
    expect(high.onGauge / 3386.389).toBeCloseTo(26, 0);
  });

  test('without a pump the assumed vacuum stands for one; the pump-down ends there', () => {
    const without = laidOut(withVacuum({ pumpId: null, ventPressure: null })(jobOf(gore)));
    expect(evacuationOf(without, demoShop)).toMatchObject({ pumpName: null, isHoseOnPlan: false });
    expect(reachOf(without, demoShop).best).toBeCloseTo(2000, 6);
    const [first, last] = pumpDownForecast(without, demoShop, 0.012, [0, 1800]);
    expect(first).toBe(ambientOf(demoShop));
    expect(last! / 2000).toBeCloseTo(1, 3);
  });

  test('a gauge that cannot be right is told so, with what to do', () => {
    const reach = { ambient: 94_000, best: 2000 };
    expect(gaugeSanity(2500, reach, show)).toBeNull();
    // 30 inHg where the air has only 27.8.
    expect(gaugeSanity(94_000 - 30 * 3386.389, reach, show)).toMatch(
      /^30.0 inHg of vacuum is more than the air here/,
    );
    expect(gaugeSanity(300, reach, show)).toMatch(/^3.0 mbar is better than this pump/);
    expect(gaugeSanity(101_000, reach, show)).toMatch(/^1010.0 mbar is more than the air outside/);
    expect(gaugesDisagree(2000, 2900, 94_000, 0, show)).toBeNull();
    expect(gaugesDisagree(2000, 9000, 94_000, 1700, show)).toMatch(/agree if the air here has 870.0 mbar/);
  });
});

describe('a drop test read', () => {
  const random = createRandom(21);
  const gauge = { resolution: 10, noise: 5 };
  const readingsOf = (rise: Rise, duration: number, every = 10): RiseReadings => {
    const times = Array.from({ length: Math.round(duration / every) + 1 }, (_, n) => n * every);
    return { times, pressures: times.map((time) => shownBy(gauge, pressureAfter(rise, time), random)) };
  };
  const budget = airBudgetOf(gore, demoShop, { fillTime: 1800, gelTime: 2400 })!;
  const freeVolume = 0.0138;
  const limit = mostThroughput(budget) / freeVolume;
  const read = (rise: Rise, duration = 1200) =>
    readDrop({ readings: readingsOf(rise, duration), gauge, freeVolume, budget })!;
  const dry = { start: 1500, moisture: 0, settling: 600 };

  test('its budget: half a per cent where it carries load, two otherwise, over the fill or to gel', () => {
    expect(budget).toMatchObject({
      isStructural: true,
      voidLimit: 0.005,
      fillTime: 1800,
      timeFrom: 'fill',
      share: 0.5,
    });
    // phi = f Q t / (p V).
    const { resinPressure, resinVolume } = budget;
    expect(voidsOf(1e-3, budget)).toBeCloseTo((0.5 * 1e-3 * 1800) / (resinPressure * resinVolume), 12);
    const other = laidOut(withVacuum({ isStructural: false })(jobOf(gore)));
    expect(airBudgetOf(other, demoShop, { fillTime: null, gelTime: 2400 })).toMatchObject({
      voidLimit: 0.02,
      timeFrom: 'gel',
      fillTime: 2400,
    });
    expect(airBudgetOf(gore, demoShop, { fillTime: 10, gelTime: null })!.fillTime).toBe(300);
    const empty = laidOut(jobOf({ ...gore, laminate: { ...gore.laminate, plies: [] }, zones: [] }));
    expect(airBudgetOf(empty, demoShop, { fillTime: null, gelTime: null })).toBeNull();
  });

  test('a tight one passes, a leak does not, and each says how much air', () => {
    const tight = read({ ...dry, slope: limit / 10 }, 2400);
    expect(tight.judgement.verdict).toBe('passes');
    expect(dropSentence(tight, budget)).toMatch(/of air during the fill: .* voids. Passes.$/);
    const leak = read({ ...dry, slope: 8 * limit });
    expect(leak.judgement.verdict).toBe('leaks');
    expect(leak.throughput.low).toBeLessThan(8 * limit * freeVolume);
    expect(leak.throughput.high).toBeGreaterThan(8 * limit * freeVolume);
    expect(leak.air.value).toBeCloseTo((leak.throughput.value * 1800) / 101_325, 12);
    expect(leak.cause.cause).toBe('leak');
    expect(dropSentence(leak, budget)).toMatch(/more than the 0.5.% this part takes. Find the leak.$/);
    expect(causeWords(leak)).toBe('Most of the rise is a leak: it goes on straight.');
  });

  test('a wet core is not called a leak; two minutes of it cannot be told', () => {
    const wet: Rise = { ...dry, slope: limit / 20, moisture: 900, settling: 500 };
    const long = read(wet, 3600);
    expect(long.judgement.verdict).not.toBe('leaks');
    expect(long.cause).toMatchObject({ cause: 'moisture' });
    const short = read(wet, 120);
    expect(short.judgement.verdict).toBe('cannotTell');
    expect(dropSentence(short, budget)).toMatch(/The gauge cannot tell yet: wait \d+ min more.$/);
  });

  test('too little says nothing', () => {
    const some = readingsOf({ ...dry, slope: 0.1 }, 20);
    expect(readDrop({ readings: some, gauge, freeVolume, budget })).toBeNull();
    expect(readDrop({ readings: { times: [], pressures: [] }, gauge, freeVolume, budget })).toBeNull();
  });

  test('pulled again: a leak keeps its rise, moisture does not, a short one tells nothing', () => {
    const leak = { ...dry, slope: 0.5 };
    const wet = { ...dry, slope: 0, moisture: 600, settling: 400 };
    const gone = { ...wet, moisture: 600 * Math.exp(-900 / 400) };
    expect(compareTests(readingsOf(leak, 900), readingsOf(leak, 900), gauge)!.says).toBe('leak');
    const dried = compareTests(readingsOf(wet, 900), readingsOf(gone, 900), gauge)!;
    expect(dried.says).toBe('moisture');
    expect(dried.kept.value).toBeCloseTo(Math.exp(-900 / 400), 1);
    expect(twoTestWords(dried)).toMatch(/only \d+ % of the first time: moisture going/);
    const weak = { ...dry, slope: 0.012 };
    expect(
      compareTests(readingsOf(weak, 900), readingsOf(weak, 900), { resolution: 100, noise: 50 }),
    ).toBeNull();
    expect(compareTests({ times: [], pressures: [] }, readingsOf(leak, 900), gauge)).toBeNull();
  });
});

describe('weather and temperature', () => {
  const from = Date.parse('2026-03-14T09:00:00Z');
  const ats = [0, 300, 600, 900].map((seconds) => from + seconds * 1000);
  const ambient = 94_000;

  test('a relative gauge’s barometer is taken out one to one', () => {
    // A tight bag at 1500 Pa while the air outside falls by 200 Pa.
    const barometer = { ats, values: [94_000, 93_933, 93_867, 93_800] };
    const gauge = { ats, values: barometer.values.map((value) => value - 1500), isRelative: true };
    const { readings, weather, warmed } = correctedReadings(gauge, from, {
      barometer,
      thermometer: null,
      ambient,
    });
    expect(Array.from(readings.pressures)).toEqual([1500, 1500, 1500, 1500]);
    expect([weather, warmed]).toEqual([-200, null]);
    const without = correctedReadings(gauge, from, { barometer: null, thermometer: null, ambient });
    expect(Array.from(without.readings.pressures).at(-1)).toBe(1700);
    expect(without.weather).toBeNull();
  });

  test('gas that warms by 3 K at 300 K rises by a hundredth, which is taken out', () => {
    const thermometer = { ats, values: [300, 301, 302, 303] };
    const gauge = { ats, values: thermometer.values.map((value) => (2000 * value) / 300), isRelative: false };
    const { readings, warmed } = correctedReadings(gauge, from, { barometer: null, thermometer, ambient });
    for (const pressure of Array.from(readings.pressures)) expect(pressure).toBeCloseTo(2000, 9);
    expect(warmed).toBe(3);
  });

  test('saturated water’s rise by a kelvin follows from the Magnus formula', () => {
    // WMO No. 8 (from memory): e = 611.2 exp(17.62 t / (243.12 + t)).
    const vapour = (t: number) => 611.2 * Math.exp((17.62 * t) / (243.12 + t));
    expect(Math.abs(vapour(22.5) - vapour(21.5) - WATER_RISE)).toBeLessThan(5);
  });

  test('between readings it is straight, beyond them level, and before the shutting nothing counts', () => {
    const series = { ats: [1000, 2000, 4000], values: [1, 3, 7] };
    expect([0, 1000, 1500, 3000, 9000].map((at) => valueIn(series, at))).toEqual([1, 1, 2, 5, 7]);
    expect(valueIn({ ats: [], values: [] }, 5)).toBeNull();
    const gauge = { ats: [from - 5000, ...ats], values: [9, 1, 1, 1, 1], isRelative: false };
    const { readings } = correctedReadings(gauge, from, { barometer: null, thermometer: null, ambient });
    expect(Array.from(readings.times)).toEqual([0, 300, 600, 900]);
  });
});

describe('the leak walk', () => {
  const mould = (history: Mould['history'], plies: number | null = 8): Mould => ({
    ...{ id: 'm', name: 'Mould', material: '', condition: 'sound', plies, history },
  });
  const pull = (n: number): Mould['history'][number] => ({
    id: `p${n}`,
    date: '2026-01-01',
    kind: 'pull',
    text: '',
  });

  test('has every pleat, corner of the tape, hose, joint, the pot and the mould, likeliest first', () => {
    const places = leakPlacesOf(gore, demoShop, null);
    const count = (kind: string) => places.filter((place) => place.kind === kind).length;
    expect(count('pleat')).toBe(bagOf(gore, demoShop).pleats.length);
    expect(count('tapeCorner')).toBe(4);
    expect(count('port')).toBe(4);
    expect(count('hose')).toBe(3);
    expect([count('pot'), count('mould')]).toEqual([1, 1]);
    expect(new Set(places.map(({ id }) => id)).size).toBe(places.length);
    expect(places.map(({ chance }) => chance)).toEqual(
      [...places.map(({ chance }) => chance)].sort((a, b) => b - a),
    );
    expect(places[0]!.kind).toBe('pleat');
    for (const { kind, at } of places) if (kind === 'port' || kind === 'pleat') expect(at).not.toBeNull();
    for (const job of jobs) expect(leakPlacesOf(job, demoShop, null).length).toBeGreaterThan(0);
  });

  test('learns: where this mould leaked before comes first, and fades with parts that did not leak there', () => {
    const plain = leakPlacesOf(gore, demoShop, mould([]));
    const { id, kind } = plain.find((place) => place.kind === 'port')!;
    const leak = (n: number): Mould['history'][number] => ({
      id: `l${n}`,
      date: '2026-01-02',
      kind: 'leak',
      text: '',
      place: { id, kind },
    });
    const chance = (history: Mould['history'], of = id) =>
      leakPlacesOf(gore, demoShop, mould(history)).find((place) => place.id === of)!.chance;
    // (10 x usual + found) / (10 + parts).
    expect(chance([])).toBeCloseTo(kindsOfPlace.port.usual, 12);
    expect(chance([pull(1), leak(1)])).toBeCloseTo((10 * kindsOfPlace.port.usual + 1) / 11, 12);
    expect(leakPlacesOf(gore, demoShop, mould([pull(1), leak(1), pull(2), leak(2)]))[0]!.id).toBe(id);
    const faded = Array.from({ length: 60 }, (_, n) => pull(n));
    expect(chance([leak(1), ...faded])).toBeLessThan(chance([]));
    // One of its kind is a little likelier too.
    const sister = plain.find((place) => place.kind === 'port' && place.id !== id)!.id;
    expect(chance([pull(1), leak(1)], sister)).toBeGreaterThan(chance([pull(1)], sister));
  });

  test('a thin mould, or one with a leak that nobody mended, is looked at itself', () => {
    const own = (one: Mould) => leakPlacesOf(gore, demoShop, one).find(({ kind }) => kind === 'mould')!;
    expect(own(mould([])).chance).toBeCloseTo(kindsOfPlace.mould.usual, 12);
    expect(own(mould([], 3)).chance).toBeGreaterThan(0.2);
    const hole: Mould['history'] = [{ id: 'h', date: '2026-01-01', kind: 'leak', text: 'Pinhole' }];
    expect(leakPlacesOf(gore, demoShop, mould(hole))[0]).toMatchObject({
      kind: 'mould',
      why: 'not marked as mended: Pinhole',
    });
    const mended: Mould['history'] = [...hole, { id: 'i', date: '2026-01-02', kind: 'mended', text: '' }];
    expect(own(mould(mended)).chance).toBeLessThan(0.05);
    // A pleat that leaked went with its bag: it is no leak of the mould.
    const pleat: Mould['history'] = [
      { id: 'j', date: '2026-01-01', kind: 'leak', text: '', place: { id: 'pleat:x:0', kind: 'pleat' } },
    ];
    expect(own(mould(pleat)).chance).toBeLessThan(0.05);
  });

  test('clamps: what parts the chances most evenly, and what two tests then say', () => {
    const place = (chance: number, lineId: string | null) => ({
      ...leakPlacesOf(gore, demoShop, null)[0]!,
      chance,
      lineId,
    });
    expect(bestClamp([place(0.2, null), place(0.15, 'a'), place(0.05, 'b')])).toMatchObject({
      lineIds: ['a', 'b'],
      share: expect.closeTo(0.5, 9),
    });
    expect(bestClamp([place(0.05, null), place(0.1, 'a'), place(0.02, 'b')])!.lineIds).toEqual(['a']);
    expect(bestClamp([place(0.9, null), place(0.02, 'a')])).toBeNull();
    expect(bestClamp([])).toBeNull();
    const [leaks, less] = [
      { low: 0.9, high: 1.1 },
      { low: 0.1, high: 0.3 },
    ];
    expect([
      leakIsBeyond(leaks, less),
      leakIsBeyond(leaks, leaks),
      leakIsBeyond(leaks, { low: 0, high: 2 }),
    ]).toEqual(['beyond', 'inside', 'open']);
  });

  test('places lie on the tape or on the plan', () => {
    const { tapeLine } = bagOf(gore, demoShop);
    for (const { kind, at } of leakPlacesOf(gore, demoShop, null))
      if (kind === 'tapeCorner')
        expect(Math.min(...tapeLine.map((p) => distance(p, at!)))).toBeLessThan(1e-9);
  });
});

describe('when the pump stops', () => {
  test('it holds by t = V dp / Q, sooner and later by the leak’s interval', () => {
    const hold = holdOf(gore, demoShop, {
      from: 2000,
      freeVolume: 0.012,
      throughput: { low: 1e-3, high: 4e-3 },
    });
    expect(hold.marks[0]).toMatchObject({
      limit: 7000,
      soonest: expect.closeTo((0.012 * 5000) / 4e-3, 6),
      latest: expect.closeTo(60_000, 6),
    });
    expect(hold.marks.at(-1)!.limit).toBeCloseTo(ambientOf(demoShop) / 2, 6);
    expect(
      holdOf(gore, demoShop, { from: 2000, freeVolume: 0.012, throughput: { low: 0, high: 0 } }).marks[0]!
        .soonest,
    ).toBe(Infinity);
    // 12 L through a hose that passes nearly all of 8 m3/h: V ln 2 / S is 3.7 s.
    expect(hold.withoutValve).toBeGreaterThan(3.7);
    expect(hold.withoutValve).toBeLessThan(6);
  });

  test('the catch pot against what the vents draw, and what comes back from it', () => {
    expect(catchPotOf(gore, 0.003)).toMatchObject({ state: 'enough', usable: expect.closeTo(0.0035, 12) });
    expect(catchPotOf(gore, 0.004).state).toBe('small');
    expect(catchPotOf(laidOut(withVacuum({ potId: null })(jobOf(gore))), 0).state).toBe('none');
    const density = demoMaterials.find(({ id }) => id === gore.resin.materialId) as { density: number };
    expect(comesBack(gore, 0.002)).toBeCloseTo(0.002 * density.density, 9);
    expect(stoppedPumpCard(gore)[0]).toMatch(/check valve holds/);
    expect(stoppedPumpCard(laidOut(withVacuum({ hasCheckValve: false })(jobOf(gore))))[0]).toMatch(/at once/);
  });
});

test('amounts as they are spoken of', () => {
  expect([airWords(0.012), airWords(4.3e-4), airWords(3.21e-5)]).toEqual(
    ['12 L', '0.43 L', '32 mL'].map((words) => words.replace(' ', '\u00a0')),
  );
  expect(
    [shareWords(0.123), shareWords(0.0031), shareWords(0.0002)].map((words) => words.replace('\u00a0', ' ')),
  ).toEqual(['12 %', '0.31 %', '0.02 %']);
  expect([
    waitWords(30),
    waitWords(601),
    waitWords(3 * 3600),
    waitWords(5 * 86_400),
    waitWords(Infinity),
  ]).toEqual(['1 min', '11 min', '3 h', '5 days', 'no end']);
  // 1 mbar L/s is 0.1 Pa m3/s.
  expect(leakWords(6.83e-3)).toBe('0.068 mbar·L/s');
  expect(rangeWords({ value: 0, low: 0.1, high: 0.2 }, leakWords)).toBe('1 to 2 mbar·L/s');
  expect(rangeWords({ value: 0, low: 0, high: 0.2 }, leakWords)).toBe('no more than 2 mbar·L/s');
});
