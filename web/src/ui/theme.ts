type ColourName =
  'paper' | 'sheet' | 'ink' | 'quiet' | 'rule' | 'edge' | 'resin' | 'resinInk' | 'ember' | 'moss' | 'tide';

/** The colours of the program; the same names stand as CSS variables in styles.css. */
export const colours: Readonly<Record<ColourName, string>> = {
  paper: '#F6F3EC',
  sheet: '#FBFAF6',
  ink: '#1E2A2F',
  quiet: '#5C666A',
  rule: '#D9D3C5',
  edge: '#BDB6A6',
  resin: '#C77700',
  resinInk: '#8F5400',
  ember: '#B3261E',
  moss: '#3F6B4F',
  tide: '#1F6F78',
};

/** The same beside the mould, in the dark; they too stand in styles.css. */
export const nightColours: typeof colours = {
  paper: '#10181B',
  sheet: '#172226',
  ink: '#ECE5D5',
  quiet: '#9DA9A9',
  rule: '#2C393D',
  edge: '#53636A',
  resin: '#F2A93B',
  resinInk: '#F2A93B',
  ember: '#FF8272',
  moss: '#86C79A',
  tide: '#66C3CC',
};

/** Front colours from early to late; each step is darker than the one before, so it survives greyscale. */
const STRAW: [number, number, number] = [247, 234, 200];
const AMBER: [number, number, number] = [212, 146, 56];
const DARK: [number, number, number] = [64, 33, 20];

export function resinColour(share: number): string {
  const s = Math.max(0, Math.min(1, share));
  const [a, b, t] = s < 0.5 ? [STRAW, AMBER, s * 2] : [AMBER, DARK, s * 2 - 1];
  const mixed = a.map((v, i) => Math.round(v + (b[i]! - v) * t));
  return `rgb(${mixed.join(' ')})`;
}

/** Paper to one colour, darkening strictly. */
export function deepening(to: [number, number, number], share: number): string {
  const s = Math.max(0, Math.min(1, share));
  return `rgb(${to.map((v) => Math.round(246 + (v - 246) * (0.08 + 0.92 * s))).join(' ')})`;
}
