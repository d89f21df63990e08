import type { EntryBody } from '@wick/contract/run/run';
import type { LaidJob } from '../job/laid.ts';
import type { Infusion } from './infusion.ts';

type Valve = Extract<EntryBody, { kind: 'valve' }>;

const STEP = 'valve';
const START = '-start';

/** The step of the card that a turn does; the card may not have it. */
export const stepIdOf = ({ actionId, lineId }: Pick<Valve, 'actionId' | 'lineId'>): string =>
  `${STEP}:${actionId ?? `${lineId}${START}`}`;

/** The turn that a step of the card is, so that who works by the card tells the forecast too; null of any other step. */
export function valveOf({ lines }: Pick<LaidJob, 'lines'>, stepId: string): Valve | null {
  for (const { id: lineId, actions } of lines) {
    if (stepId === stepIdOf({ actionId: null, lineId }))
      return { kind: 'valve', lineId, opening: 1, actionId: null };
    const action = actions.find(({ id }) => stepId === stepIdOf({ actionId: id, lineId }));
    if (action) return { kind: 'valve', lineId, opening: action.opening, actionId: action.id };
  }
  return null;
}

/** A line turned by hand: the plan's own turn where it waits for just that, one that nobody planned otherwise. */
export function handTurn(
  { lines }: Pick<LaidJob, 'lines'>,
  { turned }: Pick<Infusion, 'turned'>,
  lineId: string,
  opening: number,
): Valve {
  const done = new Set(turned.map(({ actionId }) => actionId));
  const action = lines
    .find(({ id }) => id === lineId)
    ?.actions.find((one) => one.opening === opening && !done.has(one.id));
  return { kind: 'valve', lineId, opening, actionId: action?.id ?? null };
}
