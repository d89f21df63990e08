import { coneSector, gore, rectangle } from '@wick/core/geometry/shapes';
import { emptyJob, type Job, type JobLine } from '../job.ts';
import type { Shop } from '../shop.ts';
import { demoMaterials } from './materials.ts';

export const demoShop: Shop = {
  name: 'Oxbow Lane Workshop',
  altitude: 640,
  ambientPressure: null,
  temperature: 292.15,
  units: {},
};

const plainResin = emptyJob('').resin;
const degrees = (angle: number) => (angle * Math.PI) / 180;
const plies = (list: [string, number][]) => list.map(([materialId, angle], i) => ({ id: `ply-${i + 1}`, materialId, angle: degrees(angle) }));
const used = (...ids: string[]) => demoMaterials.filter((material) => ids.includes(material.id));

function line(id: string, name: string, points: JobLine['points'], changes: Partial<JobLine> = {}): JobLine {
  return {
    id, name, kind: 'feed', points, bore: 0.012, hoseLength: null, hoseBore: null, tee: null, inlet: 0.5, potLevel: null,
    startsOpen: true, actions: [], ...changes,
  };
}

/** Opens as the front passes its own line. */
const opensWhenPassed = (id: string): Partial<JobLine> => ({
  startsOpen: false,
  actions: [{ opening: 1, when: { kind: 'passed', what: id, distance: 0, delay: 0 } }],
});

/** Sandwich panel of a small dome, laid flat. Its third feed stands where it stood on a shorter part: it does not fill. */
const domeGore: Job = {
  ...emptyJob('Dome gore 7'),
  part: { outline: gore({ length: 3.4, startWidth: 1.2, endWidth: 0.4 }), holes: [], rise: null },
  laminate: {
    plies: plies([['quad-glass-850', 0], ['quad-glass-850', 45], ['quad-glass-850', 45], ['quad-glass-850', 0]]),
    coreId: 'foam-15',
    flowMeshId: 'mesh-open',
    peelPlyId: 'peel-nylon',
    fibreVolumeFraction: null,
  },
  zones: [
    {
      id: 'brake', name: 'Vent brake', purpose: 'brake', temperature: null,
      outline: [{ x: 3.34, y: 0.2 }, { x: 3.5, y: 0.2 }, { x: 3.5, y: 1 }, { x: 3.34, y: 1 }],
      laminate: { plies: [{ id: 'brake-ply', materialId: 'woven-glass-300', angle: 0 }], coreId: null, flowMeshId: null, peelPlyId: 'peel-nylon', fibreVolumeFraction: null },
    },
  ],
  lines: [
    line('feed-1', 'Feed 1', [{ x: 0.12, y: 0.15 }, { x: 0.12, y: 1.05 }]),
    line('feed-2', 'Feed 2', [{ x: 0.9, y: 0.2 }, { x: 0.9, y: 1.0 }], opensWhenPassed('feed-2')),
    line('feed-3', 'Feed 3', [{ x: 1.1, y: 0.25 }, { x: 1.1, y: 0.95 }], opensWhenPassed('feed-3')),
    line('vent-1', 'Vent', [{ x: 3.4, y: 0.4 }, { x: 3.4, y: 0.8 }], { kind: 'vent' }),
  ],
  resin: { ...plainResin, materialId: 'epoxy-slow-s3', temperature: 292.15, mixDuration: 180, degasDuration: 300, hoseFillDuration: 60, hoseLength: 1.2 },
  vacuum: { ventPressure: 1800 },
  materials: used('quad-glass-850', 'woven-glass-300', 'foam-15', 'mesh-open', 'peel-nylon', 'epoxy-slow-s3'),
};

const spinnerOutline = coneSector({ innerRadius: 0.09, outerRadius: 0.46, sectorAngle: 4.4 });
const arcCorners = spinnerOutline.length / 2;

/** Nose cone of a small turbine, developed flat: fed around the tip, vented along the rim. */
const hydroSpinner: Job = {
  ...emptyJob('Hydro spinner'),
  part: { outline: spinnerOutline, holes: [], rise: null },
  laminate: {
    plies: plies([['woven-glass-300', 0], ['biax-glass-600', 0], ['biax-glass-600', 45], ['biax-glass-600', 0], ['woven-glass-300', 45]]),
    coreId: null,
    flowMeshId: 'mesh-fine',
    peelPlyId: 'peel-coated',
    fibreVolumeFraction: 0.5,
  },
  lines: [
    line('feed-1', 'Tip feed', spinnerOutline.slice(arcCorners)),
    line('vent-1', 'Rim vent', spinnerOutline.slice(0, arcCorners), { kind: 'vent' }),
  ],
  resin: { ...plainResin, materialId: 'epoxy-mid-s2', mixDuration: 120 },
  vacuum: { ventPressure: null },
  materials: used('woven-glass-300', 'biax-glass-600', 'mesh-fine', 'peel-coated', 'epoxy-mid-s2'),
};

/** Solid glass plate, thick enough that the mould side lags far behind the mesh; it lies on a slope. */
const kerbPlate: Job = {
  ...emptyJob('Footbridge kerb plate'),
  part: { outline: rectangle({ length: 1.3, width: 0.45 }), holes: [], rise: { x: 0.05, y: 0 } },
  laminate: {
    plies: plies(Array.from({ length: 14 }, (_, i): [string, number] => ['quad-glass-850', i % 2 === 0 ? 0 : 45])),
    coreId: null,
    flowMeshId: 'mesh-open',
    peelPlyId: 'peel-nylon',
    fibreVolumeFraction: null,
  },
  lines: [
    line('feed-1', 'Feed', [{ x: 0.04, y: 0.03 }, { x: 0.04, y: 0.42 }], {
      hoseLength: 1.5,
      actions: [{ opening: 0, when: { kind: 'full', delay: 120 } }],
    }),
    line('vent-1', 'Vent', [{ x: 1.3, y: 0.05 }, { x: 1.3, y: 0.4 }], { kind: 'vent' }),
  ],
  marks: [
    { id: 'mark-1', name: 'Half way', x: 0.65, y: 0.225 },
    { id: 'mark-2', name: 'Far corner', x: 1.2, y: 0.36 },
  ],
  resin: { ...plainResin, materialId: 'epoxy-long-s5', temperature: 293.15, mixDuration: 240, degasDuration: 600 },
  vacuum: { ventPressure: 1500 },
  forecast: { layers: true, soft: true },
  materials: used('quad-glass-850', 'mesh-open', 'peel-nylon', 'epoxy-long-s5'),
};

export const demoJobs: Job[] = [domeGore, hydroSpinner, kerbPlate];
