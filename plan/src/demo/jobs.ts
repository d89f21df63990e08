import { jobOf, laidOut, type LaidJob } from '../job/laid.ts';
import { emptyJob, emptyLaminate } from '../job/new-job.ts';
import { flattenEdge } from '@wick/core/geometry/arcs';
import { circle, coneSector, gore, rectangle } from '@wick/core/geometry/shapes';
import { type Job, type JobLine } from '@wick/contract/job/job';
import type { JobLayer, LayerKind } from '@wick/contract/job/stack';
import { newLayer } from '../stack/edits.ts';
import { MESH_GAP } from '../layout/mesh-areas.ts';
import { usualShop, type Shop } from '@wick/contract/shop';
import { demoMaterials } from './materials.ts';

export const demoShop: Shop = {
  name: 'Oxbow Lane Workshop',
  altitude: 640,
  ambientPressure: null,
  temperature: 292.15,
  morningTemperature: 288.15,
  afternoonTemperature: 297.15,
  judging: usualShop.judging,
  causes: usualShop.causes,
  units: {},
};

const blank = (name: string): LaidJob => laidOut(emptyJob(name, 'layout-a'));
const { resin: plainResin, part: plainPart, vacuum: plainVacuum, prep: plainPrep } = blank('Blank');
const degrees = (angle: number) => (angle * Math.PI) / 180;
const plies = (list: [string, number, number?][]) =>
  list.map(([materialId, angle, inset], i) => ({ id: `ply-${i + 1}`, materialId, angle: degrees(angle), inset: inset ?? 0 }));
const through = (...numbers: number[]) => numbers.map((number) => ({ through: `ply-${number}` }));
const box = (x: number, y: number, length: number, width: number) =>
  rectangle({ length, width }).map((p) => ({ x: p.x + x, y: p.y + y }));
const used = (...ids: string[]) => demoMaterials.filter((material) => ids.includes(material.id));

function line(id: string, name: string, points: JobLine['points'], changes: Partial<JobLine> = {}): JobLine {
  return {
    id, name, kind: 'feed', points, bore: 0.012, hoseLength: null, hoseBore: null, stockId: null, hoseId: null, tee: null,
    stationId: null, inlet: 0.5, potLevel: null, startsOpen: true, actions: [], pinned: false, ...changes,
  };
}

/** Layers from the part up, each with what it is cut from and how far it goes; m past the edge, and short of vents. */
type Ends = { edge?: number; vent?: number; except?: string[]; lap?: number };
const stack = (...list: [LayerKind, string | null, Ends?][]): JobLayer[] =>
  list.map(([kind, materialId, ends = {}]) => {
    const layer = newLayer(kind, materialId, kind);
    const { covers } = layer;
    return {
      ...layer,
      except: ends.except ?? [],
      lap: ends.lap ?? layer.lap,
      covers: covers.kind === 'part' ? { ...covers, edge: ends.edge ?? covers.edge, vent: ends.vent ?? null } : covers,
    };
  });
const shut: [LayerKind, string | null][] = [['lines', null], ['sealantTape', 'tape-yellow'], ['bag', 'bag-film-50']];
const SHUT_IDS = ['tape-yellow', 'bag-film-50'];

/** Opens as the front passes its own line. */
const opensWhenPassed = (id: string): Partial<JobLine> => ({
  startsOpen: false,
  actions: [{ id: `${id}-opens`, opening: 1, when: { kind: 'passed', what: id, distance: 0, delay: 0 } }],
});

