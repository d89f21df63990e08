import { describe, expect, test } from '@jest/globals';
import { fitTemplate } from '@wick/core/layouts/templates';
import { isInside } from '@wick/core/layouts/frame';
import { layDrafts, layoutWords, reasonWords, scoreJob, scoreOf, whyNoAdvice } from './advice.ts';
import { COARSE, forecastJob, verdictOf } from './assess.ts';
import { demoJobs, demoShop } from './demo/jobs.ts';
import { demoMaterials } from './demo/materials.ts';
import { partShapeOf } from './fit-layout.ts';
import { emptyJob, MOST_VARIANTS, type Job } from './job.ts';
import { readJob } from './job-file.ts';
import { checkLayout } from './layout-rules.ts';
import { findRepairs, isEnough, remediesFor, type Remedy } from './mend.ts';
import {
  adoptLayout,
  copyLayout,
  fingerprintOf,
  operatorActionsOf,
  outcomeOf,
  withLayout,
} from './outcome.ts';

const gore = demoJobs[0]!;
const flow = forecastJob(gore, demoShop, COARSE);
const outcome = outcomeOf(gore, demoShop, flow, verdictOf(gore, demoShop, flow)!);

describe('what a layout comes to', () => {
  test('lengths, valves and resin that does not stay, by hand', () => {
    // Three feeds of 0.9, 0.8, 0.7 m and a vent of 0.4 m; three hoses of 1.2 m.
    expect(outcome.lineLength).toBeCloseTo(2.8, 9);
    expect(outcome.hoseLength).toBeCloseTo(3.6, 9);
    expect(outcome.operatorActions).toBe(3);
    const bores = (Math.PI / 4) * 0.012 ** 2 * (2.4 + 3.6) * 1130;
    expect(outcome.wastedResin).toBeGreaterThan(bores);
    expect(outcome).toMatchObject({ band: 'willNotFill', fillTime: null });
  });

  test('lines on one tee are opened by one valve', () => {
    const teed = gore.lines.map((line) => ({
      ...line,
      tee: line.kind === 'feed' ? 'tee-1' : null,
      startsOpen: true,
      actions: [],
    }));
    expect(operatorActionsOf({ ...gore, lines: teed })).toBe(1);
  });

  test('its mark changes with what flows and with the shop, not with names, pins or how finely it is worked out', () => {
    const mark = fingerprintOf(gore, demoShop);
    const same = {
      ...gore,
      name: 'Other',
      lines: gore.lines.map((line) => ({ ...line, pinned: true })),
      forecast: { ...gore.forecast, nodeCount: 900 },
    };
    expect(fingerprintOf(same, demoShop)).toBe(mark);
    const moved = { ...gore, lines: gore.lines.map((line) => ({ ...line, bore: 0.013 })) };
    expect(fingerprintOf(moved, demoShop)).not.toBe(mark);
    expect(fingerprintOf({ ...gore, resin: { ...gore.resin, temperature: 293 } }, demoShop)).not.toBe(mark);
    expect(fingerprintOf(gore, { ...demoShop, altitude: 0 })).not.toBe(mark);
  });
});

