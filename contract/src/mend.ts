import { compareScores, costOf, fillsInTime, hasDryRegion, type LayoutScore } from '@wick/core/advice/score';
import { nearestOnLine, pointAlong } from '@wick/core/geometry/along';
import { boundsOf, distance, type Point } from '@wick/core/geometry/polygon';
import { roomAt, spansAcross, framesOf } from '@wick/core/layouts/frame';
import { partShapeOf } from './fit-layout.ts';
import type { Job, JobLine } from './job.ts';
import type { Material } from './materials.ts';
import { computeStack } from '@wick/core/laminate/stack';
import { materialOf, stackRequestOf } from './forecast-input.ts';
import type { Shop } from './shop.ts';

/** A change that might mend a job, in sizes from small to large. */
export interface Remedy {
  readonly id: string;
  readonly kind: 'move' | 'order' | 'warmer' | 'resin' | 'mesh' | 'addFeed' | 'hose';
  /** Work and upset of it, small is better; of two sizes the smaller one costs less. */
  readonly effort: number;
  readonly sizes: readonly { readonly words: string; readonly apply: (job: Job) => Job }[];
}

/** A remedy that was simulated and helps. */
export interface Repair {
  readonly id: string;
  readonly kind: Remedy['kind'];
  readonly words: string;
  readonly score: LayoutScore;
  /** It brings the last corner to a comfortable or tight time, without a dry place. */
  readonly isEnough: boolean;
  readonly apply: (job: Job) => Job;
}

export interface RemedyContext {
  readonly shop: Shop;
  /** What the workshop has. */
  readonly materials: readonly Material[];
  /** Where the front comes last, or not at all. */
  readonly lastPlace: Point;
  readonly show: (value: number, quantity: 'length' | 'thickness' | 'temperatureDifference') => string;
  /** Feeds whose hose takes much of the pressure, by name. */
  readonly thinHoses: readonly string[];
}

/** Share of the resin's life at which a repair is enough: common practice, no source. */
const ENOUGH = 0.8;
/** Moves tried on either side, as shares of the room there. */
const MOVES = [0.06, 0.12, 0.2, 0.3, 0.42, 0.56, 0.72, 0.9];
const WARMER = [2, 4, 6, 8];

/** Everything that is worth trying on a job that fails: one thing changed at a time. */
export function remediesFor(job: Job, context: RemedyContext): Remedy[] {
  return [
    ...moves(job, context),
    ...orders(job),
    ...warmer(job, context),
    ...otherResins(job, context),
    ...otherMeshes(job, context),
    ...furtherFeeds(job, context),
    ...widerHoses(job, context),
  ];
}

/**
 * Simulates remedies and keeps those that help, what is enough first, then by effort and size.
 * @param simulate score of a changed job; null where it cannot run
 */
export async function findRepairs(
  job: Job,
  remedies: readonly Remedy[],
  simulate: (job: Job) => Promise<LayoutScore | null>,
  onProgress: (done: number) => void = () => undefined,
): Promise<Repair[]> {
  const now = await simulate(job);
  const total = remedies.reduce((sum, { sizes }) => sum + sizes.length, 0);
  let done = 0;
  const found = await Promise.all(
    remedies.map(async (remedy) => {
      const scores = await Promise.all(
        remedy.sizes.map(async ({ apply }) => {
          const score = await simulate(apply(job));
          onProgress(++done / total);
          return score;
        }),
      );
      return repairOf(remedy, scores, now);
    }),
  );
  const effort = new Map(remedies.map((remedy) => [remedy.id, remedy.effort]));
  return found
    .filter((repair) => repair !== null)
    .sort(
      (a, b) =>
        Number(b.isEnough) - Number(a.isEnough) ||
        (a.isEnough ? effort.get(a.id)! - effort.get(b.id)! : 0) ||
        compareScores(a.score, b.score),
    );
}

