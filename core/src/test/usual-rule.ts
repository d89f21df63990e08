import type { JudgingRule } from '../verdict/rule.ts';

/** A rule for tests and benches to judge by; the workshop's own to start from stands with the shop. */
export const usualRule: JudgingRule = {
  comfortableChance: 0.95,
  tightChance: 0.8,
  comfortableTime: 0.5,
  tightTime: 0.8,
  usableViscosity: 0.8,
  usableGrowth: 3,
  shutInArea: 2e-4,
};
