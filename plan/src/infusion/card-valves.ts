import type { EntryBody } from '@wick/contract/run/run';
import type { LaidJob } from '../job/laid.ts';

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
