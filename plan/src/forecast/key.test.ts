import { describe, expect, test } from '@jest/globals';
import type { Job, JobAction } from '@wick/contract/job/job';
import { shopSchema, type Shop } from '@wick/contract/shop';
import { rectangle } from '@wick/core/geometry/shapes';
import { ModelError } from '@wick/core/model-error';
import { solveFlow } from '@wick/core/flow/problem';
import { demoMaterials } from '../demo/materials.ts';
import { demoJobs, demoShop } from '../demo/jobs.ts';
import { readJob } from '../files/job-file.ts';
import { laidOut } from '../job/laid.ts';
import { alternatives, leavesOf, schemaPath, withLeaf, type Leaf } from '../test/perturb.ts';
import { hashOf, keyOf } from './key.ts';
import { problemOf } from './problem.ts';
import { newLayer } from '../stack/edits.ts';

/** A small plate on which everything there is has its effect. */
const box = (x: number, y: number, length: number, width: number) =>
  rectangle({ length, width }).map((p) => ({ x: p.x + x, y: p.y + y }));
const gore = demoJobs[0]!;
const line = {
  ...gore.layouts[0]!.lines[0]!,
  actions: [],
  hoseLength: 1.5,
  hoseBore: 0.01,
  tee: null,
  stationId: null,
  potLevel: null,
  inlet: 0.5,
  startsOpen: true,
};
const upright = (x: number) => [
  { x, y: 0.02 },
  { x, y: 0.28 },
];
const plate: Job = {
  ...gore,
  part: {
    ...gore.part,
    outline: box(0, 0, 0.6, 0.3),
    holes: [{ id: 'hole', outline: box(0.12, 0.12, 0.05, 0.05) }],
    features: [
      {
        id: 'rise',
        name: 'Rise',
        kind: 'rise',
        points: upright(0.02),
        height: 0.02,
        radius: 0.01,
        angle: null,
      },
    ],
  },
  laminate: { ...gore.laminate, coreId: 'foam-15' },
  zones: [
    {
      id: 'zone',
      name: 'Thick',
      outline: box(0.2, 0.05, 0.12, 0.2),
      temperature: null,
      laminate: {
        ...gore.laminate,
        coreId: null,
        plies: gore.laminate.plies.map(({ id }) => ({ through: id })),
      },
    },
  ],
  layouts: [
    {
      id: 'A',
      letter: 'A',
      name: '',
      lines: [
        { ...line, id: 'feed', name: 'Feed', kind: 'feed', points: upright(0.03) },
        {
          ...line,
          id: 'second',
          name: 'Second',
          kind: 'feed',
          points: upright(0.36),
          startsOpen: false,
          tee: 'tee',
          actions: [
            { id: 'opens', opening: 1, when: { kind: 'passed', what: 'mark', distance: 0.01, delay: 0 } },
            { id: 'shuts', opening: 0.3, when: { kind: 'drawn', mass: 0.2, delay: 0 } },
          ],
        },
        { ...line, id: 'vent', name: 'Vent', kind: 'vent', points: upright(0.58) },
        {
          ...line,
          id: 'race',
          name: 'Race',
          kind: 'race',
          bore: 0.0006,
          points: [
            { x: 0, y: 0 },
            { x: 0.6, y: 0 },
          ],
        },
      ],
      tees: [{ id: 'tee', name: 'Tee', place: { x: 0.4, y: -0.2 }, hoseLength: null, hoseBore: 0.009 }],
      stations: [
        { id: 'pot', kind: 'pot', name: 'Pot', place: { x: -0.4, y: 0.1 }, level: 0.2 },
        { id: 'pump', kind: 'pump', name: 'Pump', place: { x: 1, y: 0.1 }, level: null },
      ],
      layers: [
        newLayer('peelPly', 'peel-nylon', 'peel'),
        {
          ...newLayer('flowMesh', 'mesh-open', 'mesh'),
          except: ['brake'],
          covers: {
            kind: 'areas',
            areas: [
              {
                id: 'mesh-area',
                name: 'Mesh',
                outline: box(0.03, 0.02, 0.49, 0.26),
                holes: [box(0.42, 0.1, 0.04, 0.06)],
              },
            ],
          },
        },
      ],
      brakes: [
        {
          id: 'brake',
          name: 'Brake',
          outline: box(0.5, 0.04, 0.04, 0.2),
          temperature: null,
          laminate: {
            ...gore.laminate,
            coreId: null,
            plies: gore.laminate.plies.map(({ id }) => ({ through: id })),
          },
        },
      ],
    },
  ],
  currentLayoutId: 'A',
  forecast: { layers: false, soft: false, nodeCount: null },
  marks: [{ id: 'mark', name: 'Half', x: 0.34, y: 0.2 }],
  materials: demoMaterials.filter(({ id }) =>
    [
      ...['quad-glass-850', 'foam-15', 'mesh-open', 'peel-nylon', 'pump-small', 'catch-pot-5'],
      gore.resin.materialId,
    ].includes(id),
  ),
};
/** Under a perfect vacuum shut-in air has no pressure to be balanced: quicker. */
const swift: Job = { ...plate, vacuum: { ...plate.vacuum, ventPressure: 0 } };
const [second] = plate.layouts[0]!.lines.slice(1);
const withSecond = (actions: JobAction[]): Job =>
  withLeaf(swift, ['layouts', 0, 'lines', 1], { ...second!, actions });
