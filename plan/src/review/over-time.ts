import type { BookLine } from '@wick/contract/review';
import { controlChart, type ChartRule, type ControlChart } from '@wick/core/charts/control-chart';
import type { QuantityName } from '@wick/core/units/quantities';
import { writeCsv, type Cell } from '../files/csv.ts';
import { causes, type CauseId } from './causes/table.ts';
import { findingNames, outcomeNames } from './names.ts';

/** What is followed from part to part. */
export const measures = ['fill', 'fraction', 'weight', 'leak', 'findings'] as const;
export type Measure = (typeof measures)[number];

export interface MeasureWords {
  readonly name: string;
  /** Of the numbers of its chart. */
  readonly quantity: QuantityName;
  /** What high and low mean. */
  readonly high: string;
  readonly low: string;
}

export const measureWords: Readonly<Record<Measure, MeasureWords>> = {
  fill: {
    name: 'Time to fill over its forecast',
    quantity: 'factor',
    high: 'slower than forecast',
    low: 'quicker than forecast',
  },
  fraction: { name: 'Fibre volume', quantity: 'fraction', high: 'drier', low: 'richer in resin' },
  weight: { name: 'Weight over its plan', quantity: 'factor', high: 'heavy', low: 'light' },
  leak: { name: 'Leak over what the part can take', quantity: 'factor', high: 'leakier', low: 'tighter' },
  findings: { name: 'Findings a part', quantity: 'number', high: 'more to mend', low: 'less to mend' },
};

const overPlan = ({
  planned,
  measured,
}: {
  planned: number | null;
  measured: number | null;
}): number | null => (planned === null || measured === null || planned === 0 ? null : measured / planned);

const findingCount = ({ figures }: Pick<BookLine, 'figures'>): number =>
  Object.values(figures.findings).reduce((sum, count) => sum + count, 0);

/** null where it was not measured. */
export function valueOf({ figures }: Pick<BookLine, 'figures'>, measure: Measure): number | null {
  switch (measure) {
    case 'fraction':
      return figures.fraction.measured;
    case 'findings':
      return findingCount({ figures });
    default:
      return overPlan(figures[measure]);
  }
}

/** Which parts are looked at; null for all. */
export interface BookFilter {
  readonly mouldId: string | null;
  readonly materialId: string | null;
  readonly process: string | null;
  readonly jobId: string | null;
}
export const allParts: BookFilter = { mouldId: null, materialId: null, process: null, jobId: null };

export const filtered = (lines: readonly BookLine[], filter: BookFilter): BookLine[] =>
  lines.filter(
    ({ jobId, figures }) =>
      (filter.mouldId === null || figures.mouldId === filter.mouldId) &&
      (filter.process === null || figures.process === filter.process) &&
      (filter.jobId === null || jobId === filter.jobId) &&
      (filter.materialId === null || figures.materials.some(({ id }) => id === filter.materialId)),
  );

export interface Series {
  readonly points: readonly { readonly line: BookLine; readonly value: number }[];
  /** null of fewer than two. */
  readonly chart: ControlChart | null;
}

/** Parts in order of making; those where it was not measured are left out. */
export function seriesOf(lines: readonly BookLine[], measure: Measure): Series {
  const points = lines.flatMap((line) => {
    const value = valueOf(line, measure);
    return value === null ? [] : [{ line, value }];
  });
  return { points, chart: controlChart(points.map(({ value }) => value)) };
}

/** Rules by which a point is called, with their sources in core/src/charts/control-chart.ts. */
export const ruleWords: Readonly<Record<ChartRule, string>> = {
  beyond: 'beyond three deviations (Western Electric 1)',
  twoOfThree: 'two of three beyond two deviations on one side (Western Electric 2)',
  fourOfFive: 'four of five beyond one deviation on one side (Western Electric 3)',
  eightOneSide: 'eight in a row on one side (Western Electric 4)',
  sixTrend: 'six in a row rising or falling (Nelson 3)',
  range: 'a step larger than the steps allow (moving range)',
};

export interface BookSums {
  readonly parts: number;
  readonly scrap: number;
  readonly rework: number;
  /** In the workshop's money. */
  readonly cost: number;
  /** How often the forecast's range of eight in ten held the fill, and of how many. */
  readonly held: number;
  readonly asked: number;
  /** Named causes, most often first. */
  readonly causes: readonly { readonly name: string; readonly count: number }[];
}

export function sumsOf(lines: readonly BookLine[]): BookSums {
  const count = (of: (line: BookLine) => boolean) => lines.filter(of).length;
  const asked = lines.filter(({ figures }) => figures.fillRange !== null && figures.fill.measured !== null);
  const named = new Map<string, number>();
  for (const { figures } of lines)
    if (figures.causeId !== null) named.set(figures.causeId, (named.get(figures.causeId) ?? 0) + 1);
  return {
    parts: lines.length,
    scrap: count(({ figures }) => figures.outcome === 'scrap'),
    rework: count(({ figures }) => figures.outcome === 'rework'),
    cost: lines.reduce((sum, { figures }) => sum + (figures.cost ?? 0), 0),
    asked: asked.length,
    held: asked.filter(({ figures: { fill, fillRange } }) => {
      const { early, late } = fillRange!;
      return early !== null && fill.measured! >= early && (late === null || fill.measured! <= late);
    }).length,
    causes: [...named]
      .map(([id, times]) => ({ name: causes[id as CauseId]?.name ?? id, count: times }))
      .sort((a, b) => b.count - a.count),
  };
}

/** The book as a table, SI. */
export function bookCsv(lines: readonly BookLine[]): string {
  const head = [
    ...['job', 'part', 'begun', 'booked', 'by', 'process', 'mould', 'outcome', 'cost', 'cause'],
    ...['fill_planned [s]', 'fill_early [s]', 'fill_late [s]', 'fill_measured [s]'],
    ...['fibre_volume_planned', 'fibre_volume_measured', 'weight_planned [kg]', 'weight_measured [kg]'],
    ...[
      'leak_limit [Pa m³/s]',
      'leak_measured [Pa m³/s]',
      'drawn_planned [kg]',
      'drawn_measured [kg]',
      'gel_planned [s]',
      'gel_measured [s]',
      'findings',
      'outside',
    ],
  ];
  const rows = lines.map(({ figures, ...line }): Cell[] => [
    ...[
      line.jobName,
      line.number,
      line.startedAt,
      line.bookedAt,
      line.by,
      figures.process,
      figures.mouldName,
    ],
    ...[outcomeNames[figures.outcome], figures.cost, figures.causeId],
    ...[figures.fill.planned, figures.fillRange?.early ?? null, figures.fillRange?.late ?? null],
    ...[figures.fill.measured, figures.fraction.planned, figures.fraction.measured],
    ...[figures.weight.planned, figures.weight.measured, figures.leak.planned, figures.leak.measured],
    ...[figures.drawn.planned, figures.drawn.measured],
    ...[
      figures.gel.planned,
      figures.gel.measured,
      findingsWords(figures.findings),
      figures.outside.join('; '),
    ],
  ]);
  return writeCsv([head, ...rows]);
}

/** "2 dry spots" would need grammar; "Dry spot 2, Pinholes 1" needs none. */
export const findingsWords = (findings: BookLine['figures']['findings']): string =>
  Object.entries(findings)
    .map(([kind, count]) => `${findingNames[kind as keyof typeof findingNames]} ${count}`)
    .join(', ');
