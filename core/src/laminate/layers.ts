import { fractionUnloaded } from './compaction.ts';
import { coreThrough, coreUptake, filmThrough, peelPlyResistance, slitFlow } from './materials.ts';
import { permeabilityAt } from './permeability.ts';
import {
  computeStack,
  lyingFlow,
  pliesUnderCore,
  turned,
  type Lying,
  type Stack,
  type StackRequest,
} from './stack.ts';

/** One layer of a stack for the flow, bag side first. */
export interface FlowLayer {
  readonly name: string;
  /** Permeability x thickness, m3. */
  readonly transmissibility: { readonly xx: number; readonly yy: number; readonly xy: number };
  /** Porosity x thickness, m. */
  readonly storage: number;
  /** Conductance to the next layer towards the mould, per area: m (permeability over distance); 0 on the last. */
  readonly toNext: number;
  /** Plies give way under resin pressure; mesh does not. */
  readonly isSoft: boolean;
}

/** How a laminate opens up under resin pressure, 0 to the pressure that the bag presses with; evenly spaced. */
export interface SoftLaminate {
  readonly spacing: number;
  /** Relative to no resin pressure: pores of plies alone, and of the whole stack; permeability x thickness likewise. */
  readonly plyPores: Float64Array;
  readonly plyFlow: Float64Array;
  readonly stackPores: Float64Array;
  readonly stackFlow: Float64Array;
  /** Laminate thickness without core, m, and fibre volume fraction. */
  readonly thickness: Float64Array;
  readonly fraction: Float64Array;
}

/**
 * Shares of the ply thickness, bag side first: thin where the mesh feeds, since one lump takes resin too slowly there, and
 * thin on the mould, so that its front is the front at the mould. Of the two skins with a core the same.
 */
const SHARES = [0.1, 0.2, 0.35, 0.25, 0.1];
const BAG_SKIN_SHARES = [0.3, 0.7];
const MOULD_SKIN_SHARES = [0.35, 0.5, 0.15];
/** The thinnest a layer that is not there may be, as a share of the stack: still a node, but of no weight. */
const ABSENT = 1e-4;
/** Load that fibres keep where resin pressure would lift the bag off them, as a share of the full load. Common practice, no source. */
const LEAST_LOAD = 0.02;
const CURVE_POINTS = 41;

/**
 * Flow layers of a stack from the bag to the mould: mesh with peel ply, then the plies in sublayers, a core between the
 * skins. Plies are smeared over the sublayers they reach into; peel ply and film stand between mesh and plies, holes and slits
 * cut through a core between its skins; what slits carry along its faces goes to both skins alike. What lies on the mould is
 * taken together with the plies at the mould.
 * @throws ModelError as computeStack
 * Source: sublayers as in Hsiao et al. 2000 (J. Manuf. Sci. Eng. 122:463). Checked by layers.test.ts.
 */
export function computeLayers(request: StackRequest, stack: Stack = computeStack(request)): FlowLayer[] {
  const { core, under = {} } = request;
  const bagSideFirst = request.plies
    .map(({ fabric, angle }, i) => ({ fabric, angle, ...stack.plies[i] }))
    .reverse()
    .map((ply) => {
      const permeability = permeabilityAt(ply.fabric.permeability, ply.fraction, ply.fabric.name);
      return { ...ply, through: permeability.through, tensor: turned(permeability, ply.angle) };
    });
  const total = stack.laminateThickness;
  const half = bagSideFirst
    .slice(0, bagSideFirst.length - pliesUnderCore(request))
    .reduce((sum, p) => sum + p.thickness, 0);
  const isSandwich = Boolean(core) && half > 0 && half < total;
  const bounds = isSandwich
    ? [...cuts(0, half, BAG_SKIN_SHARES), ...cuts(half, total, MOULD_SKIN_SHARES).slice(1)]
    : cuts(0, total, SHARES);
  const names = isSandwich
    ? ['Bag skin, outer', 'Bag skin, inner', 'Mould skin, inner', 'Mould skin, middle', 'Mould side']
    : ['Under the mesh', 'Upper plies', 'Middle plies', 'Lower plies', 'Mould side'];
  const plies = bounds.slice(1).map((to, n) => smear(bagSideFirst, bounds[n], to, names[n]));
  const { transmissibility, storage, resistance } = lyingFlow(request);
  const hasMesh = transmissibility > 0;
  const mesh = {
    name: hasMesh ? 'Flow mesh' : 'Bag side',
    transmissibility: hasMesh
      ? { xx: transmissibility, yy: transmissibility, xy: 0 }
      : scaled(plies[0].transmissibility, ABSENT),
    storage: storage + (hasMesh ? 0 : ABSENT * stack.storage),
    halfResistance: resistance,
    isSoft: false,
  };
  const layers = [mesh, ...plies];
  const last = layers.length - 1;
  const inCore = core ? coreUptake(core) / 2 : 0;
  const atFaces = isSandwich ? [2, 3] : core ? [last] : [];
  const slits = core ? slitFlow(core) / atFaces.length : 0;
  const onTop = filmAndPeelPly(request, plies[0]);
  const beneath = lyingFlow(under);
  const atMould = filmAndPeelPly(under, plies[plies.length - 1]);
  return layers.map((layer, n) => {
    const next = layers[n + 1];
    const through = n === 0 ? onTop : isSandwich && n === 2 ? 1 / coreThrough(core!) : 0;
    const between = through + (n === last - 1 ? atMould : 0);
    const { name, isSoft, transmissibility } = layer;
    const isAtFace = atFaces.includes(n);
    return {
      name,
      isSoft,
      transmissibility: widened(
        transmissibility,
        (isAtFace ? slits : 0) + (n === last ? beneath.transmissibility : 0),
      ),
      storage:
        layer.storage + (isAtFace ? (2 * inCore) / atFaces.length : 0) + (n === last ? beneath.storage : 0),
      toNext: next ? 1 / (layer.halfResistance + next.halfResistance + between) : 0,
    };
  });
}

