import type { FlowForecast } from '@wick/core/flow/forecast';
import { writeNodesCsv } from '@wick/core/results/nodes-csv';
import { writeVtu, type NodalField } from '@wick/core/results/vtu';
import type { Timeline } from '../forecast/assess.ts';

/** Nodal results with their units in their names: SI, times in s since first mix, empty or nan where resin does not come. */
export function fieldsOf(flow: FlowForecast, { clockTime }: Timeline): NodalField[] {
  const onClock = (times: Float64Array) =>
    times.map((time) => (Number.isNaN(time) ? NaN : finite(clockTime(time))));
  const { final, lag, ageAtArrival, frames, layers } = flow;
  const fields: NodalField[] = [{ name: 'arrival_s', values: onClock(flow.arrival) }];
  if (layers.length > 1)
    layers.forEach(({ name, arrival }) =>
      fields.push({
        name: `arrival_${name.toLowerCase().replaceAll(/[^a-z]+/g, '_')}_s`,
        values: onClock(arrival),
      }),
    );
  if (lag) fields.push({ name: 'lag_m', values: lag.length });
  if (frames.length > 0)
    fields.push({ name: 'pressure_end_pa', values: Float64Array.from(frames[frames.length - 1]!.pressure) });
  if (final)
    fields.push(
      { name: 'final_thickness_m', values: final.thickness },
      { name: 'final_fibre_volume_fraction', values: final.fraction },
      { name: 'final_pressure_pa', values: final.pressure },
    );
  if (ageAtArrival) fields.push({ name: 'life_used_on_arrival', values: ageAtArrival });
  return fields;
}

const finite = (time: number) => (Number.isFinite(time) ? time : NaN);

export const vtuOf = (flow: FlowForecast, timeline: Timeline) =>
  writeVtu(flow.mesh, fieldsOf(flow, timeline));
export const csvOf = (flow: FlowForecast, timeline: Timeline) =>
  writeNodesCsv(flow.mesh, fieldsOf(flow, timeline));