/** Sandwich panel of a small dome, laid flat. Its third feed stands where it stood on a shorter part: it does not fill. */
const domeGore = jobOf({
  ...blank('Dome gore 7'),
  part: {
    ...plainPart,
    outline: gore({ length: 3.4, startWidth: 1.2, endWidth: 0.4 }),
    flange: 0.09,
    features: [{ id: 'rise-1', name: 'Turn-up at the foot', kind: 'rise', points: [{ x: 0.04, y: 0.05 }, { x: 0.04, y: 1.15 }], height: 0.04, radius: 0.012, angle: null }],
  },
  mould: { id: 'dome-gore-mould', name: 'Dome gore mould B' },
  prep: { ...plainPrep, releaseId: 'semi-permanent', gelCoat: { name: 'White gel coat', passes: 4, film: { low: 0.45e-3, high: 0.65e-3 } } },
  showFace: 'mould',
  laminate: {
    ...emptyLaminate,
    plies: plies([['quad-glass-850', 0], ['quad-glass-850', 45], ['quad-glass-850', 45], ['quad-glass-850', 0]]),
    coreId: 'foam-15',
  },
  zones: [
    {
      id: 'brake', name: 'Vent brake', purpose: 'brake', temperature: null,
      outline: [{ x: 3.34, y: 0.2 }, { x: 3.5, y: 0.2 }, { x: 3.5, y: 1 }, { x: 3.34, y: 1 }],
      laminate: { ...emptyLaminate, plies: [{ id: 'brake-ply', materialId: 'woven-glass-300', angle: 0, inset: 0 }] },
    },
  ],
  lines: [
    line('feed-1', 'Feed 1', [{ x: 0.12, y: 0.15 }, { x: 0.12, y: 1.05 }]),
    line('feed-2', 'Feed 2', [{ x: 0.9, y: 0.2 }, { x: 0.9, y: 1.0 }], opensWhenPassed('feed-2')),
    line('feed-3', 'Feed 3', [{ x: 1, y: 0.25 }, { x: 1, y: 0.95 }], opensWhenPassed('feed-3')),
    line('vent-1', 'Vent', [{ x: 3.4, y: 0.4 }, { x: 3.4, y: 0.8 }], { kind: 'vent' }),
  ],
  layers: stack(['peelPly', 'peel-nylon', { edge: 0.02 }], ['flowMesh', 'mesh-open', { edge: 0, except: ['brake'] }], ...shut),
  resin: { ...plainResin, materialId: 'vinyl-ester-v1', temperature: 292.15, mixDuration: 180, degasDuration: 0, hoseFillDuration: 60, hoseLength: 1.2 },
  vacuum: { ...plainVacuum, ventPressure: 1800, pumpId: 'pump-small', potId: 'catch-pot-5', hasCheckValve: true, isStructural: true },
  materials: used('quad-glass-850', 'woven-glass-300', 'foam-15', 'mesh-open', 'peel-nylon', 'vinyl-ester-v1', 'pump-small', 'catch-pot-5', ...SHUT_IDS),
});

const spinnerOutline = coneSector({ innerRadius: 0.09, outerRadius: 0.46, sectorAngle: 4.4 });
/** Points along its outer and inner arc: each is two edges, in this order. */
const arcPoints = (first: number) => [
  ...[first, first + 1].flatMap((i) => flattenEdge(spinnerOutline[i]!, spinnerOutline[i + 1]!)),
  { x: spinnerOutline[first + 2]!.x, y: spinnerOutline[first + 2]!.y },
];

/** Nose cone of a small turbine, developed flat: fed around the tip, vented along the rim. */
const hydroSpinner = jobOf({
  ...blank('Hydro spinner'),
  part: { ...plainPart, outline: spinnerOutline, flange: 0.06 },
  mould: { id: 'spinner-mould', name: 'Spinner mould' },
  prep: { ...plainPrep, releaseId: 'wax', gelCoat: { name: 'Grey gel coat', passes: 4, film: { low: 0.45e-3, high: 0.65e-3 } }, barrier: 'Tissue 30 g/m², mat 300 twice' },
  showFace: 'mould',
  laminate: {
    ...emptyLaminate,
    plies: plies([['woven-glass-300', 0], ['biax-glass-600', 0], ['biax-glass-600', 45], ['biax-glass-600', 0], ['woven-glass-300', 45]]),
  },
  lines: [
    line('feed-1', 'Tip feed', arcPoints(3)),
    line('vent-1', 'Rim vent', arcPoints(0), { kind: 'vent' }),
  ],
  layers: stack(['peelPly', 'peel-coated', { edge: 0.02 }], ['flowMesh', 'mesh-fine', { edge: 0, vent: MESH_GAP }], ...shut),
  resin: { ...plainResin, materialId: 'epoxy-mid-s2', mixDuration: 120 },
  vacuum: { ...plainVacuum, pumpId: 'pump-small' },
  materials: used('woven-glass-300', 'biax-glass-600', 'mesh-fine', 'peel-coated', 'epoxy-mid-s2', 'pump-small', ...SHUT_IDS),
});

