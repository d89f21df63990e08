import { forecastFlow, type FlowForecast } from '../src/flow/forecast.ts';
import type { LayoutLine } from '../src/flow/layout.ts';
import { rectangle } from '../src/geometry/shapes.ts';
import { computeLayers } from '../src/laminate/layers.ts';
import type { Fabric, FlowMesh } from '../src/laminate/materials.ts';
import { computeStack, type StackRequest } from '../src/laminate/stack.ts';

const fabric: Fabric = {
  kind: 'fabric',
  name: 'bench fabric',
  arealWeight: 0.85,
  fibreDensity: 2550,
  compaction: { fractionAt100kPa: 0.53, exponent: 0.05 },
  permeability: { fraction: 0.52, along: 4e-11, across: 3e-11, through: 5e-12 },
};
const flowMesh: FlowMesh = {
  kind: 'flowMesh',
  name: 'bench mesh',
  thickness: 1.2e-3,
  porosity: 0.86,
  permeability: 7.5e-9,
};
export const benchStack: StackRequest = {
  plies: Array.from({ length: 6 }, (_, i) => ({ fabric, angle: (i * Math.PI) / 4 })),
  flowMeshes: [flowMesh],
  availablePressure: 92_000,
  targetFraction: null,
};

const across = (id: string, x: number, kind: 'feed' | 'vent'): LayoutLine => ({
  id,
  name: id,
  kind,
  bore: 0.012,
  hose: kind === 'feed' ? { length: 1.5, bore: 0.012 } : null,
  points: [
    { x, y: 0 },
    { x, y: 0.8 },
  ],
  startsOpen: kind === 'vent' || x === 0,
  actions:
    kind === 'feed' && x > 0
      ? [{ opening: 1, when: { kind: 'passed', what: id, distance: 0, delay: 0 } }]
      : [],
});

/** A plate 2.4 by 0.8 m told apart through its thickness, or averaged, with feeds that open one after the other. */
export function demoLayers(nodeCount: number, isLayered = true): FlowForecast {
  const { laminateThickness, transmissibility, storage } = computeStack(benchStack);
  const averaged = [{ name: 'Averaged', transmissibility, storage, toNext: 0, isSoft: true }];
  return forecastFlow({
    outline: rectangle({ length: 2.4, width: 0.8 }),
    holes: [],
    lines: [
      across('a', 0, 'feed'),
      across('b', 0.8, 'feed'),
      across('c', 1.6, 'feed'),
      across('vent', 2.4, 'vent'),
    ],
    zones: [
      {
        name: 'all',
        outline: null,
        soft: null,
        thickness: laminateThickness,
        layers: isLayered ? computeLayers(benchStack) : averaged,
      },
    ],
    feedPressure: 94_000,
    vacuumPressure: 2_000,
    density: 1130,
    nodeCount,
  });
}
