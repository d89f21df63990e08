import { valueAt } from '@wick/core/flow/probe';
import type { Point } from '@wick/core/geometry/polygon';
import { isInside } from '@wick/core/layouts/frame';
import { newId } from '@wick/plan/job/ids';
import { partShapeOf } from '@wick/plan/layout/fit';
import { computed, shallowRef } from 'vue';
import type { Desk } from './desk.ts';
import type { Forecast } from './forecast.ts';

export interface Probe extends Point {
  readonly id: string;
  readonly name: string;
}

export interface ProbeHistory {
  readonly probe: Probe;
  /** s from first mix; NaN where the front does not come, Infinity past gel. */
  readonly arrival: number;
  readonly isOnPart: boolean;
  /** Share of the resin's life used when it comes. */
  readonly age: number | null;
  /** Pressure under the bag there, Pa absolute, against s from first mix. */
  readonly pressure: readonly { readonly time: number; readonly value: number }[];
}

const MOST = 8;

/** Places pinned on the board, with what the forecast tells of them over time. Pins belong to the screen, not to the job. */
export function createProbes({ session }: Desk, forecast: Forecast) {
  const probes = shallowRef<readonly Probe[]>([]);
  let count = 0;

  function pin({ x, y }: Point) {
    count += 1;
    probes.value = [...probes.value.slice(-(MOST - 1)), { id: newId(), name: `P${count}`, x, y }];
  }
  const has = (id: string) => probes.value.some((probe) => probe.id === id);
  const unpin = (id: string) => (probes.value = probes.value.filter((probe) => probe.id !== id));
  const move = (id: string, { x, y }: Point) =>
    (probes.value = probes.value.map((probe) => (probe.id === id ? { ...probe, x, y } : probe)));

  const histories = computed<ProbeHistory[]>(() => {
    const [flow, clock] = [forecast.flow.value, forecast.clock.value];
    if (!flow || !clock) return [];
    const part = partShapeOf(session.document);
    return probes.value.map((probe) => {
      const front = valueAt(flow.mesh, flow.arrival, probe);
      const arrival = Number.isNaN(front) ? NaN : forecast.timeOf(front);
      return {
        probe,
        arrival,
        isOnPart: isInside(part, probe),
        age: Number.isFinite(arrival) ? clock.ageAt(arrival) : null,
        pressure: flow.frames
          .map(({ time, pressure }) => ({
            time: forecast.timeOf(time),
            value: valueAt(flow.mesh, pressure, probe),
          }))
          .filter(({ time, value }) => Number.isFinite(time) && !Number.isNaN(value)),
      };
    });
  });

  return { probes, histories, has, pin, unpin, move };
}
