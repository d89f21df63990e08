import type { Instrument } from '@wick/contract/run/instrument';
import type { RunPlan } from '@wick/contract/run/plan';
import type { ComparedRow } from '@wick/contract/run/review-bodies';
import type { Entry, Run } from '@wick/contract/run/run';
import { formatQuantity } from '@wick/core/units/format';
import type { QuantityName } from '@wick/core/units/quantities';
import type { BagReading } from '../infusion/live-clock.ts';
import { laidOut, type LaidJob } from '../job/laid.ts';
import { processOf } from '../processes/processes.ts';
import { isQuiet, logWords } from '../run/log-words.ts';
import type { LogWriting } from '../run/log-writing.ts';
import { isOf, runStateOf } from '../run/state.ts';
import { layerWord } from '../stack/kinds.ts';
import { plannedWords, type Show } from './compared.ts';
import { findingsOf, type Finding } from './findings.ts';
import { lessonsOf } from './lessons.ts';
import { findingNames, outcomeNames, patternNames, sideNames, targetNames } from './names.ts';
import { planPicture, pressurePicture } from './pictures.ts';

/** One part of the record, for any writer: text, a table, a drawing or pictures. */
export type ReportBlock =
  | { readonly kind: 'facts'; readonly rows: readonly (readonly [string, string])[] }
  | { readonly kind: 'text'; readonly lines: readonly string[] }
  | {
      readonly kind: 'table';
      readonly head: readonly string[];
      readonly rows: readonly (readonly string[])[];
      /** Shares of the width. */
      readonly widths: readonly number[];
    }
  | { readonly kind: 'svg'; readonly svg: string }
  | {
      readonly kind: 'photos';
      readonly photos: readonly { readonly id: string; readonly caption: string }[];
    };

export interface Report {
  readonly title: string;
  readonly subtitle: string;
  /** When the last word was said: a record carries no other date. */
  readonly date: string;
  readonly sections: readonly { readonly heading: string; readonly blocks: readonly ReportBlock[] }[];
  readonly foot: string;
}

export interface ReportRequest {
  readonly run: Run;
  readonly plan: RunPlan;
  readonly entries: readonly Entry[];
  readonly instruments: readonly Pick<Instrument, 'id' | 'name'>[];
  /** Of the bag, thinned, ascending. */
  readonly readings: readonly BagReading[];
  /** Points across the page. */
  readonly width: number;
}

/** Common caution, at the foot of every record. */
const FOOT =
  'Made from what was entered and measured; it certifies nothing. Safety data sheets, local rules and licensed practice go before it.';

/** The record of a part: what was planned, done, seen, measured and concluded. The same run gives the same record. */
export function reportOf(request: ReportRequest): Report {
  const { run, plan, entries, instruments, readings, width } = request;
  const job = laidOut(plan.job);
  const show = (value: number | null, quantity: QuantityName) =>
    value === null ? '–' : formatQuantity(value, quantity, plan.shop.units[quantity]);
  const byId = new Map(entries.map((entry) => [entry.id, entry]));
  const writing: LogWriting = {
    show,
    instrumentName: (id) => instruments.find((one) => one.id === id)?.name ?? 'Instrument',
    lineName: (id) => job.lines.find((line) => line.id === id)?.name ?? 'A line',
    find: (id) => byId.get(id),
  };
  const state = runStateOf(entries);
  const booked = state.entries.filter(isOf('booked')).at(-1)?.body ?? null;
  const findings = findingsOf(state);
  const time = (at: string) => at.slice(0, 16).replace('T', ' ');
  const last = entries.reduce((most, { at }) => (at > most ? at : most), run.startedAt);
  const opened = state.entries.find(({ body }) => body.kind === 'valve');
  const wet = state.entries.find(({ body }) => body.kind === 'allWet');
  const events = [
    ...(opened ? [{ at: Date.parse(opened.at), label: 'opened' }] : []),
    ...(wet ? [{ at: Date.parse(wet.at), label: 'all wet' }] : []),
  ];
  const pressure = pressurePicture(readings, events, {
    width,
    show: (value) => show(value, 'absolutePressure'),
  });
  const ofFindings = new Set(findings.flatMap(({ photoIds }) => photoIds));
  const pictures = state.entries
    .filter(isOf('photo'))
    .filter(({ body }) => !ofFindings.has(body.photoId))
    .map(({ body }) => ({ id: body.photoId, caption: body.caption }));
  const lessons = lessonsOf(state);
  const sections = [
    { heading: 'What came of it', blocks: [cameTo(booked, request, show), ...signatures(state.entries)] },
    {
      heading: 'Plan and findings',
      blocks: [
        { kind: 'svg' as const, svg: planPicture(job, findings, width) },
        ...findingBlocks(findings, show),
      ],
    },
    { heading: 'Stack', blocks: [stackTable(job, show)] },
    { heading: 'Planned and measured', blocks: booked ? [comparedTable(booked.rows, show)] : [notBooked] },
    ...(pressure
      ? [{ heading: 'Pressure in the bag', blocks: [{ kind: 'svg' as const, svg: pressure }] }]
      : []),
    { heading: 'Likely causes', blocks: booked ? causeBlocks(booked.causes) : [notBooked] },
    {
      heading: 'For the next part',
      blocks: [
        {
          kind: 'text' as const,
          lines:
            lessons.length === 0
              ? ['Nothing was written down.']
              : lessons.map(
                  ({ entry, settled }) =>
                    `${targetNames[entry.body.target]}: ${entry.body.text}${settled ? ` (${settled.is})` : ''}`,
                ),
        },
      ],
    },
    ...(pictures.length > 0
      ? [{ heading: 'Pictures', blocks: [{ kind: 'photos' as const, photos: pictures }] }]
      : []),
    { heading: 'Log', blocks: [logTable(entries, writing, time)] },
  ];
  return {
    title: `${plan.job.name}, ${run.kind === 'part' ? 'part' : 'rehearsal'} ${run.number}`,
    subtitle: `${plan.shop.name}; ${processOf(job).name}; plan ${plan.number} of revision ${plan.jobRevision}; begun ${time(run.startedAt)}`,
    date: last,
    sections,
    foot: FOOT,
  };
}

