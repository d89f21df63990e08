import type { Shop } from '@wick/contract/shop';
import type { FlowForecast } from '@wick/core/flow/forecast';
import { formatClock, formatQuantity } from '@wick/core/units/format';
import type { LaidJob } from '@wick/plan/job/laid';
import { materialOf } from '@wick/plan/job/material-of';
import { drawOf } from '@wick/plan/resin/draw';
import { ledgerOf } from '@wick/plan/resin/ledger';
import { batchesWith, resinCsv, resinTables, resinWorkbook } from '@wick/plan/resin/out';
import { potsOf } from '@wick/plan/resin/pots';
import { partsText, ratiosDisagree } from '@wick/plan/resin/ratio';
import { runConditionsOf } from '@wick/plan/resin/run';
import { DEFER, mixSheetOf, weighed } from '@wick/plan/resin/sheet';
import { batchFaults, suggestFor } from '@wick/plan/resin/suggest';
import { faultWords, suggestionWords } from '@wick/plan/resin/words';
import { CliError, exitCodes, type Output } from './exit-codes.ts';
import { forecastIn } from './forecast-in.ts';
import { readJobAt, shopOf, type ShopOptions } from './read-job.ts';
import { writeOut } from './write-out.ts';

interface ResinOptions extends ShopOptions {
  csv?: string;
  xlsx?: string;
  nodes?: string;
}

/** How much resin a job takes, in which batches, and how each is mixed. */
export async function resin(file: string, options: ResinOptions, { out }: Output): Promise<number> {
  const job = readJobAt(file);
  const shop = shopOf(options);
  const flow = forecastIn(job, shop, options.nodes);
  const ledger = ledgerOf(job, shop, flow);
  if (!ledger)
    throw new CliError(
      'model',
      `${job.name} has no plies yet, so nobody can say how much resin it takes. Lay them first.`,
    );
  const mass = (value: number) => formatQuantity(value, 'mass');
  out(job.name);
  out(`Resin to mix: ${mass(ledger.total)} (quick rule, fibre and a kilogram: ${mass(ledger.quickRule)})`);
  for (const row of ledger.rows) out(`  ${mass(row.mass).padStart(9)}  ${row.name}`);
  const batches = batchesWith(job, shop, flow);
  const pots = potsOf(job);
  for (const [n, { pot, mixedAt, pouredAt, mass: own }] of batches.entries())
    out(
      `batch ${n + 1}  ${mass(own)} mixed at ${formatClock(mixedAt)}, in ${pots[pot]!.name} at ${formatClock(pouredAt)}`,
    );
  const faults = faultsIn(job, shop, flow);
  for (const words of faults) out(`wrong  ${words}`);
  const suggestion = flow && suggestFor(job, shop, flow, job.materials);
  if (suggestion) for (const words of suggestionWords(suggestion, pots, mass)) out(`suggested  ${words}`);
  for (const n of batches.keys()) printSheet(job, shop, batches, n, out);
  const tables = resinTables(job, shop, flow);
  if (options.csv !== undefined) writeOut(options.csv, resinCsv(tables!));
  if (options.xlsx !== undefined)
    writeOut(options.xlsx, new Uint8Array(await (await resinWorkbook(tables!)).arrayBuffer()));
  return faults.length === 0 ? exitCodes.fine.code : exitCodes.trouble.code;
}

function faultsIn(job: LaidJob, shop: Shop, flow: FlowForecast | null): string[] {
  const run = runConditionsOf(job, shop);
  const draw = flow && drawOf(job, shop, flow);
  const system = materialOf(job, job.resin.materialId, 'resin');
  const disagree = system && ratiosDisagree(system);
  if (!run || !draw) return disagree ? [disagree] : [];
  const { batches, faults } = batchFaults(job, shop, draw, run);
  return [...(disagree ? [disagree] : []), ...faults.map((fault) => faultWords(fault, batches, draw))];
}

function printSheet(
  job: LaidJob,
  shop: Shop,
  batches: Parameters<typeof mixSheetOf>[2],
  index: number,
  out: Output['out'],
): void {
  const sheet = mixSheetOf(job, shop, batches, index);
  if (!sheet) return;
  const show = (value: number) => weighed(value, shop, sheet.scaleStep);
  out(`Mix sheet ${sheet.number} of ${sheet.count}, by weight, 100 : ${partsText(sheet.parts)}`);
  out(
    `  resin ${show(sheet.masses.resin)}, hardener ${show(sheet.masses.hardener)} (${show(sheet.hardenerFrom)} to ${show(sheet.hardenerTo)})`,
  );
  for (const [n, { text, caution }] of sheet.steps.entries()) {
    out(`  ${n + 1}. ${text}`);
    if (caution) out(`     ${caution}`);
  }
  out(`  ${DEFER}`);
}
