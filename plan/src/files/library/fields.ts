import type { QuantityName } from '@wick/core/units/quantities';
import type { Material, MaterialKind } from '@wick/contract/materials';

/** One value of a library entry: where it stands in the entry, what it is called, and in what it is measured. */
export interface Field {
  /** "permeability.along" */
  readonly path: string;
  readonly label: string;
  /** None for a choice of words. */
  readonly quantity?: QuantityName;
  readonly choices?: readonly string[];
  /** May be left blank: nobody has said. */
  readonly optional?: boolean;
}

export const kindNames: Record<MaterialKind, string> = {
  fabric: 'Fabrics',
  core: 'Cores',
  flowMesh: 'Flow meshes',
  film: 'Films',
  peelPly: 'Peel plies',
  bleeder: 'Bleeders',
  line: 'Lines',
  hose: 'Hoses',
  tape: 'Tapes',
  resin: 'Resins',
  pump: 'Pumps',
  pot: 'Pots',
  fitting: 'Fittings',
  sundry: 'Sundries',
};
export const kinds = Object.keys(kindNames) as MaterialKind[];

const roll: Field[] = [
  { path: 'rollWidth', label: 'Roll width', quantity: 'length', optional: true },
  { path: 'rollLength', label: 'Roll length', quantity: 'length', optional: true },
];
/** What it costs, and what lies on the shelf, in what it is sold by. */
const per = (what: string): Field[] => [
  { path: 'price', label: `Price per ${what}`, quantity: 'number', optional: true },
  { path: 'stock.amount', label: `In stock, ${what}`, quantity: 'number', optional: true },
  { path: 'stock.minimum', label: `Order below, ${what}`, quantity: 'number', optional: true },
];
const sheetWeight: Field = {
  path: 'arealWeight',
  label: 'Areal weight',
  quantity: 'arealWeight',
  optional: true,
};
const uses: Field = { path: 'uses', label: 'Serves parts', quantity: 'number', optional: true };
const heat: Field = { path: 'maxTemperature', label: 'Up to', quantity: 'temperature', optional: true };
const coil: Field = { path: 'coilLength', label: 'Coil', quantity: 'length', optional: true };

/**
 * The single values of each kind, for tables, forms and spreadsheet columns. Lists (points of a resin) and models
 * are not here: they have panels of their own, and travel in the sheets under their paths.
 */
