import { runConditionsOf } from '../resin/run.ts';
import { expect, test } from '@jest/globals';
import { clockOf } from '@wick/core/verdict/verdict';
import { assess, timelineOf } from '../forecast/assess.ts';
import { demoShop } from '../demo/jobs.ts';
import { laidDemos } from '../test/laid-demos.ts';
import type { LaidJob } from '../job/laid.ts';
import { csvOf, fieldsOf, vtuOf } from './results-out.ts';

function resultsOf(job: LaidJob, layers?: boolean) {
  const { flow } = assess(job, demoShop, { nodeCount: 250, steps: 40, layers });
  const run = runConditionsOf(job, demoShop)!;
  return { flow, timeline: timelineOf(flow, clockOf(run), run.openTime), run };
}

test('each result stands under a name with its unit, and only where the forecast has it', () => {
  const names = (job: LaidJob, layers?: boolean) => {
    const { flow, timeline } = resultsOf(job, layers);
    return fieldsOf(flow, timeline).map(({ name }) => name);
  };
  expect(names(laidDemos[1]!, false)).toEqual(['arrival_s', 'pressure_end_pa']);
  const layered = names(laidDemos[2]!);
  expect(layered).toEqual(expect.arrayContaining(['arrival_flow_mesh_s', 'arrival_mould_side_s', 'lag_m']));
  expect(layered).toEqual(expect.arrayContaining(['final_thickness_m', 'final_fibre_volume_fraction']));
  const warm: LaidJob = { ...laidDemos[1]!, resin: { ...laidDemos[1]!.resin, mouldTemperature: 293.15 } };
  expect(names(warm, false)).toContain('life_used_on_arrival');
});

test('arrivals are seconds since first mix, and nothing is written for what comes after gel', () => {
  const { flow, timeline, run } = resultsOf(laidDemos[0]!, false);
  const [arrival] = fieldsOf(flow, timeline);
  const gel = clockOf(run).gelTime;
  const known = Array.from(arrival!.values).filter((time) => !Number.isNaN(time));
  // The hose is full when the feed opens; the line itself takes a moment.
  expect(Math.min(...known)).toBeGreaterThanOrEqual(run.openTime);
  expect(Math.min(...known)).toBeLessThan(run.openTime + 5);
  expect(Math.max(...known)).toBeLessThanOrEqual(gel);
  // The failing demo gels before its far end is wet.
  expect(known.length).toBeLessThan(flow.mesh.nodeCount);
  const rows = csvOf(flow, timeline).trimEnd().split('\n').slice(1);
  expect(rows.filter((row) => row.split(',')[3] === '').length).toBe(flow.mesh.nodeCount - known.length);
  expect(vtuOf(flow, timeline).match(/\bnan\b/g)!.length).toBe(flow.mesh.nodeCount - known.length);
});
