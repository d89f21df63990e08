import type { JobLine } from '@wick/contract/job/job';
import { pointAlong } from '@wick/core/geometry/along';
import type { Point } from '@wick/core/geometry/polygon';
import { roomAt, type PartShape } from '@wick/core/layouts/frame';
import type { LaidJob } from '../job/laid.ts';

/** m. A line this far beside the edge is still on it: common practice, no source. */
const ON_EDGE = 2e-3;
const SAMPLES = 24;

export const ofKind = (job: Pick<LaidJob, 'lines'>, kind: JobLine['kind']) =>
  job.lines.filter((line) => line.kind === kind);

/** Middle of a line along its length. */
export const middleOfLine = (points: readonly Point[]): Point =>
  points.length === 1 ? points[0]! : pointAlong(points, 0.5);

/** Points of a line close enough together to test places by. */
export const samplesOf = ({ points }: Pick<JobLine, 'points'>): Point[] =>
  points.length === 1
    ? [points[0]!]
    : [...points, ...Array.from({ length: SAMPLES + 1 }, (_, i) => pointAlong(points, i / SAMPLES))];

export const touchesPart = (part: PartShape, line: Pick<JobLine, 'points'>) =>
  samplesOf(line).some((p) => roomAt(part, p) > -ON_EDGE);