export const fields: Record<MaterialKind, readonly Field[]> = {
  fabric: [
    { path: 'arealWeight', label: 'Areal weight', quantity: 'arealWeight' },
    { path: 'fibreDensity', label: 'Fibre density', quantity: 'density' },
    { path: 'compaction.fractionAt100kPa', label: 'Fibre at 1 bar', quantity: 'fraction' },
    { path: 'compaction.exponent', label: 'Exponent', quantity: 'number' },
    { path: 'permeability.fraction', label: 'Permeability at', quantity: 'fraction', optional: true },
    { path: 'permeability.along', label: 'along', quantity: 'permeability', optional: true },
    { path: 'permeability.across', label: 'across', quantity: 'permeability', optional: true },
    { path: 'permeability.through', label: 'through', quantity: 'permeability', optional: true },
    ...roll,
    ...per('m²'),
  ],
  core: [
    { path: 'thickness', label: 'Thickness', quantity: 'thickness' },
    { path: 'density', label: 'Density', quantity: 'density' },
    { path: 'resinUptake', label: 'Resin taken, per area', quantity: 'thickness', optional: true },
    { path: 'holes.diameter', label: 'Holes', quantity: 'thickness', optional: true },
    { path: 'holes.spacing', label: 'Hole spacing', quantity: 'thickness', optional: true },
    { path: 'slits.width', label: 'Slits', quantity: 'thickness', optional: true },
    { path: 'slits.spacing', label: 'Slit spacing', quantity: 'thickness', optional: true },
    { path: 'slits.depth', label: 'Slit depth', quantity: 'fraction', optional: true },
    { path: 'cells', label: 'Cells', choices: ['open', 'closed'], optional: true },
    { path: 'sheetLength', label: 'Sheet length', quantity: 'length', optional: true },
    { path: 'sheetWidth', label: 'Sheet width', quantity: 'length', optional: true },
    ...per('m²'),
  ],
  flowMesh: [
    { path: 'thickness', label: 'Thickness, pressed', quantity: 'thickness' },
    { path: 'porosity', label: 'Open share', quantity: 'fraction' },
    { path: 'permeability', label: 'Permeability', quantity: 'permeability' },
    sheetWeight,
    heat,
    ...roll,
    uses,
    ...per('m²'),
  ],
  film: [
    { path: 'use', label: 'Use', choices: ['bag', 'release', 'perforated'] },
    { path: 'thickness', label: 'Thickness', quantity: 'thickness' },
    { path: 'holes.diameter', label: 'Holes', quantity: 'thickness', optional: true },
    { path: 'holes.spacing', label: 'Hole spacing', quantity: 'thickness', optional: true },
    { path: 'strength', label: 'Strength at yield', quantity: 'stress', optional: true },
    { path: 'elongation', label: 'Strain at break', quantity: 'fraction', optional: true },
    sheetWeight,
    heat,
    ...roll,
    uses,
    ...per('m²'),
  ],
  peelPly: [
    { path: 'resinUptake', label: 'Resin taken, per area', quantity: 'thickness' },
    { path: 'thickness', label: 'Thickness, pressed', quantity: 'thickness', optional: true },
    { path: 'through', label: 'Permeability through', quantity: 'permeability', optional: true },
    { path: 'finish', label: 'Finish', choices: ['coated', 'uncoated'], optional: true },
    sheetWeight,
    heat,
    ...roll,
    ...per('m²'),
  ],
  bleeder: [
    { path: 'arealWeight', label: 'Areal weight', quantity: 'arealWeight' },
    { path: 'resinUptake', label: 'Resin held, per area', quantity: 'thickness' },
    { path: 'use', label: 'Use', choices: ['bleeder', 'breather'], optional: true },
    { path: 'thickness', label: 'Thickness, pressed', quantity: 'thickness', optional: true },
    heat,
    ...roll,
    uses,
    ...per('m²'),
  ],
  line: [
    { path: 'form', label: 'Form', choices: ['spiral', 'profile', 'tube', 'loop'] },
    { path: 'bore', label: 'Bore', quantity: 'length' },
    heat,
    coil,
    uses,
    ...per('m'),
  ],
  hose: [
    { path: 'bore', label: 'Bore', quantity: 'length' },
    { path: 'wall', label: 'Wall', quantity: 'thickness', optional: true },
    heat,
    coil,
    ...per('m'),
  ],
  tape: [
    { path: 'tapeWidth', label: 'Width', quantity: 'length' },
    { path: 'thickness', label: 'Thickness', quantity: 'thickness' },
    heat,
    { path: 'use', label: 'Use', choices: ['sealant', 'double', 'flash'], optional: true },
    { path: 'rollLength', label: 'Roll', quantity: 'length', optional: true },
    ...per('m'),
  ],
  resin: [
    { path: 'density', label: 'Density', quantity: 'density' },
    { path: 'hardenerParts', label: 'Hardener to 100 by weight', quantity: 'number' },
    { path: 'hardenerVolumeParts', label: 'Hardener to 100 by volume', quantity: 'number', optional: true },
    { path: 'resinDensity', label: 'Density of the resin alone', quantity: 'density', optional: true },
    { path: 'hardenerDensity', label: 'Density of the hardener alone', quantity: 'density', optional: true },
    { path: 'gelMass', label: 'Gel times are of a pot of (0: thin film)', quantity: 'mass', optional: true },
    { path: 'chemistry', label: 'Cures as', choices: ['amine', 'radical'], optional: true },
    { path: 'gelViscosityRatio', label: 'Thickens to gel by', quantity: 'factor', optional: true },
    ...per('kg'),
    { path: 'cureHeat', label: 'Heat of the whole cure, J/kg', quantity: 'number', optional: true },
    { path: 'demould.opens', label: 'Demould from, after the mix', quantity: 'duration', optional: true },
    { path: 'demould.temperature', label: 'that at', quantity: 'temperature', optional: true },
    { path: 'recoat.opens', label: 'Recoat from, after the mix', quantity: 'duration', optional: true },
    { path: 'recoat.closes', label: 'Recoat until', quantity: 'duration', optional: true },
    { path: 'recoat.temperature', label: 'that at', quantity: 'temperature', optional: true },
    { path: 'bond.opens', label: 'Bond from, after the mix', quantity: 'duration', optional: true },
    { path: 'bond.closes', label: 'Bond until', quantity: 'duration', optional: true },
    { path: 'bond.temperature', label: 'that at', quantity: 'temperature', optional: true },
    { path: 'glass.fresh', label: 'Glass transition, fresh mix', quantity: 'temperature', optional: true },
    { path: 'glass.full', label: 'fully cured', quantity: 'temperature', optional: true },
    { path: 'glass.lambda', label: 'bend between, 0 to 1', quantity: 'number', optional: true },
  ],
  pump: [
    { path: 'ultimatePressure', label: 'Pulls down to', quantity: 'absolutePressure' },
    { path: 'flowRate', label: 'Free air', quantity: 'flowRate' },
  ],
  pot: [
    { path: 'use', label: 'Use', choices: ['mixing', 'feed', 'catch'] },
    { path: 'capacity', label: 'Holds', quantity: 'volume' },
    ...per('piece'),
  ],
  fitting: [
    { path: 'use', label: 'Use', choices: ['through', 'tee', 'joint', 'clamp', 'valve'] },
    heat,
    uses,
    ...per('piece'),
  ],
  sundry: [
    { path: 'use', label: 'Use', choices: ['gloves', 'cup', 'stick', 'brush', 'other'] },
    uses,
    ...per('piece'),
  ],
};

