import type { Instrument } from '@wick/contract/run/instrument';
import { isOf, type EntryOf, type RunState } from '../run/state.ts';
import type { Last } from '../run/watch.ts';

/** A thermometer has to have moved so far for it to be written down, K: its own steps and a door are not worth an entry. */
const MOVED = 0.5;

/**
 * What a thermometer says that is worth writing down: the one at the mould, else the one in the room; null where there is none, or it
 * stands where it stood.
 */
export function warmthToTell(
  { attached, entries }: Pick<RunState, 'attached' | 'entries'>,
  instruments: ReadonlyMap<string, Pick<Instrument, 'measures'>>,
  last: ReadonlyMap<string, Last>,
): EntryOf<'warmth'>['body'] | null {
  const at = (place: 'mould' | 'room') =>
    [...attached].find(
      ([id, hung]) => hung.place === place && instruments.get(id)?.measures === 'temperature' && last.has(id),
    )?.[0];
  const instrumentId = at('mould') ?? at('room');
  if (instrumentId === undefined) return null;
  const temperature = last.get(instrumentId)!.value;
  const told = entries.filter(isOf('warmth')).at(-1)?.body.temperature;
  if (told !== undefined && Math.abs(told - temperature) < MOVED) return null;
  return { kind: 'warmth', temperature, instrumentId };
}
