import type { JobLayer, LayerCovers, LayerKind } from '@wick/contract/job/stack';
import type { Material, MaterialOf } from '@wick/contract/materials';
import type { Edit } from '../job/edits.ts';
import { idsFrom, newId } from '../job/ids.ts';
import { jobOf, laidOut, type LaidJob } from '../job/laid.ts';
import { keepUsed } from '../job/materials.ts';
import { onLayout } from '../layout/edits.ts';
import { MESH_GAP } from '../layout/mesh-areas.ts';
import type { ProcessId } from '../processes/processes.ts';
import { framesOf } from '@wick/core/layouts/frame';
import { partShapeOf } from '../layout/fit.ts';
import { newLayer } from './edits.ts';
import { isCutFrom } from './kinds.ts';
import { inOrder } from './order.ts';

/** A stack to start from: one school's way of doing it. */
export interface StartingStack {
  readonly id: string;
  readonly name: string;
  /** Who does it so, and what for. */
  readonly school: string;
  /** What may go wrong with it. */
  readonly risk: string;
  /** Layers for a part so wide, of what the workshop has. */
  readonly lay: (request: LayRequest) => Laid;
}

interface LayRequest {
  readonly materials: readonly Material[];
  /** Of the part across, m. */
  readonly width: number;
  readonly seed: string;
}

/** Layers and the materials they are cut from. */
interface Laid {
  readonly layers: JobLayer[];
  readonly materials: Material[];
}

/** m. Common practice, no source. */
const SHORT = -0.03;
const PAST = 0.02;
const PEEL_PAST = 0.02;
const NEXT_TO_VENT = 0.01;
/** Share of the width that a patch of mesh leaves bare on either side. */
const PATCH = 0.25;
const overPart = (edge: number, vent: number | null = null, feed: number | null = null): LayerCovers => ({
  ...{ kind: 'part', edge, feed, vent },
});

type Wanted = readonly [
  kind: LayerKind,
  covers?: LayerCovers | ((width: number) => LayerCovers),
  pick?: (found: Material[]) => Material | undefined,
];

const byOpenness = (found: Material[]) =>
  found
    .filter((own): own is MaterialOf<'flowMesh'> => own.kind === 'flowMesh')
    .sort((a, b) => a.permeability * a.thickness - b.permeability * b.thickness);
const finest = (found: Material[]) => byOpenness(found)[0];
const openest = (found: Material[]) => byOpenness(found).at(-1);
const uncoated = (found: Material[]) =>
  found.find((own) => own.kind === 'peelPly' && own.finish !== 'coated') ?? found[0];

const laying =
  (...wanted: readonly Wanted[]) =>
  ({ materials, width, seed }: LayRequest): Laid => {
    const nextId = idsFrom(seed);
    const used: Material[] = [];
    const layers = wanted.map(([kind, covers, pick]) => {
      const fitting = materials.filter((own) => isCutFrom(kind, own));
      const material = (pick ? pick(fitting) : fitting[0]) ?? null;
      if (material) used.push(material);
      const layer = newLayer(kind, material?.id ?? null, nextId());
      return covers ? { ...layer, covers: typeof covers === 'function' ? covers(width) : covers } : layer;
    });
    return { layers, materials: used };
  };

const peel: Wanted = ['peelPly', overPart(PEEL_PAST), uncoated];
const shut: readonly Wanted[] = [['sealantTape'], ['bag']];
const drawn: readonly Wanted[] = [['lines'], ...shut];
const masked: Wanted = ['flashTape'];
/** Over plies wetted by hand. */
const felts: readonly Wanted[] = [
  masked,
  ['peelPly', overPart(0.01), uncoated],
  ['perforatedFilm', overPart(0.01)],
  ['bleeder', overPart(PAST)],
  ['breather', overPart(PAST)],
];

