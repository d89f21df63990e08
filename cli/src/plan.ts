import { extname } from 'node:path';
import { cutCsv, cutSheetOf } from '@wick/plan/laminate/cut-sheet';
import { layoutDxf, layoutGeoJson, layoutSvg } from '@wick/plan/files/drawings/layout-out';
import type { LaidJob } from '@wick/plan/job/laid';
import { CliError, exitCodes, type Output } from './exit-codes.ts';
import { readJobAt } from './read-job.ts';
import { writeOut } from './write-out.ts';

const formats: Record<string, (job: LaidJob) => string> = {
  '.dxf': layoutDxf,
  '.svg': layoutSvg,
  '.geojson': layoutGeoJson,
  '.csv': (job) => cutCsv(cutSheetOf(job, 0)),
};

/** Writes the plan of a job for a plotter, or its cut list, by the ending of the name. */
export function plan(file: string, { to }: { to?: string }, { out }: Output): number {
  const format = to === undefined ? undefined : formats[extname(to).toLowerCase()];
  if (to === undefined || !format)
    throw new CliError(
      'usage',
      `Say where the plan goes: --to plan.dxf, plan.svg, plan.geojson, or cuts.csv for the cut list.`,
    );
  const job = readJobAt(file);
  writeOut(to, format(job));
  out(`${job.name}: ${to} written.`);
  return exitCodes.fine.code;
}
