import { materialOf } from '../job/material-of.ts';
import { settledIn } from '../settle.ts';
import { pointAlong } from '@wick/core/geometry/along';
import { distance, type Point } from '@wick/core/geometry/polygon';
import type { JobLine, JobStation, JobTee } from '@wick/contract/job/job';
import type { LaidJob } from '../job/laid.ts';

/** Bore of the hose from pot to part where nobody has said, m: common practice, no source. */
export const HOSE_BORE = 0.012;
/** A hose runs not quite straight: common practice, no source. */
const SLACK = 1.15;

/** What a line or hose holds, m3. */
export const boreVolume = ({ length, bore }: { readonly length: number; readonly bore: number }): number =>
  (Math.PI / 4) * bore ** 2 * length;

/** A length of hose on the plan, from tee, pot or pump to a line, or from a pot to a tee. */
export interface HoseRun {
  /** Of the line or tee that it leads to. */
  readonly id: string;
  readonly kind: 'feed' | 'vent';
  readonly name: string;
  /** Null where its other end is not on the plan. */
  readonly from: Point | null;
  readonly to: Point | null;
  readonly length: number;
  readonly bore: number;
  /** Measured on the plan; otherwise typed or the usual length. */
  readonly isMeasured: boolean;
}

/** Where the hose joins a line. */
export const inletOf = ({ points, inlet }: Pick<JobLine, 'points' | 'inlet'>): Point =>
  points.length === 1 ? points[0]! : pointAlong(points, inlet);

const stationFor = (job: LaidJob, kind: JobStation['kind'], id: string | null): JobStation | null =>
  job.stations.find((station) => station.kind === kind && (id === null || station.id === id)) ?? null;

/** The pot or pump at the far end of a line's hoses; null where none is on the plan. */
export const stationOf = (job: LaidJob, { kind, stationId }: JobLine): JobStation | null =>
  stationFor(job, kind === 'vent' ? 'pump' : 'pot', stationId);

const teeOf = (job: LaidJob, line: JobLine): JobTee | null =>
  job.tees.find(({ id }) => id === line.tee) ?? null;

/** Length and bore of the hose of a feed or vent: as typed, else as drawn, else the usual. */
export function hoseOfLine(
  job: LaidJob,
  line: JobLine,
): Pick<HoseRun, 'from' | 'length' | 'bore' | 'isMeasured'> {
  const usual = { length: settledIn(job, 'resin.hoseLength'), bore: HOSE_BORE };
  const from = teeOf(job, line)?.place ?? (line.tee === null ? stationOf(job, line)?.place : null) ?? null;
  const stock = materialOf(job, line.hoseId, 'hose');
  const isMeasured = line.hoseLength === null && from !== null;
  return {
    from,
    length: isMeasured ? SLACK * distance(from, inletOf(line)) : (line.hoseLength ?? usual.length),
    bore: line.hoseBore ?? stock?.bore ?? usual.bore,
    isMeasured,
  };
}

/** Length of the hose behind a tee. */
export function hoseOfTee(
  job: LaidJob,
  tee: JobTee,
): { from: Point | null; length: number; isMeasured: boolean } {
  const from = stationFor(job, 'pot', null)?.place ?? null;
  const isMeasured = tee.hoseLength === null && tee.place !== null && from !== null;
  return {
    from,
    length: isMeasured
      ? SLACK * distance(from!, tee.place!)
      : (tee.hoseLength ?? settledIn(job, 'resin.hoseLength')),
    isMeasured,
  };
}

/** Height of the resin over the inlet of a feed, m. */
export const potLevelOf = (job: LaidJob, line: JobLine): number =>
  line.potLevel ?? stationOf(job, line)?.level ?? 0;

/** Every hose of a layout. A vent has one where a pump stands on the plan, or a length is typed. */
export function hoseRunsOf(job: LaidJob): HoseRun[] {
  const ofLines = job.lines
    .filter(
      (line) =>
        line.kind === 'feed' || (line.kind === 'vent' && (line.hoseLength !== null || stationOf(job, line))),
    )
    .map((line): HoseRun => {
      const kind = line.kind === 'vent' ? 'vent' : 'feed';
      return { id: line.id, kind, name: line.name, to: inletOf(line), ...hoseOfLine(job, line) };
    });
  const ofTees = job.tees.map((tee): HoseRun => ({
    id: tee.id,
    kind: 'feed',
    name: tee.name,
    to: tee.place,
    bore: tee.hoseBore,
    ...hoseOfTee(job, tee),
  }));
  return [...ofLines, ...ofTees];
}
