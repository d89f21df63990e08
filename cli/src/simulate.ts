import { FINE, FINE_LAYERS, forecastJob } from '@wick/plan/forecast/assess';
import { runsInLayers } from '@wick/plan/forecast/problem';
import { ModelError } from '@wick/core/model-error';
import { CliError, type Output } from './exit-codes.ts';
import { numberIn, readJobAt, requireFront, shopOf, type ShopOptions } from './read-job.ts';
import { printReport, reportOf, writeResults, type ResultOptions } from './report.ts';

interface SimulateOptions extends ShopOptions, ResultOptions {
  probe?: string[];
  nodes?: string;
  layers?: boolean;
}

export function simulate(file: string, options: SimulateOptions, output: Output): number {
  const probes = (options.probe ?? []).map(readProbe);
  const shop = shopOf(options);
  const job = readJobAt(file);
  const usual = (options.layers ?? runsInLayers(job)) ? FINE_LAYERS : FINE;
  const nodeCount = numberIn(options.nodes ?? String(usual.nodeCount), '--nodes', 50, 60_000);
  requireFront(job, file);
  try {
    const resolution = { ...usual, nodeCount, layers: options.layers };
    const flow = forecastJob(job, shop, resolution, progressOn(output));
    const report = reportOf(job, shop, flow, probes);
    writeResults(report, options);
    return printReport(report, options, output);
  } catch (error) {
    if (error instanceof ModelError) throw new CliError('model', `${file}: ${error.message}`);
    throw error;
  }
}

/** Says how far a long run is, beside what it prints in the end. @param now ms */
export function progressOn({ err }: Pick<Output, 'err'>, now: () => number = () => performance.now()) {
  const started = now();
  let told = started;
  return (filled: number): void => {
    if (now() - told < TELL_EVERY) return;
    told = now();
    err(`${(100 * filled).toFixed(1)} % filled after ${Math.round((told - started) / 1000)} s ...`);
  };
}
const TELL_EVERY = 3000;

function readProbe(text: string) {
  const [x, y, ...rest] = text.split(',').map(Number);
  if (x === undefined || y === undefined || rest.length > 0 || !Number.isFinite(x) || !Number.isFinite(y))
    throw new CliError('usage', `--probe takes a place in metres such as 1.2,0.4, not “${text}”.`);
  return { x, y };
}