type Booked = Extract<Entry['body'], { kind: 'booked' }>;

const notBooked: ReportBlock = { kind: 'text', lines: ['It has not been put into the book yet.'] };

function cameTo(booked: Booked | null, { plan }: ReportRequest, show: Show): ReportBlock {
  if (!booked) return notBooked;
  const { figures } = booked;
  const pair = (
    { planned, measured }: { planned: number | null; measured: number | null },
    quantity: QuantityName,
  ) =>
    measured === null ? 'not measured' : `${show(measured, quantity)}, planned ${show(planned, quantity)}`;
  return {
    kind: 'facts',
    rows: [
      ['Outcome', `${outcomeNames[figures.outcome]}${figures.cost === null ? '' : `, cost ${figures.cost}`}`],
      ['Mould', plan.mould?.name ?? 'none named'],
      ['All wet', pair(figures.fill, 'duration')],
      ['Weight', pair(figures.weight, 'mass')],
      ['Fibre volume', pair(figures.fraction, 'fraction')],
      ['Let in by the bag', pair(figures.leak, 'throughput')],
    ],
  };
}

function signatures(entries: readonly Entry[]): ReportBlock[] {
  const signed = entries.filter(isOf('signed'));
  return [
    {
      kind: 'table',
      head: ['Signed as', 'Name', 'When', 'Signature'],
      rows: [
        ...signed.map(({ body, by, at }) => [body.as, by, at.slice(0, 16).replace('T', ' '), '']),
        ['', '', '', ''],
      ],
      widths: [0.25, 0.25, 0.2, 0.3],
    },
  ];
}

function findingBlocks(findings: readonly Finding[], show: Show): ReportBlock[] {
  if (findings.length === 0) return [{ kind: 'text', lines: ['Nothing was found.'] }];
  const photos = findings.flatMap(({ photoIds, is }, n) =>
    photoIds.map((id) => ({ id, caption: `${n + 1}: ${findingNames[is]}` })),
  );
  return [
    {
      kind: 'table',
      head: ['', 'Found', 'Where', 'Across', 'Note', 'Done about it'],
      rows: findings.map(({ is, side, pattern, size, note, mended }, n) => [
        `${n + 1}`,
        `${findingNames[is]}${pattern ? `, ${patternNames[pattern]}` : ''}`,
        sideNames[side],
        size === null ? '' : show(size, 'length'),
        note,
        mended.join('; '),
      ]),
      widths: [0.05, 0.22, 0.13, 0.12, 0.24, 0.24],
    },
    ...(photos.length > 0 ? [{ kind: 'photos' as const, photos }] : []),
  ];
}

function stackTable(job: LaidJob, show: Show): ReportBlock {
  const name = (id: string | null) => job.materials.find((one) => one.id === id)?.name ?? 'not chosen';
  const core = job.laminate.coreId;
  return {
    kind: 'table',
    head: ['', 'Laid', 'At'],
    rows: [
      ...job.laminate.plies.map(({ materialId, angle }, n) => [
        `${n + 1}`,
        name(materialId),
        show(angle, 'angle'),
      ]),
      ...(core === null ? [] : [['core', name(core), '']]),
      ...job.layers.map((layer) => ['', `${layerWord(layer.kind)}: ${name(layer.materialId)}`, '']),
      ['', `Resin: ${name(job.resin.materialId)}`, ''],
    ],
    widths: [0.1, 0.7, 0.2],
  };
}

function comparedTable(rows: readonly ComparedRow[], show: Show): ReportBlock {
  if (rows.length === 0) return { kind: 'text', lines: ['Nothing was measured.'] };
  return {
    kind: 'table',
    head: ['What', 'Planned', 'Measured', 'Within doubt', ''],
    rows: rows.map(({ name, quantity, planned, measured, isInside, means }) => [
      name,
      planned ? plannedWords(planned, quantity, show) : '–',
      show(measured, quantity),
      isInside === null ? '–' : isInside ? 'yes' : 'no',
      means,
    ]),
    widths: [0.24, 0.24, 0.14, 0.12, 0.26],
  };
}

const causeBlocks = (causes: Booked['causes']): ReportBlock[] => [
  causes.length === 0
    ? { kind: 'text', lines: ['No cause was looked for.'] }
    : {
        kind: 'table',
        head: ['Cause', 'Belief', 'Speaks for it', 'Speaks against it'],
        rows: causes.map((one) => [
          one.name,
          `${Math.round(100 * one.belief)} %`,
          one.for.join('; '),
          one.against.join('; '),
        ]),
        widths: [0.24, 0.1, 0.33, 0.33],
      },
];

function logTable(entries: readonly Entry[], writing: LogWriting, time: (at: string) => string): ReportBlock {
  const struck = new Set(entries.filter(isOf('struck')).map(({ body }) => body.entryId));
  const lines = entries
    .filter((entry) => !isQuiet(entry))
    .sort((a, b) => Date.parse(a.at) - Date.parse(b.at) || a.order - b.order);
  return {
    kind: 'table',
    head: ['When', 'What', 'By'],
    rows: lines.map((entry) => [
      time(entry.at),
      `${logWords(entry, writing)}${struck.has(entry.id) ? ' (struck out)' : ''}`,
      entry.by,
    ]),
    widths: [0.2, 0.65, 0.15],
  };
}
