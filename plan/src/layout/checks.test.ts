import { hasFront } from '../processes/processes.ts';
import { describe, expect, test } from '@jest/globals';
import { polygonOf } from '@wick/core/geometry/arcs';
import { lineLength } from '@wick/core/geometry/polygon';
import { COARSE, forecastJob } from '../forecast/assess.ts';
import { demoShop } from '../demo/jobs.ts';
import { demoMaterials } from '../demo/materials.ts';
import { hoseOfLine, potLevelOf } from './hoses.ts';
import type { JobLine } from '@wick/contract/job/job';
import { jobOf, laidOut, type LaidJob } from '../job/laid.ts';
import { act, faultIn, laidDemos } from '../test/laid-demos.ts';
import { checkLayout, layoutRules, type RuleName } from './checks.ts';
import { endMeshShort, isMesh, meshAround } from './mesh-areas.ts';
import { partSums } from '../laminate/ply-book.ts';
import { offset, regionArea } from '@wick/core/geometry/overlay';
import { patchesOn } from '../stack/regions.ts';

const gore = laidDemos[0]!;
const context = { shop: demoShop, flow: null, show: (value: number) => `${value}` };
const withLine = (id: string, changes: Partial<JobLine>, job: LaidJob = gore): LaidJob => ({
  ...job,
  lines: job.lines.map((line) => (line.id === id ? { ...line, ...changes } : line)),
});
const race = (points: JobLine['points']): JobLine => ({
  ...gore.lines[0]!,
  id: 'race-1',
  name: 'Race edge 1',
  kind: 'race',
  bore: 0.001,
  points,
});
const ringFeed = Array.from({ length: 25 }, (_, k) => ({
  x: 0.9 + 0.35 * Math.cos((2 * Math.PI * k) / 24),
  y: 0.6 + 0.35 * Math.sin((2 * Math.PI * k) / 24),
}));
const waitsFor = (when: JobLine['actions'][number]['when']) =>
  withLine('feed-3', { startsOpen: false, actions: [act('opens', 1, when)] });

/** A layout built to break each rule, and no other. */
const broken: Record<RuleName, { job: LaidJob; by: string }[]> = {
  feedTouchesNoStack: [
    {
      job: withLine('feed-3', {
        points: [
          { x: 1, y: 2 },
          { x: 1, y: 2.5 },
        ],
      }),
      by: 'feed-3',
    },
  ],
  meshReachesVent: [
    { job: { ...gore, zones: [] }, by: 'vent-1' },
    {
      job: {
        ...gore,
        zones: [],
        lines: [
          ...gore.lines,
          { ...gore.lines[3]!, id: 'vent-2', name: 'Vent 2', points: [{ x: 2, y: 0.6 }] },
        ],
      },
      by: 'vent-2',
    },
  ],
  ventHasNoPath: [
    {
      job: withLine('vent-1', {
        points: [
          { x: 3.6, y: 0.4 },
          { x: 3.6, y: 0.8 },
        ],
      }),
      by: 'vent-1',
    },
    { job: withLine('vent-1', { startsOpen: false }), by: 'vent-1' },
  ],
  ringFeedWithoutVent: [{ job: withLine('feed-1', { points: ringFeed }), by: 'feed-1' }],
  feedFacesRace: [
    {
      job: {
        ...gore,
        lines: [
          ...gore.lines,
          race([
            { x: 0, y: 0.14 },
            { x: 0.6, y: 0.14 },
          ]),
        ],
      },
      by: 'feed-1',
    },
    {
      job: {
        ...gore,
        lines: [
          ...gore.lines,
          race([
            { x: 0.1, y: 0 },
            { x: 0.1, y: 1.2 },
          ]),
        ],
      },
      by: 'feed-1',
    },
  ],
  hoseTooThin: [{ job: withLine('feed-3', { hoseBore: 0.005, hoseLength: 1.5 }), by: 'feed-3' }],
  potAboveInlet: [
    { job: withLine('feed-1', { potLevel: 0.4 }), by: 'feed-1' },
    {
      job: {
        ...gore,
        stations: [{ id: 'pot-1', kind: 'pot', name: 'Pot', place: { x: -0.5, y: 0.5 }, level: 0.3 }],
      },
      by: 'feed-1',
    },
  ],
  longerThanStock: [
    {
      job: {
        ...withLine('feed-1', { stockId: 'spiral-12' }),
        materials: [
          ...gore.materials,
          ...demoMaterials.flatMap((m) =>
            m.id === 'spiral-12' && m.kind === 'line' ? [{ ...m, coilLength: 0.4 }] : [],
          ),
        ],
      },
      by: 'feed-1',
    },
  ],
  markOutside: [{ job: { ...gore, marks: [{ id: 'mark-1', name: 'Mark 1', x: 1, y: -0.3 }] }, by: 'mark-1' }],
  neverTriggers: [
    { job: waitsFor({ kind: 'opened', what: 'feed-3', delay: 0 }), by: 'feed-3' },
    { job: waitsFor({ kind: 'drawn', mass: 400, delay: 0 }), by: 'feed-3' },
    { job: waitsFor({ kind: 'time', time: 40_000 }), by: 'feed-3' },
    {
      job: {
        ...waitsFor({ kind: 'opened', what: 'feed-2', delay: 0 }),
        lines: waitsFor({ kind: 'opened', what: 'feed-2', delay: 0 }).lines.map((line) =>
          line.id === 'feed-2'
            ? {
                ...line,
                actions: [act('second', 1, { kind: 'opened', what: 'feed-3', delay: 0 })],
              }
            : line,
        ),
      },
      by: 'feed-3',
    },
  ],
};
const flowNeeded: readonly RuleName[] = ['hoseTooThin'];