/** The smallest size that is enough; where none is, the one that gets farthest, if that is better than now. */
function repairOf(
  remedy: Remedy,
  scores: readonly (LayoutScore | null)[],
  now: LayoutScore | null,
): Repair | null {
  const repair = (index: number): Repair => ({
    id: remedy.id,
    kind: remedy.kind,
    words: remedy.sizes[index]!.words,
    apply: remedy.sizes[index]!.apply,
    score: scores[index]!,
    isEnough: isEnough(scores[index]!),
  });
  const smallest = scores.findIndex((score) => score !== null && isEnough(score));
  if (smallest >= 0) return repair(smallest);
  const ranked = scores
    .map((score, index) => ({ score, index }))
    .filter((entry): entry is { score: LayoutScore; index: number } => entry.score !== null)
    .sort((a, b) => compareScores(a.score, b.score));
  const [best] = ranked;
  return best && (now === null || isBetter(best.score, now)) ? repair(best.index) : null;
}

export const isEnough = (score: LayoutScore) =>
  fillsInTime(score) && !hasDryRegion(score) && score.fillTime <= ENOUGH * score.gelTime;

/** By more than the mesh can tell. */
function isBetter(score: LayoutScore, now: LayoutScore): boolean {
  if (compareScores(score, now) >= 0) return false;
  if (fillsInTime(score) && fillsInTime(now)) return costOf(score) < costOf(now) - 0.02;
  return (
    fillsInTime(score) || score.wetShare > now.wetShare + 0.01 || hasDryRegion(now) !== hasDryRegion(score)
  );
}

const feedsOf = (job: Job) => job.lines.filter(({ kind }) => kind === 'feed');

const withLine =
  (id: string, change: (line: JobLine) => JobLine) =>
  (job: Job): Job => ({
    ...job,
    lines: job.lines.map((line) => (line.id === id ? change(line) : line)),
  });

const rounded = (p: Point): Point => ({ x: Number(p.x.toFixed(4)), y: Number(p.y.toFixed(4)) });

/** Each feed towards and away from the last corner, as far as there is room. */
function moves(job: Job, { lastPlace, show }: RemedyContext): Remedy[] {
  const part = partShapeOf(job);
  return feedsOf(job)
    .filter((line) => !line.pinned && line.points.length <= 6)
    .flatMap((line) =>
      [1, -1].flatMap((sign): Remedy[] => {
        const middle = line.points.length === 1 ? line.points[0]! : pointAlong(line.points, 0.5);
        const way = wayFrom(line.points, middle, lastPlace);
        const room = roomAlong(part, middle, { x: sign * way.x, y: sign * way.y });
        if (room < 0.05) return [];
        const sizes = MOVES.map((share) => {
          const by = Math.round(share * room * 100) / 100;
          const shifted = (p: Point) => rounded({ x: p.x + sign * by * way.x, y: p.y + sign * by * way.y });
          return {
            words: `Move ${line.name} by ${show(by, 'length')} ${sign > 0 ? 'towards' : 'away from'} the last corner`,
            apply: withLine(line.id, (own) => ({ ...own, points: fitted(part, own.points.map(shifted)) })),
          };
        });
        return [{ id: `move-${line.id}-${sign}`, kind: 'move', effort: 1, sizes }];
      }),
    );
}

/** Across a line on the side of the goal; straight at it from a point. */
function wayFrom(points: readonly Point[], middle: Point, goal: Point): Point {
  const [a, b] = [points[0]!, points[points.length - 1]!];
  const length = distance(a, b);
  if (points.length === 1 || length < 1e-6) {
    const away = distance(middle, goal) || 1;
    return { x: (goal.x - middle.x) / away, y: (goal.y - middle.y) / away };
  }
  const normal = { x: -(b.y - a.y) / length, y: (b.x - a.x) / length };
  const side = Math.sign((goal.x - middle.x) * normal.x + (goal.y - middle.y) * normal.y) || 1;
  return { x: side * normal.x, y: side * normal.y };
}

