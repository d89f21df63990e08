import type { StepLibrary } from '@wick/contract/steps';
import { afterwards, filling, leakCheck } from './usual/filling.ts';
import { bagging, layUp } from './usual/laying.ts';
import { beforeLaying, onMould } from './usual/preparing.ts';
import { recipes } from './usual/recipes.ts';

/** Of windows whose resin nobody has measured, J/mol: common practice, no source. */
const USUAL_ENERGY = 60_000;

/** What a workshop starts with, for it to change: common practice, no source. */
export const usualSteps: StepLibrary = {
  steps: [...onMould, ...beforeLaying, ...layUp, ...bagging, ...leakCheck, ...filling, ...afterwards],
  recipes,
  activationEnergy: USUAL_ENERGY,
};