/** Solid glass plate, thick enough that the mould side lags far behind the mesh; it lies on a slope. */
const kerbPlate = jobOf({
  ...blank('Footbridge kerb plate'),
  part: { ...plainPart, outline: rectangle({ length: 1.3, width: 0.45 }), rise: { x: 0.05, y: 0 } },
  mould: { id: 'flat-table', name: 'Long glass table' },
  prep: { ...plainPrep, releaseId: 'wax' },
  laminate: {
    ...emptyLaminate,
    plies: plies(Array.from({ length: 14 }, (_, i): [string, number] => ['quad-glass-850', i % 2 === 0 ? 0 : 45])),
  },
  lines: [
    line('feed-1', 'Feed', [{ x: 0.04, y: 0.03 }, { x: 0.04, y: 0.42 }], {
      hoseLength: 1.5,
      actions: [{ id: 'feed-1-shuts', opening: 0, when: { kind: 'full', delay: 120 } }],
    }),
    line('vent-1', 'Vent', [{ x: 1.3, y: 0.05 }, { x: 1.3, y: 0.4 }], { kind: 'vent' }),
  ],
  marks: [
    { id: 'mark-1', name: 'Half way', x: 0.65, y: 0.225 },
    { id: 'mark-2', name: 'Far corner', x: 1.2, y: 0.36 },
  ],
  layers: stack(['peelPly', 'peel-nylon', { edge: 0.02 }], ['flowMesh', 'mesh-open', { edge: 0, vent: MESH_GAP }], ...shut),
  resin: { ...plainResin, materialId: 'epoxy-long-s5', temperature: 293.15, mixDuration: 240, degasDuration: 600, mixingPotId: 'bucket-3', feedPotId: 'feed-pot-5', mixers: 2 },
  vacuum: { ...plainVacuum, ventPressure: 1500, pumpId: 'pump-small', potId: 'catch-pot-5', isStructural: true },
  forecast: { layers: true, soft: true, nodeCount: null },
  materials: used('quad-glass-850', 'mesh-open', 'peel-nylon', 'epoxy-long-s5', 'pump-small', 'catch-pot-5', 'bucket-3', 'feed-pot-5', ...SHUT_IDS),
});

const trayEnd = Math.tan(Math.PI / 8);

/** Tray of a rescue sled: carbon over thin foam, doubled under the lashing points; wetted by hand and bagged. */
const sledTray = jobOf({
  ...blank('Rescue sled tray'),
  process: 'wetLayup',
  part: {
    ...plainPart,
    outline: [
      { x: 0, y: 0 }, { x: 1.35, y: 0, bulge: trayEnd }, { x: 1.6, y: 0.25 }, { x: 1.6, y: 0.35, bulge: trayEnd },
      { x: 1.35, y: 0.6 }, { x: 0, y: 0.6 },
    ],
    holes: [0.1, 0.5].map((y, n) => ({ id: `hole-${n + 1}`, outline: circle({ diameter: 0.05 }).map((p) => ({ ...p, x: p.x + 0.06, y: p.y + y - 0.025 })) })),
    flange: 0.08,
    features: [
      { id: 'rise-1', name: 'Side wall', kind: 'rise', points: [{ x: 0.03, y: 0.03 }, { x: 1.33, y: 0.03 }], height: 0.07, radius: 0.015, angle: null },
      { id: 'rise-2', name: 'Far side wall', kind: 'rise', points: [{ x: 0.03, y: 0.57 }, { x: 1.33, y: 0.57 }], height: 0.07, radius: 0.015, angle: null },
      { id: 'corner-1', name: 'Foot corner', kind: 'insideCorner', points: [{ x: 0.03, y: 0.03 }, { x: 0.03, y: 0.57 }], height: 0.07, radius: 0.008, angle: null },
    ],
  },
  mould: { id: 'sled-mould', name: 'Sled tray mould' },
  prep: { ...plainPrep, releaseId: 'wax' },
  showFace: 'mould',
  laminate: {
    ...emptyLaminate,
    plies: plies([['twill-carbon-200', 0], ['twill-carbon-200', 45], ['twill-carbon-200', 45], ['twill-carbon-200', 0, 0.02]]),
    compactionPressure: 55_000,
  },
  zones: [
    {
      id: 'floor', name: 'Floor', purpose: 'part', temperature: null, outline: box(0.15, 0.1, 1.1, 0.4),
      laminate: { ...emptyLaminate, plies: through(1, 2, 3, 4), coreId: 'foam-5', compactionPressure: 55_000 },
    },
    {
      id: 'lashing', name: 'Lashing point', purpose: 'part', temperature: null, outline: box(-0.05, 0.03, 0.19, 0.14),
      laminate: {
        ...emptyLaminate, compactionPressure: 55_000,
        plies: [
          ...through(1, 2),
          { id: 'lash-1', materialId: 'uni-carbon-300', angle: 0, inset: 0 },
          { id: 'lash-2', materialId: 'uni-carbon-300', angle: degrees(90), inset: 0.02 },
          ...through(3, 4),
        ],
      },
    },
  ],
  // Wrong in three ways: peel ply across the tape, film lapped too far, land not masked.
  layers: stack(
    ['peelPly', 'peel-nylon', { edge: 0.05 }],
    ['perforatedFilm', 'perforated-film-p1', { edge: 0.01, lap: 0.04 }],
    ['bleeder', 'breather-300', { edge: 0.02 }],
    ['breather', 'breather-150', { edge: 0.02 }],
    ...shut.slice(1),
  ),
  resin: { ...plainResin, materialId: 'epoxy-mid-s2' },
  vacuum: { ...plainVacuum, ventPressure: 38_000, pumpId: 'pump-dry' },
  materials: used('twill-carbon-200', 'uni-carbon-300', 'foam-5', 'peel-nylon', 'epoxy-mid-s2', 'perforated-film-p1', 'breather-300', 'breather-150', 'pump-dry', ...SHUT_IDS),
});