/** How far one can go before the edge. */
function roomAlong(part: ReturnType<typeof partShapeOf>, from: Point, way: Point): number {
  const box = boundsOf(part.outline);
  const step = Math.hypot(box.maxX - box.minX, box.maxY - box.minY) / 200;
  let reach = 0;
  while (roomAt(part, { x: from.x + (reach + step) * way.x, y: from.y + (reach + step) * way.y }) > 0)
    reach += step;
  return Math.max(0, reach - 0.02);
}

/** A straight line that now reaches past an edge is cut back to the part. */
function fitted(part: ReturnType<typeof partShapeOf>, points: Point[]): Point[] {
  if (points.length !== 2 || points.every((p) => roomAt(part, p) > 0.005)) return points;
  const [a, b] = [points[0]!, points[1]!];
  const inside = Array.from({ length: 101 }, (_, i) => i / 100).filter(
    (s) => roomAt(part, { x: a.x + s * (b.x - a.x), y: a.y + s * (b.y - a.y) }) > 0.02,
  );
  if (inside.length < 5) return points;
  const at = (s: number) => rounded({ x: a.x + s * (b.x - a.x), y: a.y + s * (b.y - a.y) });
  return [at(inside[0]!), at(inside[inside.length - 1]!)];
}

/** The feeds in another order: all at once, each as the front passes it, none shut before the end. */
function orders(job: Job): Remedy[] {
  const feeds = feedsOf(job);
  const remedy = (id: string, words: string, change: (line: JobLine) => JobLine): Remedy => ({
    id,
    kind: 'order',
    effort: 1.2,
    sizes: [
      {
        words,
        apply: (now) => ({
          ...now,
          lines: now.lines.map((line) => (line.kind === 'feed' ? change(line) : line)),
        }),
      },
    ],
  });
  const list: (Remedy | false)[] = [
    feeds.some((line) => !line.startsOpen) &&
      remedy('order-at-once', 'Open all feeds at the start', (line) => ({
        ...line,
        startsOpen: true,
        actions: line.actions.filter(({ opening }) => opening < 1),
      })),
    feeds.some(({ actions }) => actions.some(({ opening, when }) => opening === 0 && when.kind !== 'full')) &&
      remedy('order-leave-open', 'Leave the feeds open until the part is full', (line) => ({
        ...line,
        actions: line.actions.filter(({ opening, when }) => opening > 0 || when.kind === 'full'),
      })),
    feeds.some(({ actions }) => actions.some(({ opening, when }) => opening > 0 && when.kind !== 'passed')) &&
      remedy('order-passed', 'Open each feed as the front passes it', (line) =>
        line.startsOpen
          ? line
          : {
              ...line,
              actions: line.actions.map((action) =>
                action.opening > 0
                  ? { ...action, when: { kind: 'passed', what: line.id, distance: 0, delay: 0 } }
                  : action,
              ),
            },
      ),
  ];
  return list.filter((item) => item !== false);
}

function warmer(job: Job, { shop, show }: RemedyContext): Remedy[] {
  const temperature = job.resin.temperature ?? shop.temperature;
  const sizes = WARMER.map((by) => ({
    words: `Resin and workshop ${show(by, 'temperatureDifference')} warmer`,
    apply: (now: Job): Job => ({
      ...now,
      resin: {
        ...now.resin,
        temperature: temperature + by,
        mouldTemperature: now.resin.mouldTemperature && now.resin.mouldTemperature + by,
      },
    }),
  }));
  return [{ id: 'warmer', kind: 'warmer', effort: 2, sizes }];
}

function otherResins(job: Job, { materials }: RemedyContext): Remedy[] {
  return materials
    .filter((material) => material.kind === 'resin' && material.id !== job.resin.materialId)
    .map((resin) => ({
      id: `resin-${resin.id}`,
      kind: 'resin',
      effort: 2.5,
      sizes: [
        {
          words: `${resin.name} instead`,
          apply: (now) => ({
            ...now,
            resin: { ...now.resin, materialId: resin.id },
            materials: withMaterial(now, resin),
          }),
        },
      ],
    }));
}

