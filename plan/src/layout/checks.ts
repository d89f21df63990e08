import type { JobAction, JobLine } from '@wick/contract/job/job';
import type { Shop } from '@wick/contract/shop';
import type { FlowForecast } from '@wick/core/flow/forecast';
import { nearestOnLine } from '@wick/core/geometry/along';
import { intersect, regionArea, type Region } from '@wick/core/geometry/overlay';
import { contains, distance, lineLength, type Point } from '@wick/core/geometry/polygon';
import { middleOf, roomAt, type PartShape } from '@wick/core/layouts/frame';
import { clockOf } from '@wick/core/verdict/verdict';
import type { Edit } from '../job/edits.ts';
import type { LaidJob } from '../job/laid.ts';
import { partSums } from '../laminate/ply-book.ts';
import { partPatch } from '../part/patch.ts';
import { hasFront } from '../processes/processes.ts';
import { runConditionsOf } from '../resin/run.ts';
import { materialOf } from '../job/material-of.ts';
import { settledIn } from '../settle.ts';
import { updateLine } from './edits.ts';
import { partShapeOf } from './fit.ts';
import {
  addVent,
  clearOf,
  inPieces,
  levelPot,
  movedOnto,
  RACE_CLEAR,
  retrigger,
  widen,
  widerBore,
  withPoints,
} from './fixes.ts';
import { hoseOfLine, potLevelOf, stationOf } from './hoses.ts';
import { middleOfLine, ofKind, samplesOf, touchesPart } from './lines.ts';
import { updateMark } from './marks.ts';
import { endMeshShort, MESH_GAP, meshAround } from './mesh-areas.ts';

/** Something about a layout that practice has taught not to do: where, why, and the change that mends it. */
export interface RuleBreak {
  readonly rule: RuleName;
  /** Line or mark that breaks it. */
  readonly itemId: string;
  readonly at: Point;
  readonly message: string;
  readonly fix: { readonly label: string; readonly apply: Edit } | null;
}

export interface RuleContext {
  readonly shop: Shop;
  /** The forecast of this very layout; null while there is none: what it would tell is then left out. */
  readonly flow: FlowForecast | null;
  readonly show: (value: number, quantity: 'length' | 'thickness' | 'mass') => string;
}

type Breaks = (Omit<RuleBreak, 'rule'> | false)[];
type Rule = (job: LaidJob, context: RuleContext, part: PartShape) => Breaks;

/** m. Usual distances: common practice, no source. */
const RACE_GAP = 0.03;

