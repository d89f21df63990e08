import type { Material } from '@wick/contract/materials';

const source = 'Demo value, typical of the kind; invented for this workshop';
const celsius = (t: number) => t + 273.15;
const degrees = (angle: number) => (angle * Math.PI) / 180;
const minutes = (t: number) => 60 * t;

/** Invented library of the Oxbow Lane Workshop. */
export const demoMaterials: Material[] = [
  {
    id: 'quad-glass-850', kind: 'fabric', price: 6.4, name: 'Quad glass 850', source, arealWeight: 0.85, fibreDensity: 2550,
    rollWidth: 1.27, rollLength: 50, directions: [0, degrees(45), degrees(90), degrees(-45)],
    compaction: { fractionAt100kPa: 0.53, exponent: 0.05, unloadingExponent: 0.02 },
    permeability: { fraction: 0.52, along: 4e-11, across: 3e-11, through: 3e-12 },
    about: { 'permeability.along': { doubt: 0.4, source: 'Invented strip test' } },
  },
  {
    id: 'biax-glass-600', kind: 'fabric', price: 5.2, name: 'Biax glass 600', source, arealWeight: 0.6, fibreDensity: 2550,
    rollWidth: 1.27, rollLength: 50, directions: [degrees(45), degrees(-45)],
    compaction: { fractionAt100kPa: 0.54, exponent: 0.05 },
    permeability: { fraction: 0.52, along: 5e-11, across: 5e-11 },
    about: { 'permeability.along': { doubt: 0.4, source: 'Invented strip test' } },
  },
  {
    id: 'woven-glass-300', kind: 'fabric', price: 3.6, name: 'Woven glass 300', source, arealWeight: 0.3, fibreDensity: 2550,
    rollWidth: 1.0, rollLength: 50, directions: [0, degrees(90)],
    compaction: { fractionAt100kPa: 0.51, exponent: 0.06 },
    permeability: { fraction: 0.5, along: 6e-11, across: 5e-11 },
    about: { 'permeability.along': { doubt: 0.4, source: 'Invented strip test' } },
  },
  {
    id: 'chopped-mat-450', kind: 'fabric', price: 1.9, name: 'Chopped mat 450', source, arealWeight: 0.45, fibreDensity: 2550,
    rollWidth: 1.25, rollLength: 50, directions: [],
    compaction: { fractionAt100kPa: 0.28, exponent: 0.12 },
    permeability: { fraction: 0.25, along: 8e-10, across: 8e-10 },
    about: { 'permeability.along': { doubt: 0.4, source: 'Invented strip test' } },
  },
  {
    id: 'twill-carbon-200', kind: 'fabric', price: 24, name: 'Twill carbon 200', source, arealWeight: 0.2, fibreDensity: 1790,
    rollWidth: 1.0, rollLength: 50, directions: [0, degrees(90)],
    compaction: { fractionAt100kPa: 0.52, exponent: 0.05 },
    permeability: { fraction: 0.5, along: 3e-11, across: 2.5e-11 },
    about: { 'permeability.along': { doubt: 0.4, source: 'Invented strip test' } },
  },
  {
    id: 'uni-carbon-300', kind: 'fabric', price: 27, name: 'Uni carbon 300', source, arealWeight: 0.3, fibreDensity: 1790,
    rollWidth: 0.6, rollLength: 50, directions: [0],
    compaction: { fractionAt100kPa: 0.55, exponent: 0.04 },
    permeability: { fraction: 0.54, along: 2e-11, across: 6e-12 },
    about: { 'permeability.along': { doubt: 0.4, source: 'Invented strip test' } },
  },
  { id: 'mesh-fine', kind: 'flowMesh', name: 'Knit mesh fine', source, thickness: 0.9e-3, porosity: 0.8, permeability: 2.1e-9, rollWidth: 1.2, about: { permeability: { doubt: 0.3, source: 'Invented strip test, three runs' } }, arealWeight: 0.13, price: 2.4, maxTemperature: celsius(120) },
  { id: 'mesh-open', kind: 'flowMesh', name: 'Net mesh open', source, thickness: 1.2e-3, porosity: 0.86, permeability: 7.5e-9, rollWidth: 1.5, about: { permeability: { doubt: 0.3, source: 'Invented strip test, two runs' } }, arealWeight: 0.16, price: 1.9, maxTemperature: celsius(80) },
  {
    id: 'foam-15', kind: 'core', price: 16, name: 'Foam 15 mm, holed', source, thickness: 0.015, density: 80, resinUptake: 3e-4,
    holes: { diameter: 0.0025, spacing: 0.016 }, sheetLength: 2.44, sheetWidth: 1.22,
  },
  { id: 'foam-10', kind: 'core', price: 12, name: 'Foam 10 mm, slit', source, thickness: 0.01, density: 60, resinUptake: null, slits: { width: 0.001, spacing: 0.03, depth: 0.8 }, sheetLength: 2.4, sheetWidth: 1.2 },
  { id: 'foam-5', kind: 'core', price: 9, name: 'Foam 5 mm, closed', source, thickness: 0.005, density: 90, resinUptake: 1e-4, sheetLength: 1.2, sheetWidth: 0.8 },
  { id: 'honeycomb-12', kind: 'core', name: 'Paper honeycomb 12 mm', source, thickness: 0.012, density: 48, resinUptake: 2e-4, cells: 'open', sheetLength: 2.5, sheetWidth: 1.25, price: 17 },
  { id: 'peel-nylon', kind: 'peelPly', name: 'Peel ply nylon 85', source, resinUptake: 8e-5, rollWidth: 1.5, finish: 'uncoated', arealWeight: 0.085, price: 3.1, stock: { amount: 1.5, minimum: 10 }, maxTemperature: celsius(180) },
  { id: 'peel-coated', kind: 'peelPly', name: 'Peel ply coated', source, resinUptake: 5e-5, rollWidth: 1.5, finish: 'coated', arealWeight: 0.09, price: 4.2, maxTemperature: celsius(180) },
  { id: 'bag-film-50', kind: 'film', name: 'Bag film 50', source, use: 'bag', thickness: 50e-6, maxTemperature: celsius(120), rollWidth: 2, rollLength: 100, strength: 35e6, elongation: 4, arealWeight: 0.057, price: 1.1 },
  { id: 'release-film-25', kind: 'film', name: 'Release film 25', source, use: 'release', thickness: 25e-6, maxTemperature: celsius(180), rollWidth: 1.5, arealWeight: 0.055, price: 3.4 },
  { id: 'perforated-film-p1', kind: 'film', name: 'Perforated film P1', source, use: 'perforated', thickness: 25e-6, maxTemperature: celsius(150), rollWidth: 1.5, arealWeight: 0.023, price: 1.6 },
  { id: 'breather-150', kind: 'bleeder', name: 'Breather felt 150', source, arealWeight: 0.15, resinUptake: 0.6e-3, maxTemperature: celsius(180), rollWidth: 1.5, use: 'breather', thickness: 0.6e-3, price: 1.2 },
  { id: 'breather-300', kind: 'bleeder', name: 'Breather felt 300', source, arealWeight: 0.3, resinUptake: 1.2e-3, maxTemperature: celsius(180), rollWidth: 1.5, use: 'bleeder', thickness: 1.2e-3, price: 1.9 },
  { id: 'spiral-12', kind: 'line', name: 'Spiral line 12', source, form: 'spiral', bore: 0.012, coilLength: 30, price: 0.6 },
  { id: 'profile-15', kind: 'line', name: 'Profile line 15', source, form: 'profile', bore: 0.015, coilLength: 25, uses: 40, price: 9 },
  { id: 'loop-10', kind: 'line', name: 'Loop line 10', source, form: 'loop', bore: 0.01, coilLength: 20, uses: 15, price: 6, maxTemperature: celsius(150) },
  { id: 'hose-12', kind: 'hose', name: 'Clear hose 12', source, bore: 0.012, wall: 2e-3, maxTemperature: celsius(60), coilLength: 50, price: 1.4 },
  { id: 'hose-8', kind: 'hose', name: 'Clear hose 8', source, bore: 0.008, wall: 2e-3, maxTemperature: celsius(60), coilLength: 50, price: 0.9 },
  { id: 'tape-yellow', kind: 'tape', name: 'Sealant tape 12', source, tapeWidth: 0.012, thickness: 3e-3, maxTemperature: celsius(120), rollLength: 15, use: 'sealant', price: 0.55, stock: { amount: 60, minimum: 30 } },
  { id: 'tape-double', kind: 'tape', name: 'Double-sided tape 25', source, tapeWidth: 0.025, thickness: 0.2e-3, use: 'double', maxTemperature: celsius(90), rollLength: 50, price: 0.2 },
  { id: 'tape-flash', kind: 'tape', name: 'Flash tape 25', source, tapeWidth: 0.025, thickness: 0.06e-3, use: 'flash', maxTemperature: celsius(200), rollLength: 66, price: 0.35 },
  { id: 'bag-film-70', kind: 'film', name: 'Bag film 70, hot', source, use: 'bag', thickness: 70e-6, maxTemperature: celsius(200), rollWidth: 3, rollLength: 60, strength: 40e6, elongation: 3.5, arealWeight: 0.08, price: 2.2 },
  { id: 'fitting-through', kind: 'fitting', name: 'Bag fitting, quarter turn', source, use: 'through', uses: 200, price: 28 },
  { id: 'fitting-tee', kind: 'fitting', name: 'Hose tee 12', source, use: 'tee', price: 0.8 },
  { id: 'fitting-clamp', kind: 'fitting', name: 'Hose clamp', source, use: 'clamp', uses: 100, price: 3.5 },
  { id: 'gloves', kind: 'sundry', name: 'Nitrile gloves, pair', source, use: 'gloves', price: 0.3 },
  { id: 'mix-cup', kind: 'sundry', name: 'Measuring cup 1 L', source, use: 'cup', price: 0.6 },
  { id: 'stir-stick', kind: 'sundry', name: 'Stirring stick', source, use: 'stick', price: 0.1 },
  { id: 'pump-small', kind: 'pump', name: 'Pump, small oil-filled', source, ultimatePressure: 50, flowRate: 8 / 3600 },
  { id: 'pump-dry', kind: 'pump', name: 'Pump, dry vane', source, ultimatePressure: 12000, flowRate: 16 / 3600 },
  { id: 'bucket-10', kind: 'pot', name: 'Mixing bucket 10 L', source, use: 'mixing', capacity: 0.01, price: 2.5 },
  { id: 'bucket-3', kind: 'pot', name: 'Mixing bucket 3 L', source, use: 'mixing', capacity: 0.003, price: 1.2 },
  { id: 'feed-pot-5', kind: 'pot', name: 'Feed pot 5 L', source, use: 'feed', capacity: 0.005, price: 3.5 },
  { id: 'catch-pot-5', kind: 'pot', name: 'Catch pot 5 L', source, use: 'catch', capacity: 0.005, price: 180 },
  {
    id: 'epoxy-slow-s3', kind: 'resin', price: 14, name: 'Epoxy slow S3', source, resinDensity: 1160, hardenerDensity: 970, hardenerVolumeParts: 35.9, density: 1130, hardenerParts: 30, chemistry: 'amine', gelViscosityRatio: 18, gelMass: 0.15,
    viscosityPoints: [
      { temperature: celsius(15), viscosity: 0.52 },
      { temperature: celsius(20), viscosity: 0.36 },
      { temperature: celsius(25), viscosity: 0.26 },
      { temperature: celsius(30), viscosity: 0.19 },
    ],
    gelPoints: [
      { temperature: celsius(15), time: minutes(190) },
      { temperature: celsius(20), time: minutes(130) },
      { temperature: celsius(25), time: minutes(92) },
      { temperature: celsius(30), time: minutes(66) },
    ],
  },
  {
    id: 'epoxy-mid-s2', kind: 'resin', price: 14, name: 'Epoxy medium S2', source, resinDensity: 1160, hardenerDensity: 960, density: 1130, hardenerParts: 28, chemistry: 'amine', gelViscosityRatio: 18, gelMass: 0.15,
    cureHeat: 450000, demould: { opens: minutes(24 * 60), temperature: celsius(22) }, recoat: { opens: minutes(3 * 60), closes: minutes(24 * 60), temperature: celsius(22) },
    viscosityPoints: [
      { temperature: celsius(20), viscosity: 0.33 },
      { temperature: celsius(30), viscosity: 0.18 },
    ],
    gelPoints: [
      { temperature: celsius(20), time: minutes(70) },
      { temperature: celsius(30), time: minutes(36) },
    ],
  },
  {
    id: 'epoxy-long-s5', kind: 'resin', price: 14, name: 'Epoxy extra slow S5', source, resinDensity: 1150, hardenerDensity: 950, hardenerVolumeParts: 40, density: 1120, hardenerParts: 33, hardenerWindow: { below: 0.02, above: 0.02 },
    lots: [
      { id: 's5-r-1', part: 'resin', number: 'R5-2603', expires: '2027-08-31', mass: 25, storeTemperature: celsius(6), care: 'roll' },
      { id: 's5-h-1', part: 'hardener', number: 'H5-2611', expires: '2026-09-30', mass: 10, storeTemperature: null, care: 'plain' },
      { id: 's5-h-2', part: 'hardener', number: 'H5-2702', expires: '2028-02-28', mass: 10, storeTemperature: null, care: 'plain' },
    ],
    chemistry: 'amine', gelViscosityRatio: 18, gelMass: 0.15,
    cureHeat: 440000, demould: { opens: minutes(48 * 60), temperature: celsius(22) }, recoat: { opens: minutes(10 * 60), closes: minutes(48 * 60), temperature: celsius(22) },
    viscosityPoints: [
      { temperature: celsius(20), viscosity: 0.38 },
      { temperature: celsius(30), viscosity: 0.2 },
    ],
    gelPoints: [
      { temperature: celsius(20), time: minutes(290) },
      { temperature: celsius(30), time: minutes(150) },
    ],
  },
  {
    id: 'polyester-p2', kind: 'resin', price: 4.5, name: 'Polyester P2, peroxide', source, resinDensity: 1090, hardenerDensity: 1160, density: 1090, hardenerParts: 1.5, chemistry: 'radical', gelViscosityRatio: null,
    viscosityPoints: [
      { temperature: celsius(15), viscosity: 0.24 },
      { temperature: celsius(25), viscosity: 0.16 },
    ],
    gelPoints: [],
    gelTable: {
      catalyst: [1, 1.5, 2],
      temperature: [celsius(15), celsius(20), celsius(25)],
      time: [
        [minutes(95), minutes(70), minutes(52)],
        [minutes(68), minutes(50), minutes(37)],
        [minutes(52), minutes(38), minutes(28)],
      ],
    },
  },
  {
    id: 'epoxy-kinetic-k1', kind: 'resin', price: 14, name: 'Epoxy K1, warm cure', source, density: 1140, hardenerParts: 34, gelViscosityRatio: null,
    viscosityPoints: [],
    gelPoints: [],
    kinetics: {
      A1: 6e4, E1: 56000, A2: 5e5, E2: 54000, m: 0.5, n: 1.5, gelConversion: 0.6,
      viscosityA: 1.6e-9, viscosityE: 47000, B: 1.5, C: 1,
    },
    heatToGel: 230000,
  },
  {
    id: 'vinyl-ester-v1', kind: 'resin', price: 7.5, name: 'Vinyl ester V1, 1.2 % catalyst', source, resinDensity: 1060, hardenerDensity: 1160, density: 1060, hardenerParts: 1.2, chemistry: 'radical', gelViscosityRatio: null, gelMass: 0,
    cureHeat: 340000, demould: { opens: minutes(8 * 60), temperature: celsius(20) }, recoat: { opens: minutes(90), closes: minutes(24 * 60), temperature: celsius(20) },
    viscosityPoints: [
      { temperature: celsius(18), viscosity: 0.26 },
      { temperature: celsius(25), viscosity: 0.195 },
    ],
    gelPoints: [
      { temperature: celsius(18), time: minutes(56) },
      { temperature: celsius(25), time: minutes(38) },
    ],
  },
];