describe('layouts of one job', () => {
  const changed = (job: Job): Job => ({
    ...job,
    lines: job.lines.slice(0, 1).concat(job.lines.slice(3)),
    zones: [],
  });

  test('a copy keeps the first under its letter with its result; taking it up again brings everything back', () => {
    const copied = copyLayout(gore, outcome, 'one feed');
    expect(copied.layout).toEqual({ letter: 'B', name: 'one feed' });
    expect(copied.variants).toMatchObject([{ letter: 'A', outcome }]);
    const both = changed(copied);
    const back = adoptLayout(both, 'A', null);
    expect(back.layout.letter).toBe('A');
    expect([back.lines, back.zones]).toEqual([gore.lines, gore.zones]);
    expect(back.variants.map(({ letter }) => letter)).toEqual(['B']);
    expect(adoptLayout(back, 'B', outcome).lines).toEqual(both.lines);
    expect(adoptLayout(back, 'X', null)).toBe(back);
    const read = readJob(JSON.parse(JSON.stringify(both)));
    expect(read.ok ? read.value : read.message).toEqual(both);
  });

  test('letters go on from the first that is free, and end after thirteen layouts', () => {
    let job = gore;
    for (let n = 0; n < 20; n++) job = copyLayout(job, null);
    expect(job.variants).toHaveLength(MOST_VARIANTS);
    expect(copyLayout(job, null)).toBe(job);
    expect(new Set([job.layout.letter, ...job.variants.map(({ letter }) => letter)]).size).toBe(
      MOST_VARIANTS + 1,
    );
  });

  test('a layout file with two layouts of one letter, or a loose end in one that waits, is refused in a sentence', () => {
    const copied = copyLayout(gore, null);
    const twice = readJob({ ...copied, layout: { letter: 'A', name: '' } });
    expect(twice.ok ? '' : twice.message).toContain('Two layouts are called A');
    const lost = {
      ...copied,
      variants: copied.variants.map((v) => ({ ...v, lines: v.lines.map((l) => ({ ...l, tee: 'gone' })) })),
    };
    const read = readJob(JSON.parse(JSON.stringify(lost)));
    expect(read.ok ? '' : read.message).toContain('hangs on the tee "gone"');
    const off = readJob({ ...gore, lines: gore.lines.map((line) => ({ ...line, stationId: 'pot-9' })) });
    expect(off.ok ? '' : off.message).toContain('runs to "pot-9"');
  });

  test('what waits for a zone or line that only the other layout has goes with it', () => {
    const waits = {
      ...gore.lines[2]!,
      actions: [{ opening: 1, when: { kind: 'zoneFull' as const, zone: 'brake', delay: 0 } }],
    };
    const variant = {
      ...copyLayout({ ...gore, lines: [gore.lines[0]!, waits, gore.lines[3]!] }, null).variants[0]!,
      brakes: [],
    };
    expect(withLayout(gore, variant).lines[1]!.actions).toEqual([]);
  });
});

describe('layouts laid from templates', () => {
  const part = partShapeOf(gore);
  const drafts = fitTemplate(part, {
    template: 'parallel',
    count: 3,
    direction: 'long',
    reversed: false,
    inset: 0.05,
  });

  test('take the place of what is not pinned; the mesh ends short of the new vents and the file still reads', () => {
    const laid = layDrafts(gore, drafts);
    expect(laid.lines.filter(({ kind }) => kind === 'feed')).toHaveLength(3);
    expect(laid.zones).toEqual([]);
    expect(readJob(JSON.parse(JSON.stringify(laid))).ok).toBe(true);
    expect(checkLayout(laid, { shop: demoShop, flow: null, show: String })).toEqual([]);
    const area = { outline: laid.meshAreas[0]!.outline, holes: laid.meshAreas[0]!.holes };
    expect(isInside(area, { x: 1.5, y: 0.6 })).toBe(true);
  });

  test('pinned lines stay as they are, and a pinned vent replaces the proposed ones with its brake kept', () => {
    const pinned = {
      ...gore,
      lines: gore.lines.map((l) => (l.id === 'feed-2' || l.id === 'vent-1' ? { ...l, pinned: true } : l)),
    };
    const laid = layDrafts(pinned, drafts);
    expect(laid.lines.find(({ id }) => id === 'feed-2')).toEqual(pinned.lines[1]);
    expect(laid.lines.filter(({ kind }) => kind === 'vent').map(({ id }) => id)).toEqual(['vent-1']);
    expect(laid.zones).toEqual(gore.zones);
    expect(laid.lines.filter(({ kind }) => kind === 'feed')).toHaveLength(4);
  });

  test('a score needs plies and a resin, and says so', () => {
    expect(whyNoAdvice(emptyJob('x'))).toContain('plies');
    expect(whyNoAdvice({ ...gore, resin: { ...gore.resin, materialId: null } })).toContain('resin');
    expect(whyNoAdvice(gore)).toBeNull();
    // A layout that cannot run has no score; it is no crash.
    expect(scoreJob({ ...gore, lines: gore.lines.slice(0, 3) }, demoShop, 'quick')).toBeNull();
  });

  test('reasons say what is best and what it costs', () => {
    const base = scoreOf(gore, demoShop, {
      ...outcome,
      band: 'comfortable',
      fillTime: 3000,
      chance: 0.95,
      wetShare: 1,
    });
    const [quick, lean] = [{ ...base, fillTime: 1500, waste: base.waste + 0.5, operatorActions: 5 }, base];
    expect(reasonWords(quick, [quick, lean])).toContain('Fills soonest');
    expect(reasonWords(quick, [quick, lean])).toContain('5 valves to turn');
    expect(reasonWords(quick, [quick, lean])).toContain('50 % of the part’s resin more');
    expect(reasonWords(lean, [quick, lean])).toContain('astes least resin');
    const dry = { ...base, dryShare: 0.1, waste: 3 };
    expect(reasonWords(dry, [dry, lean])).toContain('shuts in 10 % of the part');
    expect(
      layoutWords({ template: 'outward', count: 4, direction: 'short', reversed: false, inset: 0 }),
    ).toBe('5 feeds from the middle outwards, across the part');
  });
});

