import { verdictOf } from '@wick/plan/forecast/assess';
import type { LaidJob } from '@wick/plan/job/laid';
import { bagOf } from '@wick/plan/bag/bag';
import { checkStack } from '@wick/plan/stack/checks';
import { layerWord } from '@wick/plan/stack/kinds';
import { takeOffCsv, unitWords } from '@wick/plan/takeoff/sheet';
import { takeOffOf } from '@wick/plan/takeoff/take-off';
import { USUAL_CREW } from '@wick/plan/takeoff/taken';
import { orNull } from '@wick/core/model-error';
import { formatQuantity } from '@wick/core/units/format';
import { exitCodes, type Output } from './exit-codes.ts';
import { forecastIn } from './forecast-in.ts';
import { readJobAt, shopOf, type ShopOptions } from './read-job.ts';
import { writeOut } from './write-out.ts';

interface StackOptions extends ShopOptions {
  csv?: string;
}

/** What lies on the plies of a job, what is wrong with it, how the bag measures, and what all of it takes. */
export function stack(file: string, options: StackOptions, { out }: Output): number {
  const job = readJobAt(file);
  const shop = shopOf(options);
  const length = (value: number) => formatQuantity(value, 'length');
  out(job.name);
  out('Layers, bag on top:');
  for (const layer of [...job.layers].reverse())
    out(`  ${layerWord(layer.kind)}: ${nameOf(job, layer.materialId)}`);
  const flow = forecastIn(job, shop);
  const breaks = checkStack(job, {
    ...{ shop, materials: job.materials, show: (value, quantity) => formatQuantity(value, quantity) },
    ...{ flow, verdict: flow && orNull(() => verdictOf(job, shop, flow)) },
  });
  for (const { message, fix } of breaks) out(`wrong  ${message}${fix ? ` ${fix.label}.` : ''}`);
  if (breaks.length === 0) out('Nothing missing, nothing short.');
  if (job.layers.some(({ kind }) => kind === 'bag')) {
    const bag = bagOf(job, shop);
    out(`Film ${length(bag.film.length)} by ${length(bag.film.width)}, tape ${length(bag.tape)}.`);
    for (const { name, height } of bag.pleats) out(`pleat  ${length(height)} high at ${name}`);
    for (const { name, todo } of bag.bridges) out(`bridges  ${name}: ${todo[0]}`);
  }
  const takeOff = takeOffOf(job, { shop, materials: job.materials, ...USUAL_CREW });
  for (const { name, amount, unit, why } of takeOff.items)
    out(`take  ${Math.round(100 * amount) / 100} ${unitWords[unit]} ${name} (${why})`);
  if (options.csv !== undefined) writeOut(options.csv, takeOffCsv(takeOff));
  return breaks.length === 0 ? exitCodes.fine.code : exitCodes.trouble.code;
}

const nameOf = (job: LaidJob, id: string | null) =>
  job.materials.find((own) => own.id === id)?.name ?? 'not chosen';