/** Common practice, no source. Checked by layout-rules.test.ts. */
export const layoutRules = {
  feedTouchesNoStack: (job, _, part) =>
    ofKind(job, 'feed').map(
      (line) =>
        !touchesPart(part, line) && {
          ...about(line),
          message: `${line.name} lies beside the laminate: no resin would come in there.`,
          fix: {
            label: 'Move it onto the part',
            apply: withPoints(line.id, movedOnto(part, line.points)),
          },
        },
    ),

  meshReachesVent: (job, { show }) =>
    ofKind(job, 'vent').map((line) => {
      const at = samplesOf(line).find((p) => meshAround(job, p));
      return (
        at !== undefined && {
          itemId: line.id,
          at,
          message: `Flow mesh reaches ${line.name}: once resin is there it runs straight to the vent and what is still dry stays so. Usual is a gap or brake of 40 to 80 mm.`,
          fix: {
            label: `End the mesh ${show(MESH_GAP, 'length')} short of it`,
            apply: endMeshShort(line, MESH_GAP),
          },
        }
      );
    }),

  ventHasNoPath: (job, _, part) =>
    ofKind(job, 'vent').map((line) => {
      const opens = line.startsOpen || line.actions.some(({ opening }) => opening > 0);
      if (!opens)
        return {
          ...about(line),
          message: `${line.name} is shut and nothing opens it: no air leaves there.`,
          fix: { label: 'Open it from the start', apply: updateLine(line.id, { startsOpen: true }) },
        };
      return (
        !touchesPart(part, line) && {
          ...about(line),
          message: `${line.name} has no path to the laminate: it lies beside it, and air cannot reach it.`,
          fix: {
            label: 'Move it to the edge',
            apply: withPoints(line.id, movedOnto(part, line.points, 0)),
          },
        }
      );
    }),

  ringFeedWithoutVent: (job, _, part) =>
    ofKind(job, 'feed').map((line) => {
      if (!isRing(line.points)) return false;
      const inside: Region = [{ outline: line.points, holes: [] }];
      const enclosed = regionArea(intersect(inside, [partPatch(job.part)]));
      const hasVent = ofKind(job, 'vent').some((vent) =>
        samplesOf(vent).some((p) => contains(line.points, p)),
      );
      if (hasVent || enclosed < 0.02 * regionArea([partPatch(job.part)])) return false;
      const middle = middleOf({ outline: line.points, holes: part.holes }).place;
      return {
        itemId: line.id,
        at: middle,
        message: `${line.name} goes round a place without a vent: the front closes in on it and shuts air in.`,
        fix: { label: 'Put a vent in its middle', apply: addVent(middle) },
      };
    }),

  feedFacesRace: (job, { show }, part) =>
    ofKind(job, 'feed').flatMap((line) =>
      ofKind(job, 'race').map((race) => {
        const at = samplesOf(line).find((p) => nearestOnLine(p, race.points).distance < RACE_GAP);
        return (
          at !== undefined && {
            itemId: line.id,
            at,
            message: `${line.name} feeds straight into ${race.name}: resin runs ahead in the gap, along the edge, and shuts in what lies behind.`,
            fix: {
              label: `Keep it ${show(RACE_CLEAR, 'length')} clear`,
              apply: withPoints(line.id, clearOf(part, line.points, race.points)),
            },
          }
        );
      }),
    ),

  hoseTooThin: (job, { flow, show }) =>
    (flow?.findings ?? []).map((finding) => {
      const line = finding.kind === 'hoseTakes' && job.lines.find(({ id }) => id === finding.lineId);
      if (!line) return false;
      const { bore } = hoseOfLine(job, line);
      const needed = widerBore(bore, finding.share);
      return {
        ...about(line),
        message: `The hose of ${line.name} (${show(bore, 'thickness')}) is thin for what is drawn through it: it takes ${Math.round(100 * finding.share)} % of the pressure half way through.`,
        fix: { label: `Take a ${show(needed, 'thickness')} hose`, apply: widen(line, needed) },
      };
    }),

  potAboveInlet: (job, { show }) =>
    ofKind(job, 'feed').map((line) => {
      const level = potLevelOf(job, line);
      return (
        level > 1e-3 && {
          ...about(line),
          message: `The resin for ${line.name} stands ${show(level, 'length')} above its inlet: it is pushed in faster than it leaves, and behind the front the bag floats.`,
          fix: {
            label: 'Set the pot level with the inlet',
            apply: levelPot(line, stationOf(job, line)?.id ?? null),
          },
        }
      );
    }),

  longerThanStock: (job, { show }) =>
    job.lines.map((line) => {
      const stock = materialOf(job, line.stockId, 'line');
      const length = lineLength(line.points);
      const most = stock?.coilLength ?? Infinity;
      return (
        length > most && {
          ...about(line),
          message: `${line.name} is ${show(length, 'length')} long; ${stock!.name} comes in ${show(most, 'length')}.`,
          fix: {
            label: `Lay it in ${Math.ceil(length / most)} pieces`,
            apply: inPieces(line, Math.ceil(length / most)),
          },
        }
      );
    }),

  markOutside: (job, _, part) =>
    job.marks.map(
      (mark) =>
        roomAt(part, mark) < -1e-6 && {
          itemId: mark.id,
          at: { x: mark.x, y: mark.y },
          message: `${mark.name} lies off the part: no front comes there.`,
          fix: {
            label: 'Move it onto the part',
            apply: updateMark(mark.id, movedOnto(part, [mark])[0]!),
          },
        },
    ),

  neverTriggers: (job, context, part) =>
    job.lines.flatMap((line) =>
      line.actions.map((action) => {
        const why = whyNever(action, line, job, context, part);
        return (
          why !== null && {
            ...about(line),
            message: `${line.name} never ${action.opening > 0 ? 'opens' : 'shuts'}: ${why}.`,
            fix:
              action.opening > 0 && line.kind === 'feed'
                ? { label: 'Open it when the front has passed it', apply: retrigger(line, action) }
                : { label: 'Take the step out', apply: retrigger(line, action, true) },
          }
        );
      }),
    ),
} satisfies Record<string, Rule>;

