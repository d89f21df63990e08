import type { Job } from '@wick/contract/job/job';

/** One thing in which two versions of a job differ, in words: "Lines, layout A › Feed 2: points". */
export interface Difference {
  readonly where: string;
  readonly what: string;
}

/** What the parts of a document are called. */
const words: Readonly<Record<string, string>> = {
  name: 'name',
  process: 'process',
  part: 'part',
  outline: 'outline',
  holes: 'holes',
  rise: 'slope',
  flange: 'flange',
  features: 'rises and corners',
  mould: 'mould',
  prep: 'mould before the first ply',
  releaseId: 'release',
  gelCoat: 'gel coat',
  barrier: 'skin coat',
  passes: 'passes',
  film: 'film',
  showFace: 'show face',
  laminate: 'laminate',
  plies: 'plies',
  coreId: 'core',
  pliesUnderCore: 'place of the core',
  fibreVolumeFraction: 'fibre volume',
  compactionPressure: 'compaction pressure',
  zones: 'zones',
  layouts: 'layouts',
  currentLayoutId: 'layout worked on',
  lines: 'lines',
  tees: 'tees',
  stations: 'pots and pumps',
  covers: 'what it covers',
  except: 'where it is left off',
  lap: 'laps',
  side: 'side',
  uses: 'uses',
  brakes: 'brakes',
  actions: 'actions',
  points: 'place',
  place: 'place',
  marks: 'marks',
  resin: 'resin',
  materialId: 'system',
  temperature: 'temperature',
  mouldTemperature: 'mould temperature',
  cureTemperature: 'cure temperature',
  bondFace: 'face that is bonded',
  sections: 'sections of the bag',
  drift: 'warming',
  batches: 'batches',
  mixDuration: 'mixing',
  degasDuration: 'degassing',
  hoseFillDuration: 'filling the hose',
  hoseLength: 'hose length',
  hoseBore: 'bore of the hose',
  heel: 'heel in the pot',
  reserve: 'reserve',
  vacuum: 'vacuum',
  ventPressure: 'pressure at the vent',
  ventSpread: 'doubt of the pressure at the vent',
  pumpId: 'pump',
  potId: 'catch pot',
  hasCheckValve: 'check valve',
  isStructural: 'part that carries load',
  forecast: 'forecast',
  layers: 'layers',
  soft: 'soft laminate',
  nodeCount: 'fineness',
  doubt: 'doubt',
  materials: 'materials',
};

const isObject = (value: unknown): value is Record<string, unknown> =>
  typeof value === 'object' && value !== null;
const hasIds = (list: readonly unknown[]): list is readonly { id: string }[] =>
  list.length > 0 && list.every((item) => isObject(item) && typeof item.id === 'string');

const titleOf = (item: unknown): string => {
  if (!isObject(item)) return '';
  if (typeof item.letter === 'string') return `layout ${item.letter}`;
  if (typeof item.name === 'string' && item.name !== '') return item.name;
  return typeof item.materialId === 'string' ? `ply of ${item.materialId}` : '';
};

/** Everything in which two versions differ; none for equal ones. Things with an id are compared each with itself. */
export function differencesOf(mine: Job, theirs: Job): Difference[] {
  return compare(mine, theirs, []);
}

function compare(a: unknown, b: unknown, path: readonly string[]): Difference[] {
  if (Object.is(a, b)) return [];
  if (Array.isArray(a) && Array.isArray(b)) return compareLists(a, b, path);
  if (isObject(a) && isObject(b) && !Array.isArray(a) && !Array.isArray(b)) {
    const keys = new Set([...Object.keys(a), ...Object.keys(b)]);
    return [...keys].flatMap((key) => compare(a[key], b[key], [...path, words[key] ?? key]));
  }
  return [told(path)];
}

function compareLists(a: readonly unknown[], b: readonly unknown[], path: readonly string[]): Difference[] {
  if (!(hasIds(a) || a.length === 0) || !(hasIds(b) || b.length === 0))
    return JSON.stringify(a) === JSON.stringify(b) ? [] : [told(path)];
  const [mine, theirs] = [a, b] as readonly (readonly { id: string }[])[];
  const other = new Map(theirs!.map((item) => [item.id, item]));
  const own = new Map(mine!.map((item) => [item.id, item]));
  const inBoth = mine!.filter(({ id }) => other.has(id));
  const order = theirs!.filter(({ id }) => own.has(id));
  return [
    ...mine!.flatMap((item) => (other.has(item.id) ? [] : [told(path, `${titleOf(item)} only here`.trim())])),
    ...theirs!.flatMap((item) =>
      own.has(item.id) ? [] : [told(path, `${titleOf(item)} only there`.trim())],
    ),
    ...(inBoth.some(({ id }, i) => order[i]!.id !== id) ? [told(path, 'another order')] : []),
    ...inBoth.flatMap((item) => compare(item, other.get(item.id), [...path, titleOf(item)].filter(Boolean))),
  ];
}

function told(path: readonly string[], what?: string): Difference {
  const last = path.length > 0 ? path[path.length - 1]! : 'everything';
  const where = what === undefined ? path.slice(0, -1) : path;
  return { where: where.join(' › '), what: what ?? last };
}