/** Common practice, no source: schools disagree, so each says what it costs. */
const stacks: Readonly<Record<ProcessId, readonly StartingStack[]>> = {
  infusion: [
    {
      id: 'short',
      name: 'Mesh short of the edge',
      school:
        'Saves resin, and the bare rim brakes the front before the vent. Usual where edges are trimmed.',
      risk: 'The bare rim fills slowly: watch the corners.',
      lay: laying(peel, ['flowMesh', overPart(SHORT, MESH_GAP), openest], ...drawn),
    },
    {
      id: 'past',
      name: 'Mesh past the edge to the feed line',
      school: 'The line lies on the flange and prints nothing on the part.',
      risk: 'Resin runs round the edge in the mesh; more of it is thrown away.',
      lay: laying(peel, ['flowMesh', overPart(0, MESH_GAP, PAST), openest], ...drawn),
    },
    {
      id: 'strip',
      name: 'Release film under the feed lines',
      school: 'Where the mark of a line on the face matters.',
      risk: 'Film under a vent would shut it off: it lies under feeds only.',
      lay: laying(peel, ['flowMesh', overPart(SHORT, MESH_GAP), openest], ['releaseFilm'], ...drawn),
    },
    {
      id: 'two',
      name: 'Two meshes on each other',
      school: 'For thick laminates and long ways, where one mesh is too slow.',
      risk: 'The mould side lags further behind; the most resin is thrown away.',
      lay: laying(
        peel,
        ['flowMesh', overPart(SHORT, MESH_GAP), finest],
        ['flowMesh', overPart(SHORT, MESH_GAP), openest],
        ...drawn,
      ),
    },
    {
      id: 'patch',
      name: 'A patch of mesh in the middle',
      school: 'Small parts: the patch floods at once, and the plies carry the resin on to the edge.',
      risk: 'What lies beyond the patch fills at the speed of the plies alone.',
      lay: laying(peel, ['flowMesh', (width) => overPart(-PATCH * width, MESH_GAP), openest], ...drawn),
    },
    {
      id: 'open',
      name: 'Mesh up to the vent, without a brake',
      school: 'Quick, where the quantity is known and the catch pot takes what comes through.',
      risk: 'Once resin is at the vent it runs there by the shortest way: shut the vent at once.',
      lay: laying(peel, ['flowMesh', overPart(0, NEXT_TO_VENT), openest], ...drawn),
    },
    {
      id: 'plain',
      name: 'Without mesh',
      school: 'Small parts, and fabrics or cores that carry the resin themselves.',
      risk: 'Slow: the forecast says whether it fills.',
      lay: laying(peel, ...drawn),
    },
  ],
  wetLayup: [
    {
      id: 'felt',
      name: 'Perforated film and breather',
      school: 'Takes out what was wetted too richly, and keeps the rest.',
      risk: 'A full breather passes no more air.',
      lay: laying(...felts, ...shut),
    },
    {
      id: 'felt-and-mesh',
      name: 'The same with mesh over the breather',
      school: 'The way for air stays open when the breather is soaked.',
      risk: 'With full vacuum and a warm cure it starves the laminate.',
      lay: laying(...felts, ['flowMesh', overPart(PAST), finest], ...shut),
    },
    {
      id: 'patch',
      name: 'For a repair patch',
      school: 'Peel ply and perforated film well past the patch, felt over both.',
      risk: 'Heat bonds what is not released: check every limit against the cure.',
      lay: laying(
        masked,
        ['peelPly', overPart(PAST), uncoated],
        ['perforatedFilm', overPart(PAST)],
        ['breather', overPart(0.025)],
        ...shut,
      ),
    },
  ],
  bonding: [
    {
      id: 'press',
      name: 'Film and breather over the skin',
      school: 'Vacuum as a press: nothing is to bleed, so the film is not perforated.',
      risk: 'Half the vacuum at most over honeycomb: cells print through.',
      lay: laying(masked, ['releaseFilm', overPart(0.01)], ['breather', overPart(PAST)], ...shut),
    },
  ],
  closedMould: [
    {
      id: 'none',
      name: 'Nothing: the halves seal themselves',
      school: 'Inner seal for the resin, outer seal for the clamping vacuum.',
      risk: 'Seals wear: count their shots.',
      lay: laying(),
    },
  ],
};

export const startingStacks = ({ process }: Pick<LaidJob, 'process'>): readonly StartingStack[] =>
  stacks[process];

/** The layout's layers replaced by a starting stack; brakes take peel ply only. */
export const startFrom =
  (stack: StartingStack, materials: readonly Material[], seed: string = newId()): Edit =>
  (job) => {
    const { long } = framesOf(partShapeOf(job));
    const laid = stack.lay({ materials, seed, width: long.width });
    return keepUsed(
      onLayout(({ brakes }) => ({
        layers: inOrder(laid.layers, job.process).map((layer) =>
          layer.kind === 'flowMesh' || layer.kind === 'perforatedFilm'
            ? { ...layer, except: brakes.map(({ id }) => id) }
            : layer,
        ),
      }))(job),
      laid.materials,
    );
  };

/** The job as it would be with a starting stack. */
export const startedWith = (job: LaidJob, stack: StartingStack, materials: readonly Material[]): LaidJob =>
  laidOut(startFrom(stack, materials, 'trial')(jobOf(job)));
