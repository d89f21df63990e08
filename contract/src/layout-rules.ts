import { between, nearestOnLine, pointAlong, stretchOf } from '@wick/core/geometry/along';
import { intersect, regionArea, type Region } from '@wick/core/geometry/overlay';
import { contains, distance, lineLength, type Point } from '@wick/core/geometry/polygon';
import type { FlowForecast } from '@wick/core/flow/forecast';
import { middleOf, roomAt, type PartShape } from '@wick/core/layouts/frame';
import { clockOf } from '@wick/core/verdict/verdict';
import { partShapeOf } from './fit-layout.ts';
import { isWettedByHand, materialOf, runConditionsOf } from './forecast-input.ts';
import { hoseOfLine, potLevelOf, stationOf } from './hoses.ts';
import type { Job, JobAction, JobLine } from './job.ts';
import { endMeshShort, MESH_GAP, meshAround } from './mesh-areas.ts';
import { partPatch, partSums } from './ply-book.ts';
import type { Shop } from './shop.ts';

/** Something about a layout that practice has taught not to do: where, why, and the change that mends it. */
export interface RuleBreak {
  readonly rule: RuleName;
  /** Line or mark that breaks it. */
  readonly itemId: string;
  readonly at: Point;
  readonly message: string;
  readonly fix: { readonly label: string; readonly apply: (job: Job) => Job } | null;
}

export interface RuleContext {
  readonly shop: Shop;
  /** The forecast of this very layout; null while there is none: what it would tell is then left out. */
  readonly flow: FlowForecast | null;
  readonly show: (value: number, quantity: 'length' | 'thickness' | 'mass') => string;
}

type Breaks = (Omit<RuleBreak, 'rule'> | false)[];
type Rule = (job: Job, context: RuleContext, part: PartShape) => Breaks;

/** m. A line this far beside the edge is still on it; usual distances: common practice, no source. */
const ON_EDGE = 2e-3;
const RACE_GAP = 0.03;
const RACE_CLEAR = 0.05;
/** Share of the pressure that a hose may take. */
const HOSE_SHARE = 0.15;

