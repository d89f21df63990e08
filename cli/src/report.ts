import { runConditionsOf } from '@wick/plan/resin/run';
import { forecastJob, timelineOf, verdictOf, type Timeline } from '@wick/plan/forecast/assess';
import {
  effectOf,
  runsFor,
  unenteredOf,
  type Unentered,
  type UnenteredEffect,
} from '@wick/plan/forecast/unentered';
import type { LaidJob } from '@wick/plan/job/laid';
import { csvOf, vtuOf } from '@wick/plan/files/results-out';
import type { Shop } from '@wick/contract/shop';
import {
  endName,
  findingWords,
  likelyWords,
  unenteredWords,
  usedWords,
  verdictSentence,
} from '@wick/plan/forecast/words';
import type { FlowForecast } from '@wick/core/flow/forecast';
import { valueAt } from '@wick/core/flow/probe';
import { orNull } from '@wick/core/model-error';
import { formatClock, formatQuantity } from '@wick/core/units/format';
import { fills } from '@wick/core/verdict/rule';
import { clockOf, type Verdict } from '@wick/core/verdict/verdict';
import { exitCodes, type Output } from './exit-codes.ts';
import { writeOut } from './write-out.ts';

export interface ResultOptions {
  json?: boolean;
  vtk?: string;
  csv?: string;
}

interface Place {
  readonly x: number;
  readonly y: number;
}

export interface Report {
  readonly job: LaidJob;
  readonly verdict: Verdict;
  readonly flow: FlowForecast;
  readonly timeline: Timeline;
  readonly probes: readonly Place[];
  readonly unentered: readonly { readonly item: Unentered; readonly effect: UnenteredEffect | null }[];
}

/** All that a run tells, times on the clock since first mix. */
export function reportOf(job: LaidJob, shop: Shop, flow: FlowForecast, probes: readonly Place[]): Report {
  const run = runConditionsOf(job, shop)!;
  const timeline = timelineOf(flow, clockOf(run), run.openTime);
  const runs = new Map<LaidJob, FlowForecast>();
  const unentered = unenteredOf(job, shop).map((item) => ({
    item,
    effect: effectIn({ job, shop, flow }, item, runs),
  }));
  return { job, verdict: verdictOf(job, shop, flow)!, flow, timeline, probes, unentered };
}

/** Null where an end of what a value might be cannot be answered. */
function effectIn(
  { job, shop, flow }: { job: LaidJob; shop: Shop; flow: FlowForecast },
  item: Unentered,
  known: Map<LaidJob, FlowForecast>,
): UnenteredEffect | null {
  return orNull(() => {
    const runs = runsFor(item, job).map(({ job: own, how }) => {
      const run = known.get(own) ?? forecastJob(own, shop, how);
      known.set(own, run);
      return run;
    });
    return effectOf(item, { shop, flow }, runs);
  });
}

export function writeResults({ flow, timeline }: Report, { vtk, csv }: ResultOptions): void {
  if (vtk !== undefined) writeOut(vtk, vtuOf(flow, timeline));
  if (csv !== undefined) writeOut(csv, csvOf(flow, timeline));
}

/** @returns the exit code the verdict stands for */
export function printReport(report: Report, { json }: ResultOptions, { out }: Output): number {
  const told = toldBy(report);
  if (json) out(JSON.stringify(told, neverAsNull, 2));
  else linesOf(report, told).forEach(out);
  const { band } = report.verdict;
  return fills(band) ? exitCodes.fine.code : exitCodes.trouble.code;
}

/** The report as data: ids with their names, times on the clock. */
function toldBy({ job, verdict, flow, timeline, probes, unentered }: Report) {
  const seconds = (time: number) => (Number.isNaN(time) ? NaN : timeline.clockTime(time));
  const nameOf = nameIn(job);
  return {
    job: job.name,
    verdict,
    lastPlace: flow.lastPlace,
    events: flow.events.map((event) => ({ ...event, name: nameOf(event.lineId), time: seconds(event.time) })),
    findings: flow.findings.map((finding) =>
      'lineId' in finding ? { ...finding, name: nameOf(finding.lineId) } : finding,
    ),
    dryRegions: flow.dryRegions.map(({ id, zoneId, place, time, area, finalArea, finalPressure }) => ({
      id,
      zoneId,
      place,
      time: seconds(time),
      area,
      finalArea,
      finalPressure,
    })),
    marks: flow.marks.map(({ id, arrival }) => ({ id, name: nameOf(id), time: seconds(arrival) })),
    probes: probes.map((place) => ({ place, time: seconds(valueAt(flow.mesh, flow.arrival, place)) })),
    unentered: unentered.map(({ item: { id, label, taken, range }, effect }) => ({
      ...{ id, label, taken, range },
      effect,
    })),
    layers: flow.layers.length,
    lag: flow.lag?.largest ?? null,
    nodes: flow.mesh.nodeCount,
    massError: flow.massError,
  };
}

const nameIn = (job: LaidJob) => (id: string) =>
  [...job.lines, ...job.marks].find((item) => item.id === id)?.name ?? id;

const at = (place: Place) => `${place.x.toFixed(3)}, ${place.y.toFixed(3)} m`;
const clock = (time: number) => (Number.isFinite(time) ? formatClock(time) : 'not before gel');

/** The report in words, a line each. */
function linesOf(
  { job, verdict, flow, timeline, unentered }: Report,
  told: ReturnType<typeof toldBy>,
): string[] {
  const rows = [
    ...told.events.map(({ time, name, kind }) => ({ time, words: `${name} ${kind}` })),
    ...told.dryRegions.map(({ time, area, place }) => ({
      time,
      words: `${(area * 1e4).toFixed(0)} cm2 cut off from the vents near ${at(place)}`,
    })),
    ...told.marks.map(({ name, time }) => ({ time, words: `front at ${name}` })),
    ...told.probes.map(({ place, time }) => ({ time, words: `front at ${at(place)}` })),
  ];
  const write = {
    clock: (time: number) => clock(Number.isNaN(time) ? NaN : timeline.clockTime(time)),
    show: (value: number, quantity: 'absolutePressure' | 'thickness') => formatQuantity(value, quantity),
    nameOf: nameIn(job),
  };
  const used = usedWords(verdict);
  const usedLine =
    used.length > 0
      ? [`Used at the last corner: ${used.map(({ share, what }) => `${share} ${what}`).join('; ')}.`]
      : [];
  return [
    job.name,
    verdictSentence(verdict),
    `Last corner ${clock(verdict.fillTime)} at ${at(flow.lastPlace)} (likely ${likelyWords(verdict)}); ${endName(verdict)} ${clock(verdict.gelTime)}. All from first mix.`,
    ...usedLine,
    told.lag === null
      ? 'Mesh and laminate averaged.'
      : `${flow.layers.length} layers; the mould side lags by up to ${(1000 * told.lag).toFixed(0)} mm.`,
    ...rows.map(({ time, words }) => `${clock(time).padStart(8)}  ${words}`),
    ...flow.findings.map((finding) => findingWords(finding, write)),
    ...unentered.map(
      ({ item, effect }) =>
        `Not entered: ${item.label}, taken as ${item.taken}; ${effect ? unenteredWords(item, effect) : `could be ${item.range}`}.`,
    ),
  ];
}

/** JSON has no infinity: a time that never comes is null. */
function neverAsNull(_key: string, value: unknown): unknown {
  return typeof value === 'number' && !Number.isFinite(value) ? null : value;
}