const corner = 0.06;
const round = Math.tan(Math.PI / 8);

const fasciaOutline = [
  { x: corner, y: 0 }, { x: 0.9 - corner, y: 0, bulge: round }, { x: 0.9, y: corner }, { x: 0.9, y: 0.5 - corner, bulge: round },
  { x: 0.9 - corner, y: 0.5 }, { x: corner, y: 0.5, bulge: round }, { x: 0, y: 0.5 - corner }, { x: 0, y: corner, bulge: round },
];
/** Along one short end and round its two corners; first is the corner where the first arc starts. */
const roundedEnd = (first: number) => {
  const at = (n: number) => fasciaOutline[n % 8]!;
  const edges = [0, 1, 2].flatMap((n) => flattenEdge(at(first + n), at(first + n + 1)));
  return [...edges, { x: at(first + 3).x, y: at(first + 3).y }];
};

/** Front of a ticket kiosk between two mould halves: fed across the middle, vented at both ends; the cavity sets its thickness. */
const kioskFascia = jobOf({
  ...blank('Kiosk fascia'),
  process: 'closedMould',
  part: {
    ...plainPart,
    outline: fasciaOutline,
    holes: [{ id: 'hole-1', outline: box(0.58, 0.15, 0.2, 0.2) }],
    flange: 0.12,
  },
  mould: { id: 'fascia-mould', name: 'Fascia mould pair' },
  prep: { ...plainPrep, releaseId: 'semi-permanent' },
  showFace: 'mould',
  laminate: {
    ...emptyLaminate,
    plies: plies([['chopped-mat-450', 0], ['chopped-mat-450', 0], ['chopped-mat-450', 0]]),
    fibreVolumeFraction: 0.2,
  },
  zones: [
    {
      id: 'edge', name: 'Hinge edge', purpose: 'part', temperature: null, outline: box(-0.02, -0.02, 0.14, 0.54),
      laminate: {
        ...emptyLaminate, fibreVolumeFraction: 0.25,
        plies: [...through(1, 2), { id: 'hinge-1', materialId: 'woven-glass-300', angle: 0, inset: 0.01 }, ...through(3)],
      },
    },
  ],
  lines: [
    line('feed-1', 'Gate', [{ x: 0.4, y: 0.02 }, { x: 0.4, y: 0.48 }]),
    line('vent-1', 'Hinge vent', roundedEnd(5), { kind: 'vent' }),
    line('vent-2', 'Lock vent', roundedEnd(1), { kind: 'vent' }),
  ],
  resin: { ...plainResin, materialId: 'polyester-p2', mixDuration: 90, hoseFillDuration: 20 },
  vacuum: { ...plainVacuum, ventPressure: 45_000, pumpId: 'pump-dry' },
  materials: used('chopped-mat-450', 'woven-glass-300', 'polyester-p2', 'pump-dry'),
});

export const demoJobs: Job[] = [domeGore, hydroSpinner, kerbPlate, sledTray, kioskFascia];
