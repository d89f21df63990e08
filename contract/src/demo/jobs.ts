import { coneSector, gore } from '@wick/core/geometry/shapes';
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

const degrees = (angle: number) => (angle * Math.PI) / 180;
const plies = (list: [string, number][]) => list.map(([materialId, angle], i) => ({ id: `ply-${i + 1}`, materialId, angle: degrees(angle) }));
const used = (...ids: string[]) => demoMaterials.filter((material) => ids.includes(material.id));

function line(id: string, name: string, points: JobLine['points'], changes: Partial<JobLine> = {}): JobLine {
  return { id, name, kind: 'feed', points, bore: 0.012, opens: 'atStart', closesWhenReached: false, ...changes };
}

/** Sandwich panel of a small dome, laid flat. Its third feed stands where it stood on a shorter part: it does not fill. */
const domeGore: Job = {
  ...emptyJob('Dome gore 7'),
  part: { outline: gore({ length: 3.4, startWidth: 1.2, endWidth: 0.4 }), holes: [] },
  laminate: {
    plies: plies([['quad-glass-850', 0], ['quad-glass-850', 45], ['quad-glass-850', 45], ['quad-glass-850', 0]]),
    coreId: 'foam-15',
    flowMeshId: 'mesh-open',
    peelPlyId: 'peel-nylon',
    fibreVolumeFraction: null,
  },
  lines: [
    line('feed-1', 'Feed 1', [{ x: 0.12, y: 0.15 }, { x: 0.12, y: 1.05 }]),
    line('feed-2', 'Feed 2', [{ x: 0.9, y: 0.2 }, { x: 0.9, y: 1.0 }], { opens: 'whenReached' }),
    line('feed-3', 'Feed 3', [{ x: 1.1, y: 0.25 }, { x: 1.1, y: 0.95 }], { opens: 'whenReached' }),
    line('vent-1', 'Vent', [{ x: 3.4, y: 0.4 }, { x: 3.4, y: 0.8 }], { kind: 'vent' }),
  ],
  resin: { materialId: 'epoxy-slow-s3', temperature: 292.15, mixDuration: 180, degasDuration: 300, hoseFillDuration: 60, hoseLength: 2.5 },
  vacuum: { ventPressure: 1800 },
  materials: used('quad-glass-850', 'foam-15', 'mesh-open', 'peel-nylon', 'epoxy-slow-s3'),
};

const spinnerOutline = coneSector({ innerRadius: 0.09, outerRadius: 0.46, sectorAngle: 4.4 });
const arcCorners = spinnerOutline.length / 2;

/** Nose cone of a small turbine, developed flat: fed around the tip, vented along the rim. */
const hydroSpinner: Job = {
  ...emptyJob('Hydro spinner'),
  part: { outline: spinnerOutline, holes: [] },
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
  resin: { materialId: 'epoxy-mid-s2', temperature: null, mixDuration: 120, degasDuration: null, hoseFillDuration: null, hoseLength: null },
  vacuum: { ventPressure: null },
  materials: used('woven-glass-300', 'biax-glass-600', 'mesh-fine', 'peel-coated', 'epoxy-mid-s2'),
};

export const demoJobs: Job[] = [domeGore, hydroSpinner];