const withMaterial = (job: Job, material: Material) =>
  job.materials.some(({ id }) => id === material.id) ? job.materials : [...job.materials, material];

/** Meshes through which resin runs more easily than through the one laid. */
function otherMeshes(job: Job, { materials, shop }: RemedyContext): Remedy[] {
  const now = job.laminate.flowMeshId;
  const stack = (flowMesh: Material | null) => {
    const request = {
      ...stackRequestOf(job, job.laminate, shop),
      flowMesh: flowMesh?.kind === 'flowMesh' ? flowMesh : null,
    };
    const { transmissibility, storage } = computeStack(request);
    return (transmissibility.xx + transmissibility.yy) / storage;
  };
  const speed = stack(materialOf(job, now, 'flowMesh'));
  return materials
    .filter((material) => material.kind === 'flowMesh' && material.id !== now && stack(material) > speed)
    .map((mesh) => ({
      id: `mesh-${mesh.id}`,
      kind: 'mesh',
      effort: 3,
      sizes: [
        {
          words: now === null ? `Lay ${mesh.name}` : `${mesh.name} instead of the mesh laid`,
          apply: (old) => ({
            ...old,
            materials: withMaterial(old, mesh),
            laminate: { ...old.laminate, flowMeshId: mesh.id },
            zones: old.zones.map((zone) =>
              zone.laminate.flowMeshId === null || zone.laminate.flowMeshId !== now
                ? zone
                : { ...zone, laminate: { ...zone.laminate, flowMeshId: mesh.id } },
            ),
          }),
        },
      ],
    }));
}

/** One more feed between the nearest one and the last corner, opened as the front passes it. */
function furtherFeeds(job: Job, { lastPlace }: RemedyContext): Remedy[] {
  const part = partShapeOf(job);
  const nearest = feedsOf(job)
    .map((line) => ({ line, ...nearestOnLine(lastPlace, line.points) }))
    .sort((a, b) => a.distance - b.distance)[0];
  if (!nearest || nearest.distance < 0.1) return [];
  const { long } = framesOf(part);
  const [from, to] = [long.along(nearest.point), long.along(lastPlace)];
  if (Math.abs(to - from) < 0.1) return [];
  let number = 1;
  while (job.lines.some(({ id, name }) => id === `feed-${number}` || name === `Feed ${number}`)) number += 1;
  const id = `feed-${number}`;
  const sizes = [0.4, 0.55, 0.7].flatMap((share) => {
    const at = from + share * (to - from);
    const [span] = spansAcross(part, long, at);
    if (!span || span[1] - span[0] < 0.12) return [];
    const points = [span[0] + 0.05, span[1] - 0.05].map((v) => rounded(long.toPlan(at, v)));
    const feed: JobLine = {
      ...nearest.line,
      id,
      name: `Feed ${number}`,
      points,
      inlet: 0.5,
      startsOpen: false,
      actions: [{ opening: 1, when: { kind: 'passed', what: id, distance: 0, delay: 0 } }],
      pinned: false,
    };
    return [
      {
        words: `A further feed, ${Math.round(100 * share)} % of the way from ${nearest.line.name} to the last corner`,
        apply: (now: Job): Job => ({ ...now, lines: [...now.lines, feed] }),
      },
    ];
  });
  return sizes.length > 0 ? [{ id: 'add-feed', kind: 'addFeed', effort: 2.2, sizes }] : [];
}

function widerHoses(job: Job, { thinHoses, show }: RemedyContext): Remedy[] {
  return feedsOf(job)
    .filter(({ name }) => thinHoses.includes(name))
    .map((line) => ({
      id: `hose-${line.id}`,
      kind: 'hose',
      effort: 1.5,
      sizes: [0.012, 0.016, 0.02]
        .filter((bore) => bore > (line.hoseBore ?? 0))
        .map((bore) => ({
          words: `A ${show(bore, 'thickness')} hose to ${line.name}`,
          apply: withLine(line.id, (own) => ({ ...own, hoseBore: bore, hoseId: null })),
        })),
    }));
}
