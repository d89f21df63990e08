import { describe, expect, test } from '@jest/globals';
import type { Material } from '@wick/contract/materials';
import { materialSchema } from '@wick/contract/materials';
import { demoMaterials } from '../demo/materials.ts';
import { doubtOf } from '../forecast/doubt.ts';
import { frontMark, minuteAt, plate, plateShapes, shop, under } from '../infusion/test/plate.ts';
import { flowShares } from '../laminate/doubt.ts';
import type { LaidJob } from '../job/laid.ts';
import { evidenceOf } from './evidence.ts';
import { fillReviewOf } from './fill-review.ts';
import { baseOf, measuredHere, sidesOf, withLearned } from './learned-values.ts';
import { offersOf, type RunEvidence } from './learning.ts';
import { sharesOf } from './shares.ts';

const plan = () => plateShapes()[0]!;
const PLACES = [
  [0.3, 0.2],
  [0.55, 0.3],
  [0.85, 0.15],
] as const;
/** A fill of the plate with everything so many times better, seen at three places and said to be wet. */
function reviewed(factor: number, job: LaidJob = plate) {
  const marks = PLACES.map(([x, y]) => frontMark(plan(), x, y, factor));
  const wetAt = minuteAt(plan(), plan().lastPlace, factor);
  const { state } = under([...marks, [wetAt, { kind: 'allWet' }]]);
  const fill = fillReviewOf({ job, shop, state, readings: [], shapes: plateShapes() })!;
  return { state, fill };
}
const shares = () => sharesOf({ job: plate, shop, places: PLACES.map(([x, y]) => ({ x, y })) });
const evidence = (factor: number) => {
  const { state, fill } = reviewed(factor);
  return evidenceOf(plate, shop, state, fill, shares());
};

describe('a fill that is over', () => {
  test('as planned: every time lies within its range, and the marks say so', () => {
    const { fill } = reviewed(1);
    expect(fill.wetAt! / fill.planned.last.middle).toBeCloseTo(1, 1);
    for (const { planned, seen } of fill.marks) {
      expect(seen).toBeGreaterThan(planned.early);
      expect(seen).toBeLessThan(planned.late);
    }
    expect(Math.abs(fill.factor!.mean)).toBeLessThan(0.02);
  });

  test('a quarter worse: the marks say 0.75 by themselves, whatever was thought before', () => {
    const { fill } = reviewed(0.75);
    expect(Math.exp(fill.factor!.mean)).toBeCloseTo(0.75, 1);
    expect(fill.wetAt!).toBeGreaterThan(fill.planned.last.middle);
    // The live answer leans towards the plan; the learning must not lean twice.
    expect(fill.answer.factor.middle).toBeGreaterThan(Math.exp(fill.factor!.mean));
  });

  test('nothing opened, nothing to review', () => {
    expect(
      fillReviewOf({ job: plate, shop, state: { entries: [] }, readings: [], shapes: plateShapes() }),
    ).toBeNull();
  });
});

test('shares: on an averaged strip each entry’s share of permeability times thickness (Darcy in parallel); the rest is the hose', () => {
  const own = shares();
  const total = own.reduce((sum, { share }) => sum + share, 0);
  expect(total).toBeGreaterThan(0.9);
  expect(total).toBeLessThan(1.005);
  const flows = flowShares(plate);
  for (const { materialId, share } of own) expect(share / total).toBeCloseTo(flows.get(materialId)!, 1);
});

describe('evidence', () => {
  test('of the marks: ln of the factor, on permeabilities by their shares and on viscosity the other way', () => {
    const [front] = evidence(0.75);
    expect(front!.side).toBe('permeability');
    expect(Math.exp(front!.told)).toBeCloseTo(0.75, 1);
    const resin = front!.parts.find(({ side }) => side === 'viscosity')!;
    expect(resin).toMatchObject({ materialId: plate.resin.materialId, share: -1, used: 1 });
  });

  test('of a cup, of gel and of thickness, each by hand', () => {
    const { state, fill } = reviewed(1);
    const zero = fill.clock.zero;
    const more = [
      [fill.clock.clock.gelTime * 1.2, { kind: 'gelled', where: 'cup' }],
      [
        60,
        {
          kind: 'cupRead',
          viscosity: 1.3 * fill.clock.clock.viscosityAt(0),
          temperature: fill.clock.run.temperature,
        },
      ],
    ] as const;
    const entries = [
      ...state.entries,
      ...more.map(([at, body], n) => ({
        ...state.entries[0]!,
        ...{ id: `m${n}`, at: new Date(zero + 1000 * at).toISOString(), body },
      })),
    ] as typeof state.entries;
    const all = evidenceOf(plate, shop, { entries }, fill, []);
    expect(all.find(({ side }) => side === 'gelTime')!.told).toBeCloseTo(Math.log(1.2), 3);
    expect(all.find(({ side }) => side === 'viscosity')!.told).toBeCloseTo(Math.log(1.3), 2);
  });
});