describe('rules of a layout', () => {
  const cases = (Object.keys(layoutRules) as RuleName[]).flatMap((rule) =>
    broken[rule].map((entry, n) => ({ rule, n, ...entry })),
  );

  test.each(cases)('$rule ($n) fires where it is broken, and its fix mends it', ({ rule, job, by }) => {
    const flowOf = (of: LaidJob) => (flowNeeded.includes(rule) ? forecastJob(of, demoShop, COARSE) : null);
    const found = checkLayout(job, { ...context, flow: flowOf(job) }).filter((item) => item.rule === rule);
    expect(found.map(({ itemId }) => itemId)).toContain(by);
    const { message, at, fix } = found.find(({ itemId }) => itemId === by)!;
    expect(message.length).toBeGreaterThan(30);
    expect([at.x, at.y].every(Number.isFinite)).toBe(true);
    const after = fix!.apply(jobOf(job));
    expect(faultIn(after)).toBe('');
    const mended = laidOut(after);
    const left = checkLayout(mended, { ...context, flow: flowOf(mended) }).filter(
      (item) => item.rule === rule && item.itemId === by,
    );
    expect(left.map((item) => item.message)).toEqual([]);
  });

  test.each(laidDemos.map((job) => ({ name: job.name, job })))('is silent on $name', ({ job }) => {
    const flow = hasFront(job) ? forecastJob(job, demoShop, COARSE) : null;
    expect(checkLayout(job, { ...context, flow }).map(({ message }) => message)).toEqual([]);
  });

  test('what a forecast never came to is told, once there is one', () => {
    const never = waitsFor({ kind: 'passed', what: 'vent-1', distance: 0, delay: 0 });
    const flow = forecastJob(never, demoShop, { ...COARSE, nodeCount: 300 });
    const told = flow.findings.some((finding) => finding.kind === 'neverTriggers');
    const rules = checkLayout(never, { ...context, flow }).map(({ rule }) => rule);
    expect(rules.includes('neverTriggers')).toBe(told);
  });

  test('a part that is wetted by hand has no lines to judge', () => {
    expect(checkLayout({ ...broken.markOutside[0]!.job, process: 'wetLayup' }, context)).toEqual([]);
  });

  test('pieces of a long line cover it end to end and each fits the stock', () => {
    const { job } = broken.longerThanStock[0]!;
    const [found] = checkLayout(job, context).filter(({ rule }) => rule === 'longerThanStock');
    const pieces = laidOut(found!.fix!.apply(jobOf(job))).lines.filter(({ name }) =>
      name.startsWith('Feed 1'),
    );
    expect(pieces).toHaveLength(3);
    const whole = gore.lines[0]!.points;
    expect(pieces[0]!.points[0]).toEqual(whole[0]);
    expect(pieces.at(-1)!.points.at(-1)).toEqual(whole.at(-1));
    expect(pieces.reduce((sum, { points }) => sum + lineLength(points), 0)).toBeCloseTo(0.9, 3);
  });
});

