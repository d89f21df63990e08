import type { Job, JobLine } from '@wick/contract/job/job';
import type { Material, MaterialOf } from '@wick/contract/materials';
import type { Shop } from '@wick/contract/shop';
import { nearestOnLine, pointAlong } from '@wick/core/geometry/along';
import { boundsOf, distance, type Point } from '@wick/core/geometry/polygon';
import type { Stack } from '@wick/core/laminate/stack';
import { framesOf, roomAt, spansAcross } from '@wick/core/layouts/frame';
import { roundPoint, withResin, withResinSystem, type Edit } from '../job/edits.ts';
import { newId, nextName } from '../job/ids.ts';
import type { LaidJob } from '../job/laid.ts';
import { stackOf } from '../laminate/stack.ts';
import { addLine, onLines, whenPassed } from '../layout/edits.ts';
import { partShapeOf } from '../layout/fit.ts';
import { settle } from '../settle.ts';
import { meshedWith, meshOf, withMesh } from '../stack/mesh.ts';

/** A change that might mend a job, in sizes from small to large. */
export interface Remedy {
  readonly id: string;
  readonly kind: 'move' | 'order' | 'warmer' | 'resin' | 'mesh' | 'addFeed' | 'hose';
  /** Work and upset of it, small is better; of two sizes the smaller one costs less. */
  readonly effort: number;
  readonly sizes: readonly { readonly words: string; readonly apply: Edit }[];
}

export interface RemedyContext {
  readonly shop: Shop;
  /** What the workshop has. */
  readonly materials: readonly Material[];
  /** Where the front comes last, or not at all. */
  readonly lastPlace: Point;
  readonly show: (value: number, quantity: 'length' | 'thickness' | 'temperatureDifference') => string;
  /** Feeds whose hose takes much of the pressure. */
  readonly thinHoses: readonly string[];
}

/** Moves tried on either side, as shares of the room there. */
const MOVES = [0.06, 0.12, 0.2, 0.3, 0.42, 0.56, 0.72, 0.9];
const WARMER = [2, 4, 6, 8];

/** Everything that is worth trying on a job that fails: one thing changed at a time. */
export function remediesFor(job: LaidJob, context: RemedyContext): Remedy[] {
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

const feedsOf = (job: LaidJob) => job.lines.filter(({ kind }) => kind === 'feed');

const withLine = (id: string, change: (line: JobLine) => JobLine): Edit =>
  onLines((line) => (line.id === id ? change(line) : line));

/** Each feed towards and away from the last corner, as far as there is room. */
function moves(job: LaidJob, { lastPlace, show }: RemedyContext): Remedy[] {
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
          const shifted = (p: Point) =>
            roundPoint({ x: p.x + sign * by * way.x, y: p.y + sign * by * way.y });
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
  const at = (s: number) => roundPoint({ x: a.x + s * (b.x - a.x), y: a.y + s * (b.y - a.y) });
  return [at(inside[0]!), at(inside[inside.length - 1]!)];
}

/** The feeds in another order: all at once, each as the front passes it, none shut before the end. */
function orders(job: LaidJob): Remedy[] {
  const feeds = feedsOf(job);
  const remedy = (id: string, words: string, change: (line: JobLine) => JobLine): Remedy => ({
    id,
    kind: 'order',
    effort: 1.2,
    sizes: [
      {
        words,
        apply: onLines((line) => (line.kind === 'feed' ? change(line) : line)),
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

function warmer(job: LaidJob, { shop, show }: RemedyContext): Remedy[] {
  const temperature = settle(job, shop)['resin.temperature'].value;
  const sizes = WARMER.map((by) => ({
    words: `Resin and workshop ${show(by, 'temperatureDifference')} warmer`,
    apply: (now: Job) =>
      withResin({
        temperature: temperature + by,
        mouldTemperature: now.resin.mouldTemperature && now.resin.mouldTemperature + by,
      })(now),
  }));
  return [{ id: 'warmer', kind: 'warmer', effort: 2, sizes }];
}

function otherResins(job: LaidJob, { materials }: RemedyContext): Remedy[] {
  return materials
    .filter((material) => material.kind === 'resin' && material.id !== job.resin.materialId)
    .map((resin) => ({
      id: `resin-${resin.id}`,
      kind: 'resin',
      effort: 2.5,
      sizes: [
        {
          words: `${resin.name} instead`,
          apply: withResinSystem(resin),
        },
      ],
    }));
}

/** Meshes through which resin runs more easily than through what is laid. */
function otherMeshes(job: LaidJob, { materials, shop }: RemedyContext): Remedy[] {
  const now = meshOf(job);
  const speed = ({ transmissibility, storage }: Stack) =>
    (transmissibility.xx + transmissibility.yy) / storage;
  const laid = speed(stackOf(job, shop));
  return materials
    .filter(
      (mesh): mesh is MaterialOf<'flowMesh'> =>
        mesh.kind === 'flowMesh' && mesh.id !== now && speed(stackOf(meshedWith(job, mesh), shop)) > laid,
    )
    .map((mesh) => ({
      id: `mesh-${mesh.id}`,
      kind: 'mesh',
      effort: 3,
      sizes: [
        {
          words: now === null ? `Lay ${mesh.name}` : `${mesh.name} instead of the mesh laid`,
          apply: withMesh(mesh, `mesh-${mesh.id}`.slice(0, 40)),
        },
      ],
    }));
}

/** One more feed between the nearest one and the last corner, opened as the front passes it. */
function furtherFeeds(job: LaidJob, { lastPlace }: RemedyContext): Remedy[] {
  const part = partShapeOf(job);
  const nearest = feedsOf(job)
    .map((line) => ({ line, ...nearestOnLine(lastPlace, line.points) }))
    .sort((a, b) => a.distance - b.distance)[0];
  if (!nearest || nearest.distance < 0.1) return [];
  const { long } = framesOf(part);
  const [from, to] = [long.along(nearest.point), long.along(lastPlace)];
  if (Math.abs(to - from) < 0.1) return [];
  const id = newId();
  const sizes = [0.4, 0.55, 0.7].flatMap((share) => {
    const at = from + share * (to - from);
    const [span] = spansAcross(part, long, at);
    if (!span || span[1] - span[0] < 0.12) return [];
    const points = [span[0] + 0.05, span[1] - 0.05].map((v) => roundPoint(long.toPlan(at, v)));
    const feed: JobLine = {
      ...nearest.line,
      id,
      name: nextName('Feed', job.lines),
      points,
      inlet: 0.5,
      startsOpen: false,
      actions: [whenPassed(id, 1, `${id}-opens`)],
      pinned: false,
    };
    return [
      {
        words: `A further feed, ${Math.round(100 * share)} % of the way from ${nearest.line.name} to the last corner`,
        apply: addLine(feed),
      },
    ];
  });
  return sizes.length > 0 ? [{ id: 'add-feed', kind: 'addFeed', effort: 2.2, sizes }] : [];
}

function widerHoses(job: LaidJob, { thinHoses, show }: RemedyContext): Remedy[] {
  return feedsOf(job)
    .filter(({ id }) => thinHoses.includes(id))
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