describe('what the library could learn', () => {
  const library = [...demoMaterials];
  const book = (...factors: number[]): RunEvidence[] =>
    factors.map((factor, n) => ({ runId: `run-${n}`, evidence: evidence(factor) }));
  const mainOf = (list: ReturnType<typeof offersOf>) =>
    list.filter(({ side }) => side === 'permeability').sort((a, b) => a.factor - b.factor)[0]!;

  test('nothing was reviewed: nothing is offered', () => {
    expect(offersOf(library, [])).toEqual([]);
  });

  test('slow runs lower the permeabilities, and raise the viscosity a little; the more runs, the surer', () => {
    const [once, often] = [offersOf(library, book(0.7)), offersOf(library, book(0.7, 0.72, 0.68))];
    expect(mainOf(once).factor).toBeLessThan(0.95);
    expect(mainOf(often).factor).toBeLessThan(mainOf(once).factor);
    expect(mainOf(often).doubt).toBeLessThan(mainOf(often).now.doubt);
    expect(mainOf(often).runIds).toEqual(['run-0', 'run-1', 'run-2']);
    const resin = often.find(({ side }) => side === 'viscosity')!;
    expect(resin.factor).toBeGreaterThan(1);
    // Never narrower than what differs from run to run.
    for (const { doubt, scatter } of often.filter(({ side }) => side !== 'viscosity'))
      expect(doubt).toBeGreaterThanOrEqual(scatter - 1e-3);
  });

  test('taken: the entry says how often it was measured here, the next forecast is doubted less, and no news is left', () => {
    const runs = book(0.7, 0.72, 0.68);
    const offers = offersOf(library, runs);
    const taught = library.map((material) =>
      offers
        .filter(({ materialId }) => materialId === material.id)
        .reduce<Material>((one, offer) => withLearned(one, offer.side, offer), material),
    );
    for (const material of taught) expect(materialSchema.safeParse(material).success).toBe(true);
    const one = taught.find(({ id }) => id === mainOf(offers).materialId)!;
    expect(measuredHere(one, 'permeability')).toBe('measured here, 3 runs');
    expect(offersOf(taught, runs).filter(({ isNews }) => isNews)).toEqual([]);
    const next: LaidJob = {
      ...plate,
      doubt: { ...plate.doubt, permeability: null },
      materials: plate.materials.map((own) => taught.find(({ id }) => id === own.id) ?? own),
    };
    const before = { ...plate, doubt: { ...plate.doubt, permeability: null } };
    expect(doubtOf(next).permeability).toBeLessThan(doubtOf(before).permeability);
  });

  test('a run of a part that already used what was learned tells the same as one that did not', () => {
    const runs = book(0.7);
    const [offer] = offersOf(library, runs).filter(({ side }) => side === 'permeability');
    const used = runs[0]!.evidence.map((one) => ({
      ...one,
      told:
        one.told -
        one.parts.reduce(
          (sum, { materialId, side, share }) =>
            materialId === offer!.materialId && side === 'permeability' ? sum + share * Math.log(0.8) : sum,
          0,
        ),
      parts: one.parts.map((part) =>
        part.materialId === offer!.materialId && part.side === 'permeability' ? { ...part, used: 0.8 } : part,
      ),
    }));
    const again = offersOf(library, [{ runId: 'run-0', evidence: used }]);
    const own = again.find(
      ({ materialId, side }) => materialId === offer!.materialId && side === 'permeability',
    )!;
    expect(own.factor).toBeCloseTo(offer!.factor, 3);
  });

  test('a value that was typed anew since begins anew: what was told of the old one is not its own', () => {
    const runs = book(0.6);
    const target = mainOf(offersOf(library, runs));
    const typed = library.map((material) =>
      material.id === target.materialId ? withTypedValue(material) : material,
    );
    expect(
      offersOf(typed, runs).some(
        ({ materialId, side }) => materialId === target.materialId && side === 'permeability',
      ),
    ).toBe(false);
  });
});

function withTypedValue(material: Material): Material {
  if (material.kind === 'flowMesh') return { ...material, permeability: 3.3e-9 };
  if (material.kind === 'fabric' && 'along' in material.permeability)
    return { ...material, permeability: { ...material.permeability, along: 3.3e-11 } };
  return material;
}

test('every entry of the demo library, every side: taken and set back is the same to six digits, and its base never moves', () => {
  for (const material of demoMaterials)
    for (const side of sidesOf(material)) {
      const taken = withLearned(material, side, { factor: 0.83, doubt: 1.3, runIds: ['a', 'b'] });
      expect(materialSchema.parse(taken)).toEqual(taken);
      expect(taken.learned![side]).toEqual({
        factor: 0.83,
        doubt: expect.closeTo(0.3, 9),
        runIds: ['a', 'b'],
      });
      expect(baseOf(taken, side)).toBe(baseOf(material, side));
      const twice = withLearned(taken, side, { factor: 1.1, doubt: 1.2, runIds: ['a', 'b', 'c'] });
      expect(baseOf(twice, side)).toBe(baseOf(material, side));
      const back = withLearned(twice, side, null);
      expect(back.learned).toBeUndefined();
      expect(roundedLike(back)).toEqual(roundedLike(material));
    }
});

const roundedLike = (material: Material): unknown =>
  JSON.parse(
    JSON.stringify(material, (_, value: unknown) =>
      typeof value === 'number' ? Number(value.toPrecision(6)) : value,
    ),
  );