/** A copy with the value at a path; null takes away an optional value, and its group once that is empty. */
export function withValue<T extends object>(entry: T, path: string, value: unknown): T {
  const [key, ...rest] = path.split('.') as [string, ...string[]];
  const old = (entry as Record<string, unknown>)[key];
  if (rest.length === 0) return { ...entry, [key]: value };
  const group = withValue(typeof old === 'object' && old !== null ? old : {}, rest.join('.'), value);
  const isEmpty = Object.values(group).every((item) => item === null || item === undefined);
  return { ...entry, [key]: isEmpty ? null : group };
}

/** A small new entry of a kind to start from: typical of it, and marked as unproven. */
export function blankOf(kind: MaterialKind, id: string): Material {
  const entry = { id, name: 'New entry', source: 'Typical of its kind; not measured' };
  switch (kind) {
    case 'fabric':
      return {
        ...entry,
        kind,
        arealWeight: 0.3,
        fibreDensity: 2550,
        compaction: { fractionAt100kPa: 0.5, exponent: 0.05 },
        permeability: { fraction: 0.5, along: 5e-11, across: 5e-11 },
      };
    case 'core':
      return { ...entry, kind, thickness: 0.01, density: 80, resinUptake: null };
    case 'flowMesh':
      return { ...entry, kind, thickness: 1e-3, porosity: 0.85, permeability: 4e-9 };
    case 'film':
      return { ...entry, kind, use: 'bag', thickness: 50e-6 };
    case 'peelPly':
      return { ...entry, kind, resinUptake: 8e-5 };
    case 'bleeder':
      return { ...entry, kind, arealWeight: 0.15, resinUptake: 1e-3 };
    case 'line':
      return { ...entry, kind, form: 'spiral', bore: 0.012 };
    case 'hose':
      return { ...entry, kind, bore: 0.01 };
    case 'tape':
      return { ...entry, kind, tapeWidth: 0.012, thickness: 3e-3 };
    case 'resin':
      return {
        ...entry,
        kind,
        density: 1120,
        viscosityPoints: [{ temperature: 293.15, viscosity: 0.35 }],
        gelPoints: [{ temperature: 293.15, time: 5400 }],
        gelViscosityRatio: null,
        hardenerParts: 30,
      };
    case 'pump':
      return { ...entry, kind, ultimatePressure: 200, flowRate: 8 / 3600 };
    case 'pot':
      return { ...entry, kind, use: 'mixing', capacity: 0.01 };
    case 'fitting':
      return { ...entry, kind, use: 'through' };
    case 'sundry':
      return { ...entry, kind, use: 'other' };
  }
}
