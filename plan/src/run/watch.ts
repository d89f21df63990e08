import type { Instrument } from '@wick/contract/run/instrument';
import type { Alarm } from '@wick/contract/run/run';
import { absoluteOf, byFineness, isGauge } from './gauges.ts';
import type { RunState } from './state.ts';

/** An alarm that was answered sounds again where nothing has changed, after so long on the wall, ms. */
const AGAIN = 5 * 60_000;

/** What was read last of an instrument: ms since 1970, SI. */
export interface Last {
  readonly at: number;
  readonly value: number;
}

type Watched = Pick<Instrument, 'measures' | 'resolution'>;

/** The gauge on the bag that shows the finest steps of those that are not silent: a coarse one beside it calls nobody. */
function finestOnBag(
  { attached }: RunState,
  instruments: ReadonlyMap<string, Watched>,
  isHeard: (instrumentId: string) => boolean,
): string | null {
  const [finest] = [...attached]
    .flatMap(([id, { place }]) => {
      const instrument = instruments.get(id);
      return place === 'bag' && instrument && isGauge(instrument) && isHeard(id)
        ? [{ id, ...instrument }]
        : [];
    })
    .sort(byFineness);
  return finest?.id ?? null;
}

/**
 * Alarms that are due now: one of each cause and instrument at a time, until somebody has answered it.
 * @param now ms since 1970, by the clock of the run
 */
export function alarmsDue(
  state: RunState,
  {
    now,
    speed = 1,
    awakeSince = 0,
    ambientPressure,
    instruments,
    last,
  }: {
    readonly now: number;
    /** By which the clock of the run is quicker than the one on the wall. */
    readonly speed?: number;
    /** Since when it was looked without a break, ms since 1970 by the clock of the run: what was silent before may have had nobody to tell. */
    readonly awakeSince?: number;
    readonly ambientPressure: number;
    readonly instruments: ReadonlyMap<string, Watched>;
    readonly last: ReadonlyMap<string, Last>;
  },
): Alarm[] {
  if (!state.watch) return [];
  const { limits, since } = state.watch;
  const due: Alarm[] = [];
  const add = (alarm: Omit<Alarm, 'kind'>) => {
    if (!isKnown(state, alarm, now - speed * AGAIN)) due.push({ kind: 'alarm', ...alarm });
  };
  const finest = finestOnBag(state, instruments, (id) => {
    const at = last.get(id)?.at;
    return at !== undefined && (now - at) / 1000 <= limits.silence;
  });
  for (const [instrumentId, { place, since: hung }] of state.attached) {
    const instrument = instruments.get(instrumentId);
    if (!instrument) continue;
    const read = last.get(instrumentId);
    const heard = Math.max(read?.at ?? 0, since, hung, awakeSince);
    const quiet = (now - heard) / 1000;
    if (quiet > limits.silence)
      add({ cause: 'silence', instrumentId, value: read?.value ?? null, limit: limits.silence });
    if (!read) continue;
    if (instrument.measures === 'temperature' && (place === 'mould' || place === 'resin')) {
      const { coldest, warmest } = limits;
      const { value } = read;
      if (coldest !== null && value < coldest) add({ cause: 'cold', instrumentId, value, limit: coldest });
      if (warmest !== null && value > warmest) add({ cause: 'warm', instrumentId, value, limit: warmest });
    }
    if (instrumentId === finest && limits.pressure !== null) {
      const value = absoluteOf(instrument, read.value, ambientPressure);
      if (value > limits.pressure) add({ cause: 'pressure', instrumentId, value, limit: limits.pressure });
    }
  }
  return due;
}

/** Whether an alarm of that cause waits for an answer, or was answered a moment ago. */
function isKnown(state: RunState, alarm: Pick<Alarm, 'cause' | 'instrumentId'>, since: number): boolean {
  const latest = state.alarms
    .filter(({ entry: { body } }) => body.cause === alarm.cause && body.instrumentId === alarm.instrumentId)
    .at(-1);
  if (!latest) return false;
  const { answeredBy, entry } = latest;
  return answeredBy === null || Date.parse(answeredAt(state, entry.id) ?? entry.at) > since;
}

const answeredAt = (state: RunState, alarmId: string): string | undefined =>
  state.entries.find(({ body }) => body.kind === 'answered' && body.alarmId === alarmId)?.at;
