import { valueAt } from '@wick/core/flow/probe';
import { ModelError } from '@wick/core/model-error';
import { createResinClock } from '@wick/core/resin/resin-clock';
import { formatClock } from '@wick/core/units/format';
import { assess, FINE_NODES } from '@wick/contract/assess';
import { missingOf, runConditionsOf } from '@wick/contract/forecast-input';
import { likelyWords, verdictSentence } from '@wick/contract/words';
import { CliError, exitCodes, type Output } from './exit-codes.ts';
import { numberIn, readJobAt, shopOf, type ShopOptions } from './read-job.ts';

interface SimulateOptions extends ShopOptions {
  json?: boolean;
  probe?: string[];
  nodes?: string;
}

export function simulate(file: string, options: SimulateOptions, { out }: Output): number {
  const probes = (options.probe ?? []).map(readProbe);
  const nodeCount = numberIn(options.nodes ?? String(FINE_NODES), '--nodes', 50, 60_000);
  const shop = shopOf(options);
  const job = readJobAt(file);
  const [missing] = missingOf(job);
  if (missing) throw new CliError('model', `${file}: ${missing.message}`);
  try {
    const { flow, verdict } = assess(job, shop, nodeCount);
    const run = runConditionsOf(job, shop)!;
    const clock = createResinClock(run.resin, run.temperature);
    const seconds = (fluidity: number) => clock.timeAtFluidity({ from: run.openTime, fluidity });
    const report = {
      job: job.name,
      verdict: verdict!,
      lastPlace: flow.lastPlace,
      events: flow.events.map((event) => ({ ...event, time: seconds(event.time) })),
      dryRegions: flow.dryRegions.map((region) => ({ ...region, time: seconds(region.time) })),
      probes: probes.map((place) => ({ place, time: seconds(valueAt(flow.mesh, flow.arrival, place)) })),
      nodes: flow.mesh.nodeCount,
      massError: flow.massError,
    };
    if (options.json) out(JSON.stringify(report, neverAsNull, 2));
    else printReport(report, out);
    return ['comfortable', 'tight', 'gamble'].includes(verdict!.band)
      ? exitCodes.fine.code
      : exitCodes.trouble.code;
  } catch (error) {
    if (error instanceof ModelError) throw new CliError('model', `${file}: ${error.message}`);
    throw error;
  }
}

function printReport(
  report: {
    job: string;
    verdict: Parameters<typeof verdictSentence>[0];
    lastPlace: { x: number; y: number };
    events: { name: string; kind: string; time: number }[];
    dryRegions: { place: { x: number; y: number }; area: number; time: number }[];
    probes: { place: { x: number; y: number }; time: number }[];
  },
  out: Output['out'],
) {
  const at = (place: { x: number; y: number }) => `${place.x.toFixed(3)}, ${place.y.toFixed(3)} m`;
  const clock = (time: number) => (Number.isFinite(time) ? formatClock(time) : 'not before gel');
  out(report.job);
  out(verdictSentence(report.verdict));
  out(
    `Last corner ${clock(report.verdict.fillTime)} at ${at(report.lastPlace)} (likely ${likelyWords(report.verdict)}); gel ${clock(report.verdict.gelTime)}. All from first mix.`,
  );
  for (const event of report.events) out(`${clock(event.time).padStart(8)}  ${event.name} ${event.kind}`);
  for (const region of report.dryRegions)
    out(
      `${clock(region.time).padStart(8)}  ${(region.area * 1e4).toFixed(0)} cm2 cut off from the vents near ${at(region.place)}`,
    );
  for (const probe of report.probes) out(`${clock(probe.time).padStart(8)}  front at ${at(probe.place)}`);
}

function readProbe(text: string) {
  const [x, y, ...rest] = text.split(',').map(Number);
  if (x === undefined || y === undefined || rest.length > 0 || !Number.isFinite(x) || !Number.isFinite(y))
    throw new CliError('usage', `--probe takes a place in metres such as 1.2,0.4, not “${text}”.`);
  return { x, y };
}

/** JSON has no infinity: a time that never comes is null. */
function neverAsNull(_key: string, value: unknown): unknown {
  return typeof value === 'number' && !Number.isFinite(value) ? null : value;
}