export type RuleName = keyof typeof layoutRules;

/** Every rule that a layout breaks; none for a part through which no resin is drawn. */
export function checkLayout(job: LaidJob, context: RuleContext): RuleBreak[] {
  if (!hasFront(job)) return [];
  const part = partShapeOf(job);
  return (Object.entries(layoutRules) as [RuleName, Rule][]).flatMap(([rule, check]) =>
    check(job, context, part)
      .filter((found) => found !== false)
      .map((found) => ({ rule, ...found })),
  );
}

const about = (line: JobLine) => ({ itemId: line.id, at: middleOfLine(line.points) });

/** It comes back to where it starts, or nearly, and is not just a line there and back. */
function isRing(points: readonly Point[]): boolean {
  if (points.length < 4) return false;
  const length = lineLength(points);
  if (distance(points[0]!, points[points.length - 1]!) > 0.15 * length) return false;
  const area = regionArea([{ outline: points, holes: [] }]);
  return area > 0.01 * length * length;
}

/** Why an action can never come, or null. */
function whyNever(
  { id, opening, when }: JobAction,
  line: JobLine,
  job: LaidJob,
  { shop, flow, show }: RuleContext,
  part: PartShape,
): string | null {
  switch (when.kind) {
    case 'time': {
      const run = runConditionsOf(job, shop);
      if (run && opening > 0 && when.time >= clockOf(run).gelTime) return 'its minute lies after gel';
      break;
    }
    case 'passed': {
      const mark = job.marks.find(({ id }) => id === when.what);
      if (mark && roomAt(part, mark) < -1e-6) return `${mark.name} lies off the part`;
      const other = job.lines.find(({ id }) => id === when.what);
      if (other && !touchesPart(part, other)) return `${other.name} does not touch the part`;
      break;
    }
    case 'opened':
      if (!canOpen(when.what, job, new Set([line.id]))) {
        const other = job.lines.find(({ id }) => id === when.what);
        return when.what === line.id || !other
          ? 'it waits for itself'
          : `${other.name}, which it waits for, does not open before it`;
      }
      break;
    case 'drawn': {
      const all = settledIn(job, 'resin.density') * allResin(job, shop);
      if (all > 0 && when.mass > 2 * all)
        return `the part takes ${show(all, 'mass')}, and it waits for ${show(when.mass, 'mass')}`;
      break;
    }
  }
  const found = flow?.findings.some((finding) => finding.kind === 'neverTriggers' && finding.actionId === id);
  return found ? 'what it waits for does not come in this forecast' : null;
}

/** A line is open at the start, or an opening of it hangs on nothing that hangs on it. */
function canOpen(id: string, job: LaidJob, waiting: ReadonlySet<string>): boolean {
  const line = job.lines.find((candidate) => candidate.id === id);
  if (!line) return false;
  if (line.startsOpen) return true;
  if (waiting.has(id)) return false;
  return line.actions.some(
    ({ opening, when }) =>
      opening > 0 && (when.kind !== 'opened' || canOpen(when.what, job, new Set([...waiting, id]))),
  );
}

function allResin(job: LaidJob, shop: Shop): number {
  const { resinInPlies, resinInConsumables, resinInCore } = partSums(job, shop);
  return resinInPlies + resinInConsumables + resinInCore;
}
