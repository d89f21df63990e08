/**
 * The one table of quantities and the units this trade writes them in.
 * SI value = typed value * factor + offset. Factors: NIST SP 811 appendix B.8.
 */
export interface Unit {
  readonly symbol: string;
  readonly aliases?: readonly string[];
  readonly factor: number;
  readonly offset?: number;
  /** Decimal places that make sense when the value is shown. */
  readonly decimals: number;
}

export interface Quantity {
  readonly label: string;
  readonly units: readonly Unit[];
  /** Unit a new shop starts with. */
  readonly usual: string;
  readonly example: string;
}

const INCH = 0.0254;
const POUND = 0.45359237;
const INHG = 3386.389;
const TORR = 133.3224;
const PSI = 6894.757;

const pressureUnits: readonly Unit[] = [
  { symbol: 'mbar', aliases: ['hpa', 'millibar'], factor: 100, decimals: 1 },
  { symbol: 'inHg', aliases: ['in hg', 'inches hg', '"hg'], factor: INHG, decimals: 1 },
  { symbol: 'kPa', factor: 1000, decimals: 2 },
  { symbol: 'Pa', factor: 1, decimals: 0 },
  { symbol: 'Torr', aliases: ['mmhg'], factor: TORR, decimals: 1 },
  { symbol: 'psi', factor: PSI, decimals: 2 },
  { symbol: 'bar', factor: 1e5, decimals: 4 },
];

