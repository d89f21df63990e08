import { clockOf, type RunConditions, type SolvedFlow } from './verdict.ts';

/** A change someone could make without moving a line. */
export interface Change {
  readonly label: string;
  readonly run?: Partial<RunConditions>;
  /** Factor on the fluidity time of the layout, from another flow mesh; 1 when left out. */
  readonly flowFactor?: number;
}

export interface ChangeEffect {
  readonly label: string;
  readonly fillTime: number;
  readonly gelTime: number;
  /** Gel minus fill, s; negative infinity when it still gels first. */
  readonly margin: number;
}

/**
 * Fill and gel time after each change, best margin first. A change that the resin's data cannot answer is left out.
 * Margins of changes that do not fill are ordered by how far the resin gets.
 */
export function effectsOf(flow: SolvedFlow, run: RunConditions, changes: readonly Change[]): ChangeEffect[] {
  return changes
    .flatMap((change) => {
      try {
        return [effectOf(flow, { ...run, ...change.run }, change)];
      } catch {
        return [];
      }
    })
    .sort((a, b) => b.reach - a.reach)
    .map(({ label, fillTime, gelTime, margin }) => ({ label, fillTime, gelTime, margin }));
}

function effectOf(flow: SolvedFlow, run: RunConditions, { label, flowFactor = 1 }: Change) {
  const clock = clockOf(run);
  const needed = flow.fillTime * flowFactor;
  const fillTime = clock.timeAtFluidity({ from: run.openTime, fluidity: needed });
  const margin = clock.gelTime - fillTime;
  const reach =
    fillTime < Infinity ? margin : clock.fluidity({ from: run.openTime, to: clock.gelTime }) / needed - 1;
  return { label, fillTime, gelTime: clock.gelTime, margin, reach };
}