const widened = ({ xx, yy, xy }: FlowLayer['transmissibility'], by: number) => ({
  xx: xx + by,
  yy: yy + by,
  xy,
});

/** Resistance, 1/m, of what lies between the flow mesh and the plies. */
function filmAndPeelPly({ peelPlies = [], films = [] }: Lying, top: ReturnType<typeof smear>): number {
  const { xx, yy, xy } = top.transmissibility;
  const inPlane = Math.sqrt(xx * yy - xy * xy) / top.thickness;
  const through = top.thickness / (2 * top.halfResistance);
  return (
    peelPlies.reduce((sum, peelPly) => sum + peelPlyResistance(peelPly), 0) +
    films.reduce((sum, film) => sum + 1 / filmThrough(film, { inPlane, through }), 0)
  );
}

/**
 * Curves of a stack against resin pressure: load on the fibres = what the bag presses with, less the resin's share.
 * Checked by layers.test.ts.
 */
export function softLaminateOf(request: StackRequest, stack: Stack = computeStack(request)): SoftLaminate {
  const { availablePressure, plies } = request;
  const spacing = availablePressure / (CURVE_POINTS - 1);
  const table = () => new Float64Array(CURVE_POINTS);
  const [plyPores, plyFlow, stackPores, stackFlow] = [table(), table(), table(), table()];
  const [thickness, fraction] = [table(), table()];
  const meshFlow = (stack.transmissibility.xx + stack.transmissibility.yy) * stack.meshShare;
  for (let n = 0; n < CURVE_POINTS; n++) {
    const share = Math.max(LEAST_LOAD, 1 - n / (CURVE_POINTS - 1));
    let [pores, flow, height, solid] = [0, 0, 0, 0];
    for (const { fabric } of plies) {
      const own = fractionUnloaded(fabric, share * stack.compactionPressure, stack.compactionPressure);
      const ply = fabric.arealWeight / (fabric.fibreDensity * own);
      const { along, across } = permeabilityAt(fabric.permeability, own, fabric.name);
      pores += ply * (1 - own);
      flow += ply * (along + across);
      height += ply;
      solid += ply * own;
    }
    plyPores[n] = pores;
    plyFlow[n] = flow;
    stackPores[n] = pores + stack.storage - stack.resinInPlies;
    stackFlow[n] = flow + meshFlow;
    thickness[n] = height;
    fraction[n] = solid / height;
  }
  for (const values of [plyPores, plyFlow, stackPores, stackFlow]) {
    const first = values[0];
    for (let n = 0; n < CURVE_POINTS; n++) values[n] /= first;
  }
  return { spacing, plyPores, plyFlow, stackPores, stackFlow, thickness, fraction };
}

function cuts(from: number, to: number, shares: readonly number[]): number[] {
  let at = from;
  return [from, ...shares.map((share) => (at += share * (to - from)))];
}

interface LaidPly {
  readonly thickness: number;
  readonly fraction: number;
  readonly through: number;
  readonly tensor: { readonly xx: number; readonly yy: number; readonly xy: number };
}

/** Sums of the plies between two depths below the bag side, m. */
function smear(plies: readonly LaidPly[], from: number, to: number, name: string) {
  let [top, xx, yy, xy, storage, resistance] = [0, 0, 0, 0, 0, 0];
  for (const ply of plies) {
    const within = Math.max(0, Math.min(to, top + ply.thickness) - Math.max(from, top));
    top += ply.thickness;
    xx += within * ply.tensor.xx;
    yy += within * ply.tensor.yy;
    xy += within * ply.tensor.xy;
    storage += within * (1 - ply.fraction);
    resistance += within / ply.through;
  }
  const thickness = to - from;
  return {
    name,
    thickness,
    transmissibility: { xx, yy, xy },
    storage,
    halfResistance: resistance / 2,
    isSoft: true,
  };
}

const scaled = ({ xx, yy, xy }: { xx: number; yy: number; xy: number }, by: number) => ({
  xx: by * xx,
  yy: by * yy,
  xy: by * xy,
});
