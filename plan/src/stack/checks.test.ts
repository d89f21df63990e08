import { describe, expect, test } from '@jest/globals';
import fc from 'fast-check';
import type { JobLayer, LayerKind } from '@wick/contract/job/stack';
import { layerKinds } from '@wick/contract/job/stack';
import type { Verdict } from '@wick/core/verdict/verdict';
import { demoJobs, demoShop } from '../demo/jobs.ts';
import { demoMaterials } from '../demo/materials.ts';
import { COARSE, forecastJob, verdictOf } from '../forecast/assess.ts';
import { jobOf, laidOut, type LaidJob } from '../job/laid.ts';
import { laidDemos } from '../test/laid-demos.ts';
import { checkStack, stackRules } from './checks.ts';
import type { StackBreak, StackContext } from './rule.ts';
import { newLayer } from './edits.ts';
import { startFrom, startingStacks } from './starting.ts';

const context: StackContext = {
  shop: demoShop,
  materials: demoMaterials,
  flow: null,
  verdict: null,
  show: (value, quantity) => `${value} (${quantity})`,
};
const [gore, spinner, plate, tray] = laidDemos as [LaidJob, LaidJob, LaidJob, LaidJob];
const started = (job: LaidJob, id: string) =>
  laidOut(
    startFrom(
      startingStacks(job).find((own) => own.id === id)!,
      demoMaterials,
      's',
    )(jobOf(job)),
  );
const sound = started(plate, 'short');
const pressed = started(tray, 'felt');
const changed = (job: LaidJob, kind: LayerKind, changes: Partial<JobLayer>): LaidJob => ({
  ...job,
  layers: job.layers.map((layer) => (layer.kind === kind ? { ...layer, ...changes } : layer)),
});
const without = (job: LaidJob, ...kinds: LayerKind[]): LaidJob => ({
  ...job,
  layers: job.layers.filter(({ kind }) => !kinds.includes(kind)),
});
const vent = { ...plate.lines[1]! };
const withMaterials = (job: LaidJob, ...ids: string[]): LaidJob => ({
  ...job,
  materials: [
    ...job.materials.filter(({ id }) => !ids.includes(id)),
    ...demoMaterials.filter(({ id }) => ids.includes(id)),
  ],
});

/** Stacks built to break a rule each. */
const broken: Record<keyof typeof stackRules, LaidJob> = {
  wrongOrder: { ...sound, layers: [...sound.layers].reverse() },
  lacksLayer: without(sound, 'sealantTape'),
  ventShutOff: {
    ...sound,
    layers: [
      ...sound.layers.slice(0, 2),
      { ...newLayer('releaseFilm', null, 'film'), covers: { kind: 'lines', of: 'both', width: 0.06 } },
      ...sound.layers.slice(2),
    ],
  },
  lineOnFace: changed(sound, 'peelPly', { covers: { kind: 'part', edge: -0.1, feed: null, vent: null } }),
  filmLapped: changed(pressed, 'perforatedFilm', { lap: 0.04 }),
  acrossTape: changed(sound, 'peelPly', { covers: { kind: 'part', edge: 0.06, feed: null, vent: null } }),
  portOnPart: {
    ...sound,
    lines: [
      sound.lines[0]!,
      {
        ...vent,
        points: [
          { x: 1.1, y: 0.2 },
          { x: 1.3, y: 0.2 },
        ],
        inlet: 0,
      },
    ],
  },
  portWithoutBreather: without(
    { ...pressed, lines: [{ ...vent, points: [{ x: 0.8, y: 0.3 }] }] },
    'bleeder',
    'breather',
  ),
  meshForViscosity: sound,
  openCore: withMaterials(
    { ...sound, laminate: { ...sound.laminate, coreId: 'honeycomb-12' } },
    'honeycomb-12',
  ),
  coatedWhereBonded: withMaterials(
    { ...changed(sound, 'peelPly', { materialId: 'peel-coated' }), bondFace: 'bag' },
    'peel-coated',
  ),
  landNotMasked: without(pressed, 'flashTape'),
  tooHot: { ...sound, resin: { ...sound.resin, cureTemperature: 365 } },
  flangeTooNarrow: { ...sound, part: { ...sound.part, flange: 0.035 } },
  bleederTooSmall: withMaterials(
    changed(
      { ...without(pressed, 'breather'), laminate: { ...pressed.laminate, compactionPressure: null } },
      'bleeder',
      { materialId: 'thin-felt' },
    ),
  ),
};
// A felt that holds next to nothing.
const felt = demoMaterials.find(({ id }) => id === 'breather-150')!;
broken.bleederTooSmall = {
  ...broken.bleederTooSmall,
  materials: [
    ...broken.bleederTooSmall.materials,
    { ...felt, id: 'thin-felt', resinUptake: 1e-6 } as typeof felt,
  ],
};

/** A verdict that the front is late, or far too early. */
function judged(job: LaidJob, changes: Partial<Verdict>): StackContext {
  const flow = forecastJob(job, demoShop, COARSE);
  return { ...context, flow, verdict: { ...verdictOf(job, demoShop, flow)!, ...changes } };
}
const contextOf = (rule: string): StackContext =>
  rule === 'meshForViscosity' ? judged(fine, { band: 'gamble', timeUsed: 0.95 }) : context;
const fine = withMaterials(changed(sound, 'flowMesh', { materialId: 'mesh-fine' }), 'mesh-fine');
broken.meshForViscosity = fine;

const firing = (job: LaidJob, rule: string): StackBreak[] =>
  checkStack(job, contextOf(rule)).filter((found) => found.rule === rule);

