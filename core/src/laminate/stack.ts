import { ModelError, requireFraction, requirePositive } from '../model-error.ts';
import { fractionUnderPressure, fractionUnloaded, meanFraction, pressureForFraction } from './compaction.ts';
import {
  coreUptake,
  slitFlow,
  type Core,
  type Fabric,
  type Film,
  type FlowMesh,
  type PeelPly,
} from './materials.ts';
import { permeabilityAt, type Permeability } from './permeability.ts';

/** What lies on plies and resin runs through, in any number: flow meshes, and between them and the plies peel plies and perforated films. */
export interface Lying {
  readonly flowMeshes?: readonly FlowMesh[];
  readonly peelPlies?: readonly PeelPly[];
  readonly films?: readonly Film[];
}

export interface StackRequest extends Lying {
  /** From the mould side up; angle of each ply's 0 direction to the plan's x axis, rad. */
  readonly plies: readonly { readonly fabric: Fabric; readonly angle: number }[];
  readonly core?: Core | null;
  /** Plies under the core; none given lays it in the middle, an odd ply above it. */
  readonly pliesUnderCore?: number | null;
  /** Lies under the plies, on the mould. */
  readonly under?: Lying;
  /** Ambient minus vacuum, Pa: all the bag can press with. */
  readonly availablePressure: number;
  /** Wanted mean fibre volume fraction; null takes what the pressure gives. */
  readonly targetFraction: number | null;
  /** Wanted compaction pressure, Pa, where no fraction is; none given takes all there is. */
  readonly targetPressure?: number | null;
}

export interface Stack {
  readonly plies: readonly { readonly thickness: number; readonly fraction: number }[];
  /** Before the resin comes, m: pressed dry. */
  readonly dryThickness: number;
  /** Plies alone, m; and with the core. */
  readonly laminateThickness: number;
  readonly thickness: number;
  readonly fibreVolumeFraction: number;
  readonly compactionPressure: number;
  /** kg/m2 */
  readonly fibreWeight: number;
  readonly coreWeight: number;
  /** Resin a square metre takes: in the plies, in mesh, peel ply and core; m3/m2. */
  readonly resinInPlies: number;
  /** More of it in the plies where resin under half of the bag's pressure stands in them, as on average when feed and vent are shut. */
  readonly resinAsItOpens: number;
  readonly resinInConsumables: number;
  readonly resinInCore: number;
  /** Through-thickness sums for the flow: permeability x thickness (m3) and porosity x thickness (m). */
  readonly transmissibility: { readonly xx: number; readonly yy: number; readonly xy: number };
  readonly storage: number;
  /** Share of the in-plane flow that runs in the mesh. */
  readonly meshShare: number;
}

/**
 * Thickness, weights, porosity and through-thickness averages of a ply list.
 * @throws ModelError NO_PLIES; FRACTION_OUT_OF_REACH, PRESSURE_OUT_OF_REACH, PACKING_LIMIT; NOT_POSITIVE or NOT_A_FRACTION naming the material value
 * Valid: plies wet out together (one averaged layer). Source: areal-weight identity of ASTM D3171 method II; Carman-Kozeny
 * scaling of permeability, K ~ (1 - V)^3 / V^2. Checked by laminate.test.ts.
 */
