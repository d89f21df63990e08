import { createAdviceWork } from './advice-work.ts';
import type { Desk } from './desk.ts';
import { createMending } from './mending.ts';
import { createSuggestions } from './suggestions.ts';

/** Suggested layouts, and what would mend the one there is: simulated behind the board, with progress and cancel. */
export function createAdvice(desk: Desk) {
  const advice = createAdviceWork(desk);
  const { working, progress, simulated, message, isStale, cancel } = advice;
  return {
    ...createSuggestions(desk, advice),
    ...createMending(desk, advice),
    working,
    progress,
    simulated,
    message,
    isStale,
    cancel,
  };
}
