import type { JudgingRule } from '../verdict/rule.ts';

/** Common practice, no source. */
export const usualRule: JudgingRule = {
  comfortableChance: 0.95,
  tightChance: 0.8,
  comfortableTime: 0.5,
  tightTime: 0.8,
  usableViscosity: 0.8,
  usableGrowth: 3,
  shutInArea: 2e-4,
};
