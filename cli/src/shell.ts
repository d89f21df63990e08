import type { JobLayer } from '@wick/contract/job/stack';
import { conducts } from '@wick/plan/stack/laid-on';
import { readFileSync } from 'node:fs';
import { problemOf } from '@wick/plan/forecast/problem';
import { bareLine } from '@wick/plan/layout/edits';
import type { JobLine } from '@wick/contract/job/job';
import { solveFlow } from '@wick/core/flow/problem';
import { meshShell, type ShellPoint } from '@wick/core/geometry/shell';
import { readObj, readStl } from '@wick/core/geometry/surface-file';
import { ModelError } from '@wick/core/model-error';
import { CliError, type Output } from './exit-codes.ts';
import { numberIn, readJobAt, requireFront, shopOf, type ShopOptions } from './read-job.ts';
import { printReport, reportOf, writeResults, type ResultOptions } from './report.ts';

interface ShellOptions extends ShopOptions, ResultOptions {
  job?: string;
  feed?: string[];
  vent?: string[];
  unit?: string;
  nodes?: string;
}

const units: Record<string, number> = { m: 1, cm: 0.01, mm: 0.001, in: 0.0254 };

/** Runs the laminate and resin of a job on a surface in space; feeds and vents are given as points on it. */
export function simulateShell(file: string, options: ShellOptions, output: Output): number {
  if (!options.job) throw new CliError('usage', 'Name the job whose laminate and resin to use: --job FILE.');
  const scale = units[options.unit ?? 'mm'];
  if (!scale)
    throw new CliError('usage', `--unit takes ${Object.keys(units).join(', ')}, not “${options.unit}”.`);
  const lines = [
    ...(options.feed ?? []).map((text, i) => ({
      kind: 'feed' as const,
      name: `Feed ${i + 1}`,
      points: readPoints(text, '--feed'),
    })),
    ...(options.vent ?? []).map((text, i) => ({
      kind: 'vent' as const,
      name: `Vent ${i + 1}`,
      points: readPoints(text, '--vent'),
    })),
  ];
  const plan = readJobAt(options.job);
  const job = {
    ...plan,
    zones: [],
    marks: [],
    tees: [],
    stations: [],
    layers: plan.layers.map(overAll),
    lines: lines.map(jobLine),
  };
  requireFront(job, options.job);
  const nodeCount = numberIn(options.nodes ?? '2000', '--nodes', 50, 60_000);
  try {
    const soup = readSurface(file).map((v) => v * scale);
    const shell = meshShell({ soup, lines, nodeCount });
    const shop = shopOf(options);
    const flow = solveFlow(problemOf(job, shop), { nodeCount, shell });
    const report = reportOf(job, shop, flow, []);
    writeResults(report, options);
    return printReport(report, options, output);
  } catch (error) {
    if (error instanceof ModelError) throw new CliError('model', `${file}: ${error.message}`);
    throw error;
  }
}

function readSurface(path: string): Float64Array {
  let bytes: Buffer;
  try {
    bytes = readFileSync(path);
  } catch (error) {
    throw new CliError(
      'file',
      `${path} cannot be read (${(error as NodeJS.ErrnoException).code}). Check the name.`,
    );
  }
  return /\.obj$/i.test(path) ? readObj(bytes.toString('utf8')) : readStl(bytes);
}

/** "x,y,z x,y,z ..." in metres. */
function readPoints(text: string, option: string): ShellPoint[] {
  const points = text
    .trim()
    .split(/\s+/)
    .map((item) => item.split(',').map(Number));
  if (points.some((p) => p.length !== 3 || !p.every(Number.isFinite)))
    throw new CliError('usage', `${option} takes points in metres such as "0,0,0 0,0.4,0", not “${text}”.`);
  return points.map(([x, y, z]) => ({ x: x!, y: y!, z: z! }));
}

const jobLine = ({
  kind,
  name,
  points,
}: {
  kind: JobLine['kind'];
  name: string;
  points: ShellPoint[];
}): JobLine => ({
  ...bareLine(kind, points, name.toLowerCase().replace(' ', '-')),
  name,
});

/** Areas of the plan mean nothing on a surface: what resin runs in lies on all of it. */
const overAll = (layer: JobLayer): JobLayer =>
  conducts(layer) ? { ...layer, covers: { kind: 'part', edge: 0, feed: null, vent: null } } : layer;
