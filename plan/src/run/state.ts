import type { Alarm, Entry, EntryBody, Limits, Place } from '@wick/contract/run/run';

/** One entry whose body is of a kind. */
export type EntryOf<K extends EntryBody['kind']> = Entry & { readonly body: Extract<EntryBody, { kind: K }> };

export const isOf =
  <K extends EntryBody['kind']>(kind: K) =>
  (entry: Entry): entry is EntryOf<K> =>
    entry.body.kind === kind;

/** A time in which the bag was shut off, from the entry that shut it to the one that ended that; in order of happening. */
export interface ShutTime {
  readonly id: string;
  /** ms since 1970 */
  readonly from: number;
  /** null while it is shut. */
  readonly to: number | null;
  /** The verdict that was written down last. */
  readonly judged: EntryOf<'judged'>['body'] | null;
}

export interface WatchState {
  readonly watcher: string;
  readonly limits: Limits;
  /** ms since 1970 */
  readonly since: number;
  /** Those before, in order. */
  readonly before: readonly string[];
}

/** Where a run stands, by everything that was said of it. */
export interface RunState {
  /** Entries that count: those struck out do not. */
  readonly entries: readonly Entry[];
  readonly valve: 'none' | 'pull' | 'shut' | 'letGo';
  /** ms since 1970, since when it stands so. */
  readonly valveSince: number | null;
  readonly pulls: readonly number[];
  readonly shutTimes: readonly ShutTime[];
  /** Which instrument hangs where, with since when, ms. */
  readonly attached: ReadonlyMap<string, { readonly place: Place; readonly since: number }>;
  readonly looked: ReadonlyMap<string, EntryOf<'looked'>>;
  readonly watch: WatchState | null;
  readonly alarms: readonly {
    readonly entry: Entry & { readonly body: Alarm };
    readonly answeredBy: string | null;
  }[];
  readonly expansion: EntryOf<'expansion'>['body'] | null;
  readonly clamped: readonly string[];
}

/** Reads a run off its entries, in the order of their times; entries of the same time as they came in. */
export function runStateOf(all: readonly Entry[]): RunState {
  const struck = new Set(all.filter(isOf('struck')).map(({ body }) => body.entryId));
  const entries = all
    .filter(({ id, body }) => !struck.has(id) && body.kind !== 'struck')
    .sort((a, b) => Date.parse(a.at) - Date.parse(b.at) || a.order - b.order);
  const attached = new Map<string, { place: Place; since: number }>();
  const looked = new Map<string, EntryOf<'looked'>>();
  const answers = new Map<string, string>();
  const shutTimes: { id: string; from: number; to: number | null; judged: ShutTime['judged'] }[] = [];
  const pulls: number[] = [];
  let valve: RunState['valve'] = 'none';
  let valveSince: number | null = null;
  let watch = null as WatchState | null;
  let expansion: RunState['expansion'] = null;
  let clamped: readonly string[] = [];
  for (const entry of entries) {
    const { body } = entry;
    const at = Date.parse(entry.at);
    switch (body.kind) {
      case 'attach':
        attached.set(body.instrumentId, { place: body.place, since: at });
        break;
      case 'detach':
        attached.delete(body.instrumentId);
        break;
      case 'pull':
      case 'shut':
      case 'letGo': {
        const open = shutTimes.at(-1);
        if (body.kind === 'shut' && valve === 'shut') break;
        if (open && open.to === null) open.to = at;
        if (body.kind === 'shut') shutTimes.push({ id: entry.id, from: at, to: null, judged: null });
        if (body.kind === 'pull') pulls.push(at);
        [valve, valveSince] = [body.kind, at];
        break;
      }
      case 'judged': {
        const time = shutTimes.find(({ id }) => id === body.shutId);
        if (time) time.judged = body;
        break;
      }
      case 'looked':
        looked.set(body.placeId, { ...entry, body });
        break;
      case 'clamped':
        clamped = body.lineIds;
        break;
      case 'expansion':
        expansion = body;
        break;
      case 'watch': {
        watch = {
          ...{ watcher: body.watcher, limits: body.limits, since: at },
          before: watch ? [...watch.before, watch.watcher] : [],
        };
        break;
      }
      case 'watchEnds':
        watch = null;
        break;
      case 'answered':
        answers.set(body.alarmId, entry.by);
        break;
      default:
    }
  }
  const alarms = entries
    .filter(isOf('alarm'))
    .map((entry) => ({ entry, answeredBy: answers.get(entry.id) ?? null }));
  return {
    ...{ entries, valve, valveSince, pulls, shutTimes, attached, looked, watch, alarms, expansion, clamped },
  };
}