describe('checks of a stack', () => {
  test.each(Object.keys(stackRules) as (keyof typeof stackRules)[])(
    '%s fires on a stack built to break it, and its change mends it',
    (rule) => {
      const job = broken[rule];
      const found = firing(job, rule);
      expect(found.length).toBeGreaterThan(0);
      for (const { message, fix } of found) {
        expect(message).toMatch(/\S.*[.]$/);
        expect(fix).not.toBeNull();
      }
      let now = jobOf(job);
      for (const { fix } of found) now = fix!.apply(now);
      const context = contextOf(rule);
      // With another mesh the forecast is another, so the old one says nothing of it.
      const again = rule === 'meshForViscosity' ? { ...context, flow: null, verdict: null } : context;
      expect(checkStack(laidOut(now), again).filter((own) => own.rule === rule)).toEqual([]);
    },
  );

  test.each(
    [gore, spinner, plate, tray].flatMap((job) =>
      startingStacks(job).map((stack) => [job.name, stack.name, job, stack] as const),
    ),
  )('%s: “%s” breaks none', (_, __, job, stack) => {
    // Where tape goes on a flange that nobody has measured, nothing is said of it; lines of a plan keep their own faults.
    const laid = laidOut(startFrom(stack, demoMaterials, 's')(jobOf(job)));
    const own = checkStack(laid, context).filter(({ rule }) => rule in stackRules);
    expect(own).toEqual([]);
  });

  test('the first layer that lies wrongly is named with what it lies on', () => {
    const [found] = firing(broken.wrongOrder, 'wrongOrder');
    expect(found!.message).toMatch(/sealant tape lies over the bag/);
  });

  test('a hose that the cure is too hot for is named with its line', () => {
    const hosed = withMaterials(
      {
        ...sound,
        lines: sound.lines.map((line) => ({ ...line, hoseId: 'hose-12' })),
        resin: { ...sound.resin, cureTemperature: 340 },
      },
      'hose-12',
    );
    const found = firing(hosed, 'tooHot');
    expect(found.map(({ itemId }) => itemId)).toEqual(sound.lines.map(({ id }) => id));
    expect(found[0]!.message).toMatch(/Clear hose 12 of Feed stands/);
  });

  test('a line that stands off the face may lie on it', () => {
    const bare = without(sound, 'peelPly', 'flowMesh');
    expect(firing(bare, 'lineOnFace')).toHaveLength(2);
    const loops = withMaterials(
      { ...bare, lines: bare.lines.map((line) => ({ ...line, stockId: 'loop-10' })) },
      'loop-10',
    );
    expect(firing(loops, 'lineOnFace')).toEqual([]);
  });

  test('a mesh that is open for a thin resin is named where the mould side lags and time is to spare', () => {
    const open = judged(sound, { band: 'comfortable', timeUsed: 0.05 });
    const lagging = { ...open, flow: { ...open.flow!, lag: { ...open.flow!.lag!, largest: 0.4 } } };
    const [found] = checkStack(sound, lagging).filter(({ rule }) => rule === 'meshForViscosity');
    expect(found!.message).toMatch(/lags far behind/);
    expect(found!.fix!.label).toBe('Knit mesh fine instead');
    expect(checkStack(sound, open).filter(({ rule }) => rule === 'meshForViscosity')).toEqual([]);
  });

  test('random stacks: after every offered change none fires that offers one', () => {
    const anyLayer = fc
      .record({
        kind: fc.constantFrom(...layerKinds),
        edge: fc.double({ min: -0.05, max: 0.08, noNaN: true }),
        lap: fc.constantFrom(0, 0.01, 0.04),
        choice: fc.nat(3),
      })
      .map(({ kind, edge, lap, choice }, n = 0) => {
        const layer = newLayer(kind, null, `layer-${n}`);
        const { covers } = layer;
        return { ...layer, lap, choice, covers: covers.kind === 'part' ? { ...covers, edge } : covers };
      });
    fc.assert(
      fc.property(
        fc.constantFrom(plate, tray),
        fc.array(anyLayer, { minLength: 1, maxLength: 9 }),
        fc.constantFrom(null, 'bag' as const),
        fc.constantFrom(null, 0.03, 0.09),
        (job, given, bondFace, flange) => {
          const layers = given.map(({ choice, ...layer }, n): JobLayer => {
            const suits = demoMaterials.filter((own) => own.kind === kindOf(layer.kind));
            return {
              ...layer,
              id: `layer-${n}`,
              materialId: suits[choice % Math.max(1, suits.length)]?.id ?? null,
            };
          });
          let now = jobOf({
            ...job,
            layers,
            bondFace,
            part: { ...job.part, flange },
            materials: demoMaterials,
          });
          for (let round = 0; round < 12; round++) {
            const [next] = checkStack(laidOut(now), context).filter(({ fix }) => fix !== null);
            if (!next) break;
            now = next.fix!.apply(now);
          }
          expect(checkStack(laidOut(now), context).filter(({ fix }) => fix !== null)).toEqual([]);
        },
      ),
      { numRuns: 60 },
    );
  });
});

const kindOf = (kind: LayerKind) =>
  ({
    peelPly: 'peelPly',
    perforatedFilm: 'film',
    releaseFilm: 'film',
    bag: 'film',
    flowMesh: 'flowMesh',
    bleeder: 'bleeder',
    breather: 'bleeder',
    doubleTape: 'tape',
    flashTape: 'tape',
    sealantTape: 'tape',
    lines: null,
  })[kind];

test('the demo jobs are among those tried', () => {
  expect(demoJobs).toHaveLength(5);
});