describe('what would fix it', () => {
  const context = {
    shop: demoShop,
    materials: demoMaterials,
    lastPlace: flow.lastPlace,
    show: (v: number) => `${v}`,
    thinHoses: ['Feed 3'],
  };

  test('every size of every remedy gives a job that reads, and changes one thing only', () => {
    const remedies = remediesFor(gore, context);
    expect(new Set(remedies.map(({ kind }) => kind))).toEqual(
      new Set(['move', 'order', 'warmer', 'resin', 'addFeed', 'hose']),
    );
    for (const { sizes } of remedies)
      for (const { apply } of sizes) {
        const read = readJob(JSON.parse(JSON.stringify(apply(gore))));
        expect(read.ok ? '' : read.message).toBe('');
      }
    const pinned = { ...gore, lines: gore.lines.map((line) => ({ ...line, pinned: true })) };
    expect(remediesFor(pinned, context).some(({ kind }) => kind === 'move')).toBe(false);
  });

  test('a more open mesh is offered where there is one', () => {
    const fine = {
      ...gore,
      laminate: { ...gore.laminate, flowMeshId: 'mesh-fine' },
      materials: [...gore.materials, ...demoMaterials.filter(({ id }) => id === 'mesh-fine')],
    };
    const meshes = remediesFor(fine, context).filter(({ kind }) => kind === 'mesh');
    expect(meshes.map(({ id }) => id)).toContain('mesh-mesh-open');
    expect(meshes[0]!.sizes[0]!.apply(fine).laminate.flowMeshId).toBe('mesh-open');
  });

  test('on the failing demo the third feed moved is enough, simulated, and comes before dearer changes', async () => {
    const remedies = remediesFor(gore, context).filter(({ id }) =>
      ['move-feed-3-1', 'move-feed-1-1', 'resin-epoxy-long-s5', 'warmer'].includes(id),
    );
    const repairs = await findRepairs(gore, remedies, (job) =>
      Promise.resolve(scoreJob(job, demoShop, 'quick')),
    );
    expect(repairs[0]!.id).toBe('move-feed-3-1');
    const mended = repairs[0]!.apply(gore);
    const again = forecastJob(mended, demoShop, COARSE);
    expect(['comfortable', 'tight']).toContain(verdictOf(mended, demoShop, again)!.band);
    const order = repairs.map(({ isEnough: enough }) => enough);
    expect(order).toEqual([...order].sort((a, b) => Number(b) - Number(a)));
  });

  test('of several sizes the smallest that is enough is taken; what does not help is left out', async () => {
    const base = scoreOf(gore, demoShop, { ...outcome, fillTime: 9000, wetShare: 1, band: 'willNotFill' });
    const at = (minutes: number) => ({ ...base, fillTime: minutes * 60, gelTime: 6000 });
    const remedy = (id: string, times: number[]): Remedy => ({
      id,
      kind: 'warmer',
      effort: times.length,
      sizes: times.map((minutes) => ({
        words: `${minutes}`,
        apply: (job: Job) => ({ ...job, name: `${minutes}` }),
      })),
    });
    const simulate = (job: Job) => Promise.resolve(job === gore ? at(120) : at(Number(job.name)));
    const repairs = await findRepairs(
      gore,
      [remedy('slow', [110, 95]), remedy('good', [90, 70, 60]), remedy('none', [130])],
      simulate,
    );
    expect(repairs.map(({ id, words, isEnough: enough }) => [id, words, enough])).toEqual([
      ['good', '70', true],
      ['slow', '95', false],
    ]);
    expect(isEnough(at(80))).toBe(true);
    expect(isEnough({ ...at(60), dryShare: 0.01 })).toBe(false);
  });
});