/** The same plate in ways that make other values count. */
const jobs: Record<string, Job> = {
  plain: plate,
  'on the clock': withSecond([
    { id: 'opens', opening: 1, when: { kind: 'time', time: 800 } },
    { id: 'shuts', opening: 0, when: { kind: 'opened', what: 'second', delay: 30 } },
  ]),
  'after a zone, on a slope': {
    ...withSecond([
      { id: 'opens', opening: 1, when: { kind: 'zoneFull', zone: 'zone', delay: 20 } },
      { id: 'shuts', opening: 0, when: { kind: 'full', delay: 0 } },
    ]),
    part: { ...plate.part, rise: { x: 0.1, y: 0.05 } },
  },
  'soft layers': { ...swift, forecast: { layers: true, soft: true, nodeCount: null } },
  warm: {
    ...swift,
    zones: [{ ...plate.zones[0]!, temperature: 310 }],
    resin: {
      ...plate.resin,
      temperature: 293,
      mouldTemperature: 300,
      drift: 1e-4,
      batches: [
        { id: 'batch', stationId: null, mixedAt: 0, mass: 0.1 },
        { id: 'later', stationId: null, mixedAt: 300, mass: 0.12 },
      ],
    },
  },
};

/** Where runs are slow, the parts of the job that are perturbed. */
const partsOf: Record<string, readonly string[]> = {
  'soft layers': ['laminate', 'materials', 'forecast', 'resin', 'vacuum'],
};
/** Runs that a kind of value gets in one job to show that it moves the flow. */
const MOST_RUNS = 4;
const FINENESS = { nodeCount: 50, steps: 6, isGlance: true };

/** What the work gives, or the code of the sentence that refuses it. */
function attempt<T>(work: () => T): T | string {
  try {
    return work();
  } catch (error) {
    if (error instanceof ModelError) return error.code;
    throw error;
  }
}
const problemIn = (job: Job, shop: Shop) => attempt(() => problemOf(laidOut(job), shop));
type Problem = ReturnType<typeof problemIn>;
const keyFor = (problem: Problem) => (typeof problem === 'string' ? problem : keyOf(problem));
/** All that a forecast says but its mesh. */
function flowFor(problem: Problem): string {
  const flow = typeof problem === 'string' ? problem : attempt(() => solveFlow(problem, FINENESS));
  return typeof flow === 'string' ? flow : hashOf({ ...flow, mesh: null });
}

describe('the key of a flow problem changes exactly when the flow does', () => {
  /** Kinds of value that moved the key, and those of them that moved the flow. */
  const movesKey = new Set<string>();
  const movesFlow = new Set<string>();
  let tried = 0;

  /** Puts other values in every place of a document. @returns places whose change the key forgets */
  function perturb<T>(
    parts: readonly string[] | null,
    document: T,
    reads: (d: T) => boolean,
    problemFor: (d: T) => Problem,
  ): string[] {
    const base = problemFor(document);
    const [baseKey, baseFlow] = [keyFor(base), flowFor(base)];
    const leaves = leavesOf(document, 5).filter(({ path }) => parts?.includes(String(path[0])) ?? true);
    const kindOf = (leaf: Leaf) => {
      const [list, index] = leaf.path;
      const materials = (document as { materials?: readonly { kind: string }[] }).materials;
      return list === 'materials'
        ? `${materials![Number(index)]!.kind} ${schemaPath(leaf)}`
        : schemaPath(leaf);
    };
    const kinds = new Map<string, Leaf['value'][]>();
    const runs = new Map<string, number>();
    for (const leaf of leaves) kinds.set(kindOf(leaf), [...(kinds.get(kindOf(leaf)) ?? []), leaf.value]);
    return leaves
      .filter((leaf) => {
        const kind = kindOf(leaf);
        return alternatives(leaf, kinds.get(kind)!).some((value) => {
          const changed = withLeaf(document, leaf.path, value);
          if (!reads(changed)) return false;
          tried += 1;
          const problem = problemFor(changed);
          const isMoved = keyFor(problem) !== baseKey;
          if (isMoved) movesKey.add(kind);
          // A run is a function of its problem: only where that differs, or the kind has not moved a flow yet, is it made.
          if (isMoved ? movesFlow.has(kind) : JSON.stringify(problem) === JSON.stringify(base)) return false;
          const count = runs.get(kind) ?? 0;
          if (isMoved && count >= MOST_RUNS) return false;
          runs.set(kind, count + 1);
          const isFlowMoved = flowFor(problem) !== baseFlow;
          if (isFlowMoved) movesFlow.add(kind);
          return isFlowMoved && !isMoved;
        });
      })
      .map(({ path }) => path.join('.'));
  }

  test.each(Object.keys(jobs))('%s: no value that moves the flow is forgotten', (name) => {
    const job = jobs[name]!;
    expect(
      perturb(
        partsOf[name] ?? null,
        job,
        (other) => readJob(other).ok,
        (other) => problemIn(other, demoShop),
      ),
    ).toEqual([]);
    expect(
      perturb(
        null,
        demoShop,
        (shop) => shopSchema.safeParse(shop).success,
        (shop) => problemIn(job, shop),
      ),
    ).toEqual([]);
  });

  test('no value moves the key that never moves the flow', () => {
    expect(tried).toBeGreaterThan(1000);
    expect(movesFlow.size).toBeGreaterThan(60);
    expect([...movesKey].filter((kind) => !movesFlow.has(kind))).toEqual([]);
  });
});