export const quantities = {
  length: {
    label: 'length',
    units: [
      { symbol: 'mm', factor: 1e-3, decimals: 1 },
      { symbol: 'm', factor: 1, decimals: 3 },
      { symbol: 'cm', factor: 1e-2, decimals: 1 },
      { symbol: 'in', aliases: ['inch', 'inches', '"'], factor: INCH, decimals: 2 },
      { symbol: 'ft', aliases: ['foot', 'feet', "'"], factor: 12 * INCH, decimals: 3 },
      { symbol: 'mil', aliases: ['thou', 'mils'], factor: INCH / 1000, decimals: 1 },
    ],
    usual: 'mm',
    example: '1200 mm, 3 ft 11 in or 1/32 in',
  },
  thickness: {
    label: 'thickness',
    units: [
      { symbol: 'mm', factor: 1e-3, decimals: 2 },
      { symbol: 'in', aliases: ['inch', 'inches', '"'], factor: INCH, decimals: 4 },
      { symbol: 'mil', aliases: ['thou', 'mils'], factor: INCH / 1000, decimals: 1 },
      { symbol: 'µm', aliases: ['um', 'micron', 'microns'], factor: 1e-6, decimals: 0 },
      { symbol: 'm', factor: 1, decimals: 5 },
    ],
    usual: 'mm',
    example: '0.79mm or 31 mil',
  },
  area: {
    label: 'area',
    units: [
      { symbol: 'm²', aliases: ['m2', 'sqm'], factor: 1, decimals: 2 },
      { symbol: 'ft²', aliases: ['ft2', 'sqft'], factor: 144 * INCH * INCH, decimals: 2 },
      { symbol: 'cm²', aliases: ['cm2'], factor: 1e-4, decimals: 0 },
    ],
    usual: 'm²',
    example: '2.4 m2',
  },
  arealWeight: {
    label: 'areal weight',
    units: [
      { symbol: 'g/m²', aliases: ['g/m2', 'gsm', 'g/sqm'], factor: 1e-3, decimals: 0 },
      { symbol: 'oz/yd²', aliases: ['oz/yd2', 'oz', 'osy', 'oz/sqyd'], factor: 0.03390575, decimals: 1 },
      { symbol: 'kg/m²', aliases: ['kg/m2'], factor: 1, decimals: 3 },
    ],
    usual: 'g/m²',
    example: '850 g/m2 or 12 oz/yd2',
  },
  absolutePressure: {
    label: 'absolute pressure',
    units: pressureUnits,
    usual: 'mbar',
    example: '20 mbar or 26 inHg vac',
  },
  stress: {
    label: 'strength',
    units: [
      { symbol: 'MPa', aliases: ['N/mm2', 'N/mm²'], factor: 1e6, decimals: 1 },
      { symbol: 'ksi', factor: 6.894757e6, decimals: 2 },
      { symbol: 'psi', factor: 6894.757, decimals: 0 },
      { symbol: 'Pa', factor: 1, decimals: 0 },
    ],
    usual: 'MPa',
    example: '35 MPa or 5000 psi',
  },
  gaugePressure: {
    label: 'vacuum below ambient',
    units: pressureUnits,
    usual: 'mbar',
    example: '26 inHg or 900 mbar',
  },
  temperature: {
    label: 'temperature',
    units: [
      { symbol: '°C', aliases: ['c', 'degc', 'celsius'], factor: 1, offset: 273.15, decimals: 1 },
      {
        symbol: '°F',
        aliases: ['f', 'degf', 'fahrenheit'],
        factor: 5 / 9,
        offset: 273.15 - 160 / 9,
        decimals: 1,
      },
      { symbol: 'K', aliases: ['kelvin'], factor: 1, decimals: 1 },
    ],
    usual: '°C',
    example: '21 C or 70 F',
  },
  temperatureDifference: {
    label: 'temperature difference',
    units: [
      { symbol: 'K', aliases: ['c', '°c', 'kelvin'], factor: 1, decimals: 1 },
      { symbol: '°F', aliases: ['f'], factor: 5 / 9, decimals: 1 },
    ],
    usual: 'K',
    example: '2 K or 4 F',
  },
  temperatureRate: {
    label: 'warming or cooling',
    units: [
      { symbol: 'K/h', aliases: ['k per h', 'c/h', '°c/h'], factor: 1 / 3600, decimals: 1 },
      { symbol: '°F/h', aliases: ['f/h'], factor: 5 / 9 / 3600, decimals: 1 },
    ],
    usual: 'K/h',
    example: '-2 K/h or -4 F/h',
  },
  viscosity: {
    label: 'viscosity',
    units: [
      { symbol: 'mPa·s', aliases: ['mpa s', 'mpas', 'mpa.s'], factor: 1e-3, decimals: 0 },
      { symbol: 'cP', aliases: ['cps', 'centipoise'], factor: 1e-3, decimals: 0 },
      { symbol: 'Pa·s', aliases: ['pa s', 'pas', 'pa.s'], factor: 1, decimals: 3 },
    ],
    usual: 'mPa·s',
    example: '300 mPa s or 300 cP',
  },
  mass: {
    label: 'mass',
    units: [
      { symbol: 'kg', factor: 1, decimals: 2 },
      { symbol: 'g', aliases: ['gram', 'grams'], factor: 1e-3, decimals: 0 },
      { symbol: 'oz', aliases: ['ounce', 'ounces'], factor: POUND / 16, decimals: 1 },
      { symbol: 'lb', aliases: ['lbs', 'pound', 'pounds'], factor: POUND, decimals: 2 },
    ],
    usual: 'kg',
    example: '1.4 kg or 3 lb 2 oz',
  },
  duration: {
    label: 'time',
    units: [
      { symbol: 'min', aliases: ['minute', 'minutes', 'm'], factor: 60, decimals: 1 },
      { symbol: 's', aliases: ['sec', 'second', 'seconds'], factor: 1, decimals: 0 },
      { symbol: 'h', aliases: ['hr', 'hour', 'hours'], factor: 3600, decimals: 2 },
    ],
    usual: 'min',
    example: '25 min or 1 h 30 min',
  },
  volume: {
    label: 'volume',
    units: [
      { symbol: 'L', aliases: ['l', 'liter', 'litre', 'liters', 'litres'], factor: 1e-3, decimals: 2 },
      { symbol: 'mL', aliases: ['ml', 'cc', 'cm3'], factor: 1e-6, decimals: 0 },
      { symbol: 'gal', aliases: ['gallon', 'gallons'], factor: 3.785412e-3, decimals: 2 },
      { symbol: 'fl oz', aliases: ['floz'], factor: 2.957353e-5, decimals: 1 },
      { symbol: 'm³', aliases: ['m3'], factor: 1, decimals: 4 },
    ],
    usual: 'L',
    example: '2.5 L or 85 fl oz',
  },
  flowRate: {
    label: 'flow rate',
    units: [
      { symbol: 'm³/h', aliases: ['m3/h'], factor: 1 / 3600, decimals: 1 },
      { symbol: 'L/min', aliases: ['l/min', 'lpm'], factor: 1e-3 / 60, decimals: 0 },
      { symbol: 'cfm', aliases: ['ft3/min', 'ft³/min'], factor: (12 * INCH) ** 3 / 60, decimals: 1 },
    ],
    usual: 'm³/h',
    example: '8 m3/h or 5 cfm',
  },
  density: {
    label: 'density',
    units: [
      { symbol: 'kg/m³', aliases: ['kg/m3'], factor: 1, decimals: 0 },
      { symbol: 'g/cm³', aliases: ['g/cm3', 'g/cc', 'kg/l', 'g/ml'], factor: 1000, decimals: 3 },
      { symbol: 'lb/gal', factor: POUND / 3.785412e-3, decimals: 2 },
    ],
    usual: 'kg/m³',
    example: '1150 kg/m3 or 1.15 g/cm3',
  },
  permeability: {
    label: 'permeability',
    units: [
      { symbol: 'm²', aliases: ['m2'], factor: 1, decimals: 14 },
      { symbol: 'darcy', aliases: ['d'], factor: 9.869233e-13, decimals: 1 },
    ],
    usual: 'm²',
    example: '2.1e-9 m2',
  },
  fraction: {
    label: 'fraction',
    units: [
      { symbol: '%', aliases: ['percent'], factor: 0.01, decimals: 1 },
      { symbol: '', factor: 1, decimals: 3 },
    ],
    usual: '%',
    example: '52 %',
  },
  factor: {
    label: 'factor',
    units: [{ symbol: '×', aliases: ['x', 'times'], factor: 1, decimals: 2 }],
    usual: '×',
    example: '1.4',
  },
  number: {
    label: 'number',
    units: [{ symbol: '', factor: 1, decimals: 4 }],
    usual: '',
    example: '0.05',
  },
  throughput: {
    label: 'leak',
    units: [
      { symbol: 'mbar L/s', aliases: ['mbar l/s', 'mbar*l/s'], factor: 0.1, decimals: 4 },
      { symbol: 'Pa m³/s', aliases: ['pa m3/s'], factor: 1, decimals: 5 },
    ],
    usual: 'mbar L/s',
    example: '0.07 mbar L/s',
  },
  soundLevel: {
    label: 'sound level',
    units: [{ symbol: 'dB', aliases: ['db', 'decibel'], factor: 1, decimals: 0 }],
    usual: 'dB',
    example: '46 dB',
  },
  angle: {
    label: 'angle',
    units: [
      { symbol: '°', aliases: ['deg', 'degrees'], factor: Math.PI / 180, decimals: 0 },
      { symbol: 'rad', factor: 1, decimals: 4 },
    ],
    usual: '°',
    example: '45 deg',
  },
} as const satisfies Record<string, Quantity>;

export type QuantityName = keyof typeof quantities;
export const quantityNames = Object.keys(quantities) as QuantityName[];

/** The table entry with its literal types widened. */
export function quantityOf(name: QuantityName): Quantity {
  return quantities[name];
}

/** Unit of a quantity by symbol; the quantity's usual unit when the symbol is unknown or missing. */
export function unitOf(name: QuantityName, symbol?: string): Unit {
  const { units, usual } = quantityOf(name);
  return units.find((unit) => unit.symbol === symbol) ?? units.find((unit) => unit.symbol === usual)!;
}
