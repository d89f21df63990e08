import type { Mould, MouldEvent } from '@wick/contract/mould';

const numberOf = (id: string) => Number(id.split('-')[1]) || 0;

/** One more thing that happened to a mould, under an id of its own. */
export function withEvent(mould: Mould, event: Omit<MouldEvent, 'id'>): Mould {
  const number = Math.max(0, ...mould.history.map(({ id }) => numberOf(id))) + 1;
  return { ...mould, history: [...mould.history, { id: `event-${number}`, ...event }] };
}