export function computeStack(request: StackRequest): Stack {
  const { plies, core, availablePressure, targetFraction } = request;
  const targetPressure = request.targetPressure ?? availablePressure;
  if (plies.length === 0)
    throw new ModelError('NO_PLIES', 'The laminate has no plies. Add at least one ply from the library.');
  plies.forEach(({ fabric }) => requireFabric(fabric));
  requirePositive(availablePressure, 'Compaction pressure', 'Pa');
  requirePositive(targetPressure, 'Compaction pressure', 'Pa');
  if (targetPressure > availablePressure * (1 + 1e-9))
    throw new ModelError(
      'PRESSURE_OUT_OF_REACH',
      `A bag here presses with ${(availablePressure / 100).toFixed(0)} mbar at most, ${(targetPressure / 100).toFixed(0)} mbar is wanted. Lower it, or better the vacuum.`,
      { available: availablePressure },
    );
  const fabrics = plies.map((ply) => ply.fabric);
  const pressure =
    targetFraction === null
      ? targetPressure
      : pressureForFraction(fabrics, targetFraction, availablePressure);
  let [xx, yy, xy, thickness, dryThickness, fibreWeight, pores, opened] = [0, 0, 0, 0, 0, 0, 0, 0];
  const layers = plies.map(({ fabric, angle }) => {
    const fraction = fractionUnderPressure(fabric, pressure, 'wet');
    const ply = fabric.arealWeight / (fabric.fibreDensity * fraction);
    const tensor = turned(permeabilityAt(fabric.permeability, fraction, fabric.name), angle);
    xx += tensor.xx * ply;
    yy += tensor.yy * ply;
    xy += tensor.xy * ply;
    thickness += ply;
    dryThickness += fabric.arealWeight / (fabric.fibreDensity * fractionUnderPressure(fabric, pressure));
    fibreWeight += fabric.arealWeight;
    pores += ply * (1 - fraction);
    opened += ply * (fraction / fractionUnloaded(fabric, pressure / 2, pressure) - 1);
    return { thickness: ply, fraction };
  });
  const lying = lyingFlow({
    flowMeshes: [...(request.flowMeshes ?? []), ...(request.under?.flowMeshes ?? [])],
    peelPlies: [...(request.peelPlies ?? []), ...(request.under?.peelPlies ?? [])],
  });
  const inCore = core ? coreUptake(core) : 0;
  const inSlits = core ? slitFlow(core) : 0;
  const plyFlow = (xx + yy) / 2;
  return {
    plies: layers,
    dryThickness,
    laminateThickness: thickness,
    thickness: thickness + (core?.thickness ?? 0),
    fibreVolumeFraction: meanFraction(fabrics, pressure),
    compactionPressure: pressure,
    fibreWeight,
    coreWeight: core ? core.thickness * core.density : 0,
    resinInPlies: pores,
    resinAsItOpens: opened,
    resinInConsumables: lying.storage,
    resinInCore: inCore,
    transmissibility: {
      xx: xx + lying.transmissibility + inSlits,
      yy: yy + lying.transmissibility + inSlits,
      xy,
    },
    storage: pores + lying.storage + inCore,
    meshShare: lying.transmissibility / (lying.transmissibility + plyFlow),
  };
}

/** Plies under the core, from the mould; all of them without a core. */
export function pliesUnderCore({ plies, core, pliesUnderCore }: StackRequest): number {
  if (!core) return plies.length;
  return Math.min(plies.length, pliesUnderCore ?? Math.floor(plies.length / 2));
}

/** In-plane permeability tensor of a ply laid at an angle, rad: R K R^T; m2. */
export function turned({ along, across }: Permeability, angle: number) {
  const [c, s] = [Math.cos(angle), Math.sin(angle)];
  return {
    xx: along * c * c + across * s * s,
    yy: along * s * s + across * c * c,
    xy: (along - across) * c * s,
  };
}

/** What lies on plies carries in its plane, m3, stores, m, and resists through half of its meshes, 1/m. */
export function lyingFlow({ flowMeshes = [], peelPlies = [] }: Lying) {
  let [transmissibility, storage, resistance] = [0, 0, 0];
  for (const { name, thickness, porosity, permeability } of flowMeshes) {
    requirePositive(thickness, `Thickness of ${name}`, 'm');
    requirePositive(permeability, `Permeability of ${name}`, 'm2');
    requireFraction(porosity, `Porosity of ${name}`);
    transmissibility += thickness * permeability;
    storage += thickness * porosity;
    resistance += thickness / (2 * permeability);
  }
  for (const { resinUptake } of peelPlies) storage += resinUptake;
  return { transmissibility, storage, resistance };
}

function requireFabric({ name, arealWeight, fibreDensity, compaction }: Fabric) {
  requirePositive(arealWeight, `Areal weight of ${name}`, 'kg/m2');
  requirePositive(fibreDensity, `Fibre density of ${name}`, 'kg/m3');
  requireFraction(compaction.fractionAt100kPa, `Fibre volume fraction of ${name}`);
}
