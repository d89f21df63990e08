import { timelineOf, verdictOf, type Timeline } from '@wick/contract/assess';
import { runConditionsOf } from '@wick/contract/forecast-input';
import type { Job } from '@wick/contract/job';
import { csvOf, vtuOf } from '@wick/contract/results-out';
import type { Shop } from '@wick/contract/shop';
import { findingWords, likelyWords, verdictSentence } from '@wick/contract/words';
import type { FlowForecast } from '@wick/core/flow/forecast';
import { valueAt } from '@wick/core/flow/probe';
import { formatClock, formatQuantity } from '@wick/core/units/format';
import { clockOf, type Verdict } from '@wick/core/verdict/verdict';
import { exitCodes, type Output } from './exit-codes.ts';
import { writeText } from './write-text.ts';

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
  readonly job: string;
  readonly verdict: Verdict;
  readonly flow: FlowForecast;
  readonly timeline: Timeline;
  readonly probes: readonly Place[];
}

/** All that a run tells, times on the clock since first mix. */
export function reportOf(job: Job, shop: Shop, flow: FlowForecast, probes: readonly Place[]): Report {
  const run = runConditionsOf(job, shop)!;
  const timeline = timelineOf(flow, clockOf(run), run.openTime);
  return { job: job.name, verdict: verdictOf(job, shop, flow)!, flow, timeline, probes };
}

export function writeResults({ flow, timeline }: Report, { vtk, csv }: ResultOptions): void {
  if (vtk !== undefined) writeText(vtk, vtuOf(flow, timeline));
  if (csv !== undefined) writeText(csv, csvOf(flow, timeline));
}

/** @returns the exit code the verdict stands for */
export function printReport(report: Report, { json }: ResultOptions, { out }: Output): number {
  const { job, verdict, flow, timeline, probes } = report;
  const seconds = (time: number) => (Number.isNaN(time) ? NaN : timeline.clockTime(time));
  const events = flow.events.map((event) => ({ ...event, time: seconds(event.time) }));
  const dryRegions = flow.dryRegions.map(({ place, time, area, finalArea, finalPressure }) => ({
    place,
    time: seconds(time),
    area,
    finalArea,
    finalPressure,
  }));
  const marks = flow.marks.map(({ name, arrival }) => ({ name, time: seconds(arrival) }));
  const timed = probes.map((place) => ({ place, time: seconds(valueAt(flow.mesh, flow.arrival, place)) }));
  const lag = flow.lag?.largest ?? null;
  if (json)
    out(
      JSON.stringify(
        {
          job,
          verdict,
          lastPlace: flow.lastPlace,
          events,
          findings: flow.findings,
          dryRegions,
          marks,
          probes: timed,
          layers: flow.layers.length,
          lag,
          nodes: flow.mesh.nodeCount,
          massError: flow.massError,
        },
        neverAsNull,
        2,
      ),
    );
  else {
    const at = (place: Place) => `${place.x.toFixed(3)}, ${place.y.toFixed(3)} m`;
    const clock = (time: number) => (Number.isFinite(time) ? formatClock(time) : 'not before gel');
    out(job);
    out(verdictSentence(verdict));
    out(
      `Last corner ${clock(verdict.fillTime)} at ${at(flow.lastPlace)} (likely ${likelyWords(verdict)}); gel ${clock(verdict.gelTime)}. All from first mix.`,
    );
    out(
      lag === null
        ? 'Mesh and laminate averaged.'
        : `${flow.layers.length} layers; the mould side lags by up to ${(1000 * lag).toFixed(0)} mm.`,
    );
    const rows = [
      ...events.map(({ time, name, kind }) => ({ time, words: `${name} ${kind}` })),
      ...dryRegions.map(({ time, area, place }) => ({
        time,
        words: `${(area * 1e4).toFixed(0)} cm2 cut off from the vents near ${at(place)}`,
      })),
      ...marks.map(({ name, time }) => ({ time, words: `front at ${name}` })),
      ...timed.map(({ place, time }) => ({ time, words: `front at ${at(place)}` })),
    ];
    for (const { time, words } of rows) out(`${clock(time).padStart(8)}  ${words}`);
    for (const finding of flow.findings)
      out(
        findingWords(finding, {
          clock: (time) => clock(seconds(time)),
          show: (value, quantity) => formatQuantity(value, quantity),
        }),
      );
  }
  return ['comfortable', 'tight', 'gamble'].includes(verdict.band)
    ? exitCodes.fine.code
    : exitCodes.trouble.code;
}

/** JSON has no infinity: a time that never comes is null. */
function neverAsNull(_key: string, value: unknown): unknown {
  return typeof value === 'number' && !Number.isFinite(value) ? null : value;
}