describe('mesh short of a vent', () => {
  const shortOf = (job: LaidJob, line: Pick<JobLine, 'points'>, gap: number) =>
    laidOut(endMeshShort(line, gap)(jobOf(job)));

  test('takes a strip of mesh away round it, and the resin that mesh would hold', () => {
    const bare = { ...gore, zones: [] };
    const vent = bare.lines[3]!;
    const short = shortOf(bare, vent, 0.05);
    expect(meshAround(bare, { x: 3.4, y: 0.6 })).toBe(true);
    expect(meshAround(short, { x: 3.4, y: 0.6 })).toBe(false);
    expect(meshAround(short, { x: 3.3, y: 0.6 })).toBe(true);
    const mesh = demoMaterials.find(({ id }) => id === 'mesh-open')!;
    const held = mesh.kind === 'flowMesh' ? mesh.thickness * mesh.porosity : 0;
    // The end is 0.4 m wide: about a strip of 0.05 m over it.
    const less = partSums(bare, demoShop).resinInConsumables - partSums(short, demoShop).resinInConsumables;
    expect(less / held).toBeGreaterThan(0.018);
    expect(less / held).toBeLessThan(0.026);
  });

  test('a vent all round leaves the middle; round a place within, a mesh with a hole', () => {
    const outline = polygonOf(gore.part.outline);
    const meshed = (points: JobLine['points']) => {
      const vent = { ...gore.lines[3]!, points };
      const short = shortOf({ ...gore, zones: [], lines: [vent] }, vent, 0.05);
      return { short, patches: patchesOn(short, short.layers.find(isMesh)!)! };
    };
    const ringed = meshed([...outline, outline[0]!]).patches;
    expect(ringed).toHaveLength(1);
    expect(regionArea(ringed)).toBeCloseTo(regionArea(offset([{ outline, holes: [] }], -0.05)), 2);
    const { short: holed, patches } = meshed([{ x: 1.5, y: 0.6 }]);
    expect(patches[0]!.holes).toHaveLength(1);
    expect(meshAround(holed, { x: 1.5, y: 0.6 })).toBe(false);
  });

  test('with no mesh up to it the vent floods later', () => {
    const flood = (job: LaidJob) => {
      const flow = forecastJob(job, demoShop, COARSE);
      return flow.vented / flow.poreVolume;
    };
    const slow = {
      ...gore,
      zones: [],
      lines: gore.lines.map((l) =>
        l.id === 'feed-3' ? { ...l, points: l.points.map((p) => ({ ...p, x: 2 })) } : l,
      ),
    };
    expect(flood(shortOf(slow, slow.lines[3]!, 0.08))).toBeLessThan(0.5 * flood(slow));
  });
});

describe('hoses', () => {
  test('are as typed, else as drawn, else the usual', () => {
    const pot = { id: 'pot-1', kind: 'pot' as const, name: 'Pot', place: { x: -0.88, y: 0.6 }, level: null };
    const feed = gore.lines[0]!;
    // From the pot to the middle of the line at 0.12, 0.6: a metre, with 15 % slack.
    expect(hoseOfLine({ ...gore, stations: [pot] }, feed)).toMatchObject({
      length: expect.closeTo(1.15, 9),
      isMeasured: true,
    });
    expect(hoseOfLine({ ...gore, stations: [pot] }, { ...feed, hoseLength: 3 })).toMatchObject({
      length: 3,
      isMeasured: false,
    });
    expect(hoseOfLine(gore, feed).length).toBe(1.2);
    const lifted = { ...gore, stations: [{ ...pot, level: 0.2 }] };
    expect(potLevelOf(lifted, feed)).toBe(0.2);
    expect(potLevelOf(lifted, { ...feed, potLevel: -0.1 })).toBe(-0.1);
  });
});