/** Common practice, no source. Checked by layout-rules.test.ts. */
export const layoutRules = {
  feedTouchesNoStack: (job, _, part) =>
    ofKind(job, 'feed').map(
      (line) =>
        !touches(part, line) && {
          ...about(line),
          message: `${line.name} lies beside the laminate: no resin would come in there.`,
          fix: {
            label: 'Move it onto the part',
            apply: edit(line.id, { points: movedOnto(part, line.points) }),
          },
        },
    ),

  meshReachesVent: (job, { show }) =>
    ofKind(job, 'vent').map((line) => {
      const at = samples(line).find((p) => meshAround(job, p));
      return (
        at !== undefined && {
          itemId: line.id,
          at,
          message: `Flow mesh reaches ${line.name}: once resin is there it runs straight to the vent and what is still dry stays so. Usual is a gap or brake of 40 to 80 mm.`,
          fix: {
            label: `End the mesh ${show(MESH_GAP, 'length')} short of it`,
            apply: (now) => endMeshShort(now, line, MESH_GAP),
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
          fix: { label: 'Open it from the start', apply: edit(line.id, { startsOpen: true }) },
        };
      return (
        !touches(part, line) && {
          ...about(line),
          message: `${line.name} has no path to the laminate: it lies beside it, and air cannot reach it.`,
          fix: {
            label: 'Move it to the edge',
            apply: edit(line.id, { points: movedOnto(part, line.points, 0) }),
          },
        }
      );
    }),

  ringFeedWithoutVent: (job, _, part) =>
    ofKind(job, 'feed').map((line) => {
      if (!isRing(line.points)) return false;
      const inside: Region = [{ outline: line.points, holes: [] }];
      const enclosed = regionArea(intersect(inside, [partPatch(job.part)]));
      const hasVent = ofKind(job, 'vent').some((vent) => samples(vent).some((p) => contains(line.points, p)));
      if (hasVent || enclosed < 0.02 * regionArea([partPatch(job.part)])) return false;
      const middle = middleOf({ outline: line.points, holes: part.holes }).place;
      return {
        itemId: line.id,
        at: middle,
        message: `${line.name} goes round a place without a vent: the front closes in on it and shuts air in.`,
        fix: { label: 'Put a vent in its middle', apply: addVent(middle) },
      };
    }),

  feedFacesRace: (job, { show }) =>
    ofKind(job, 'feed').flatMap((line) =>
      ofKind(job, 'race').map((race) => {
        const at = samples(line).find((p) => nearestOnLine(p, race.points).distance < RACE_GAP);
        return (
          at !== undefined && {
            itemId: line.id,
            at,
            message: `${line.name} feeds straight into ${race.name}: resin runs ahead in the gap, along the edge, and shuts in what lies behind.`,
            fix: {
              label: `Keep it ${show(RACE_CLEAR, 'length')} clear`,
              apply: edit(line.id, { points: [...clearOf(partShapeOf(job), line.points, race.points)] }),
            },
          }
        );
      }),
    ),

  hoseTooThin: (job, { flow, show }) =>
    (flow?.findings ?? []).map((finding) => {
      const line = finding.kind === 'hoseTakes' && job.lines.find(({ name }) => name === finding.name);
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
          fix: { label: 'Set the pot level with the inlet', apply: levelPot(line) },
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
            apply: (now) => {
              const [to] = movedOnto(part, [mark]);
              return { ...now, marks: now.marks.map((m) => (m.id === mark.id ? { ...m, ...to! } : m)) };
            },
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

/** Every rule that a layout breaks; none for a part that is wetted by hand. */
export function checkLayout(job: Job, context: RuleContext): RuleBreak[] {
  if (isWettedByHand(job)) return [];
  const part = partShapeOf(job);
  return (Object.entries(layoutRules) as [RuleName, Rule][]).flatMap(([rule, check]) =>
    check(job, context, part)
      .filter((found) => found !== false)
      .map((found) => ({ rule, ...found })),
  );
}

const ofKind = (job: Job, kind: JobLine['kind']) => job.lines.filter((line) => line.kind === kind);

const about = (line: JobLine) => ({
  itemId: line.id,
  at: line.points.length === 1 ? line.points[0]! : pointAlong(line.points, 0.5),
});

const edit =
  (id: string, changes: Partial<JobLine>) =>
  (job: Job): Job => ({
    ...job,
    lines: job.lines.map((line) => (line.id === id ? { ...line, ...rounded(changes) } : line)),
  });

const rounded = (changes: Partial<JobLine>): Partial<JobLine> =>
  changes.points
    ? {
        ...changes,
        points: changes.points.map(({ x, y }) => ({ x: Number(x.toFixed(4)), y: Number(y.toFixed(4)) })),
      }
    : changes;

const SAMPLES = 24;

const samples = ({ points }: Pick<JobLine, 'points'>): Point[] =>
  points.length === 1
    ? [points[0]!]
    : [...points, ...Array.from({ length: SAMPLES + 1 }, (_, i) => pointAlong(points, i / SAMPLES))];

const touches = (part: PartShape, line: JobLine) => samples(line).some((p) => roomAt(part, p) > -ON_EDGE);

/** The line shifted towards the part's middle until its own middle stands so far inside. */
function movedOnto(part: PartShape, points: readonly Point[], room = 0.03): Point[] {
  const from = points.length === 1 ? points[0]! : pointAlong(points, 0.5);
  const goal = middleOf(part);
  const enough = Math.min(room, goal.room / 2);
  let [low, high] = [0, 1];
  for (let n = 0; n < 40; n++) {
    const half = (low + high) / 2;
    if (roomAt(part, between(from, goal.place, half)) >= enough) high = half;
    else low = half;
  }
  const to = between(from, goal.place, high);
  return points.map((p) => ({ x: p.x + to.x - from.x, y: p.y + to.y - from.y }));
}

/** It comes back to where it starts, or nearly, and is not just a line there and back. */
function isRing(points: readonly Point[]): boolean {
  if (points.length < 4) return false;
  const length = lineLength(points);
  if (distance(points[0]!, points[points.length - 1]!) > 0.15 * length) return false;
  const area = regionArea([{ outline: points, holes: [] }]);
  return area > 0.01 * length * length;
}

const addVent =
  (at: Point) =>
  (job: Job): Job => {
    let number = 1;
    while (job.lines.some(({ id, name }) => id === `vent-${number}` || name === `Vent ${number}`))
      number += 1;
    const like = ofKind(job, 'vent')[0] ?? job.lines[0]!;
    const vent: JobLine = {
      ...like,
      id: `vent-${number}`,
      name: `Vent ${number}`,
      kind: 'vent',
      points: rounded({ points: [at] }).points!,
      tee: null,
      startsOpen: true,
      actions: [],
      potLevel: null,
      pinned: false,
    };
    return { ...job, lines: [...job.lines, vent] };
  };

/** The longest stretch of a line that keeps clear of a race; the line shifted inwards where none does. */
function clearOf(part: PartShape, points: readonly Point[], race: readonly Point[]): readonly Point[] {
  const isClear = (p: Point) => nearestOnLine(p, race).distance >= RACE_CLEAR;
  const steps = 200;
  let [best, start]: [[number, number] | null, number | null] = [null, null];
  if (points.length > 1)
    for (let i = 0; i <= steps + 1; i++) {
      const clear = i <= steps && isClear(pointAlong(points, i / steps));
      if (clear) start ??= i;
      else if (start !== null) {
        if (!best || i - 1 - start > best[1] - best[0]) best = [start, i - 1];
        start = null;
      }
    }
  if (best && best[1] - best[0] > 0.2 * steps) return stretchOf(points, best[0] / steps, best[1] / steps);
  const goal = middleOf(part).place;
  const from = points.length === 1 ? points[0]! : pointAlong(points, 0.5);
  for (let s = 0.02; s < 1; s += 0.02) {
    const by = { x: s * (goal.x - from.x), y: s * (goal.y - from.y) };
    const moved = points.map((p) => ({ x: p.x + by.x, y: p.y + by.y }));
    if (samples({ points: moved }).every(isClear)) return moved;
  }
  return points;
}

/** Bores that hoses are sold in, m: common practice, no source. */
const BORES = [0.008, 0.01, 0.012, 0.016, 0.02, 0.025, 0.032];
const USUAL_BORE = 0.012;

/**
 * The next bore at which the hose would take no more than its share of what it draws now: its resistance falls with the fourth
 * power (Hagen-Poiseuille). It will then draw more, so the usual bore is the least.
 */
function widerBore(bore: number, share: number): number {
  const ratio = share / (1 - share) / (HOSE_SHARE / (1 - HOSE_SHARE));
  const wanted = Math.max(USUAL_BORE, bore * ratio ** 0.25);
  return BORES.find((size) => size > bore && size >= wanted) ?? Math.ceil(1000 * wanted) / 1000;
}

/** The hose, or that of the tee it hangs on, which carries all of it. */
const widen =
  (line: JobLine, bore: number) =>
  (job: Job): Job => ({
    ...edit(line.id, { hoseBore: bore, hoseId: null })(job),
    tees: job.tees.map((tee) =>
      tee.id === line.tee ? { ...tee, hoseBore: Math.max(tee.hoseBore, bore) } : tee,
    ),
  });

const levelPot =
  (line: JobLine) =>
  (job: Job): Job => {
    const pot = stationOf(job, line);
    const own = line.potLevel !== null ? edit(line.id, { potLevel: null })(job) : job;
    return !pot || !((pot.level ?? 0) > 0)
      ? own
      : { ...own, stations: own.stations.map((s) => (s.id === pot.id ? { ...s, level: 0 } : s)) };
  };

/** Pieces end to end, each with the line's own behaviour and its own hose. */
const inPieces =
  (line: JobLine, count: number) =>
  (job: Job): Job => {
    const taken = new Set([...job.lines, ...job.marks, ...job.tees, ...job.zones].map(({ id }) => id));
    const pieces = Array.from({ length: count }, (_, i): JobLine => {
      const points = stretchOf(line.points, i / count, (i + 1) / count);
      if (i === 0) return { ...line, ...rounded({ points }) };
      let number = i + 1;
      while (taken.has(`${line.id}-${number}`)) number += 1;
      const id = `${line.id}-${number}`;
      taken.add(id);
      const own = (what: string) => (what === line.id ? id : what);
      const actions = line.actions.map((action): JobAction =>
        'what' in action.when ? { ...action, when: { ...action.when, what: own(action.when.what) } } : action,
      );
      return {
        ...line,
        id,
        name: `${line.name}, piece ${i + 1}`.slice(0, 40),
        ...rounded({ points }),
        actions,
      };
    });
    return { ...job, lines: job.lines.flatMap((old) => (old.id === line.id ? pieces : [old])) };
  };

/** Why an action can never come, or null. */
function whyNever(
  { opening, when }: JobAction,
  line: JobLine,
  job: Job,
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
      if (other && !touches(part, other)) return `${other.name} does not touch the part`;
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
      const density = materialOf(job, job.resin.materialId, 'resin')?.density;
      const all = density && density * allResin(job, shop);
      if (all && when.mass > 2 * all)
        return `the part takes ${show(all, 'mass')}, and it waits for ${show(when.mass, 'mass')}`;
      break;
    }
  }
  const found = flow?.findings.some(
    (finding) =>
      finding.kind === 'neverTriggers' && finding.name === line.name && finding.opening === opening,
  );
  return found ? 'what it waits for does not come in this forecast' : null;
}

/** A line is open at the start, or an opening of it hangs on nothing that hangs on it. */
function canOpen(id: string, job: Job, waiting: ReadonlySet<string>): boolean {
  const line = job.lines.find((candidate) => candidate.id === id);
  if (!line) return false;
  if (line.startsOpen) return true;
  if (waiting.has(id)) return false;
  return line.actions.some(
    ({ opening, when }) =>
      opening > 0 && (when.kind !== 'opened' || canOpen(when.what, job, new Set([...waiting, id]))),
  );
}

function allResin(job: Job, shop: Shop): number {
  const { resinInPlies, resinInConsumables, resinInCore } = partSums(job, shop);
  return resinInPlies + resinInConsumables + resinInCore;
}

const retrigger =
  (line: JobLine, action: JobAction, remove = false) =>
  (job: Job): Job => {
    const when = { kind: 'passed' as const, what: line.id, distance: 0, delay: 0 };
    const actions = remove
      ? line.actions.filter((own) => own !== action)
      : line.actions.map((own) => (own === action ? { ...own, when } : own));
    return edit(line.id, { actions })(job);
  };
