import type { JobAction, JobLine } from '@wick/contract/job/job';
import { between, nearestOnLine, pointAlong, stretchOf } from '@wick/core/geometry/along';
import type { Point } from '@wick/core/geometry/polygon';
import { middleOf, roomAt, type PartShape } from '@wick/core/layouts/frame';
import { roundPoint, type Edit } from '../job/edits.ts';
import { idsFrom, newId, nextName } from '../job/ids.ts';
import { bareLine, onLayout, updateLine, whenPassed } from './edits.ts';
import { middleOfLine, samplesOf } from './lines.ts';
import { removeAction, updateAction } from './sequence.ts';

/** Changes that mend what the checks of a layout find. */

/** How far a feed keeps from a race, m: common practice, no source. */
export const RACE_CLEAR = 0.05;
/** Share of the pressure that a hose may take. */
const HOSE_SHARE = 0.15;

export const withPoints = (lineId: string, points: readonly Point[]): Edit =>
  updateLine(lineId, { points: points.map(roundPoint) });

/** The line shifted towards the part's middle until its own middle stands so far inside. */
export function movedOnto(part: PartShape, points: readonly Point[], room = 0.03): Point[] {
  const from = middleOfLine(points);
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

/** The longest stretch of a line that keeps clear of a race; the line shifted inwards where none does. */
export function clearOf(part: PartShape, points: readonly Point[], race: readonly Point[]): readonly Point[] {
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
  const from = middleOfLine(points);
  for (let s = 0.02; s < 1; s += 0.02) {
    const by = { x: s * (goal.x - from.x), y: s * (goal.y - from.y) };
    const moved = points.map((p) => ({ x: p.x + by.x, y: p.y + by.y }));
    if (samplesOf({ points: moved }).every(isClear)) return moved;
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
export function widerBore(bore: number, share: number): number {
  const ratio = share / (1 - share) / (HOSE_SHARE / (1 - HOSE_SHARE));
  const wanted = Math.max(USUAL_BORE, bore * ratio ** 0.25);
  return BORES.find((size) => size > bore && size >= wanted) ?? Math.ceil(1000 * wanted) / 1000;
}

/** The hose, or that of the tee it hangs on, which carries all of it. */
export const widen =
  (line: JobLine, bore: number): Edit =>
  (job) =>
    onLayout(({ tees }) => ({
      tees: tees.map((tee) =>
        tee.id === line.tee ? { ...tee, hoseBore: Math.max(tee.hoseBore, bore) } : tee,
      ),
    }))(updateLine(line.id, { hoseBore: bore, hoseId: null })(job));

/** A vent at a point, cut and hosed as the first one is. */
export const addVent = (at: Point, id: string = newId()): Edit =>
  onLayout(({ lines }) => {
    const like = lines.find(({ kind }) => kind === 'vent');
    const vent: JobLine = {
      ...bareLine('vent', [at], id),
      name: nextName('Vent', lines),
      bore: like?.bore ?? bareLine('vent', [at], id).bore,
      stockId: like?.stockId ?? null,
      hoseId: like?.hoseId ?? null,
      hoseBore: like?.hoseBore ?? null,
      hoseLength: like?.hoseLength ?? null,
      stationId: like?.stationId ?? null,
    };
    return { lines: [...lines, vent] };
  });

/** The resin of a feed no higher than its inlet: its own level goes, and its pot is set down. */
export const levelPot =
  (line: JobLine, potId: string | null): Edit =>
  (job) =>
    onLayout(({ stations }) => ({
      stations: stations.map((s) => (s.id === potId && (s.level ?? 0) > 0 ? { ...s, level: 0 } : s)),
    }))(line.potLevel !== null ? updateLine(line.id, { potLevel: null })(job) : job);

/** Pieces end to end, each with the line's own behaviour and its own hose. */
export const inPieces = (line: JobLine, count: number, seed: string = newId()): Edit =>
  onLayout(({ lines }) => ({
    lines: lines.flatMap((old) => (old.id === line.id ? piecesOf(line, count, idsFrom(seed)) : [old])),
  }));

function piecesOf(line: JobLine, count: number, nextId: () => string): JobLine[] {
  return Array.from({ length: count }, (_, i): JobLine => {
    const points = stretchOf(line.points, i / count, (i + 1) / count).map(roundPoint);
    if (i === 0) return { ...line, points };
    const id = nextId();
    const actions = line.actions.map(({ opening, when }): JobAction => ({
      id: nextId(),
      opening,
      when: 'what' in when && when.what === line.id ? { ...when, what: id } : when,
    }));
    return { ...line, id, name: `${line.name}, piece ${i + 1}`.slice(0, 40), points, actions };
  });
}

/** The action waits for the front at its own line instead, or goes. */
export const retrigger = (line: JobLine, action: JobAction, remove = false): Edit =>
  remove
    ? removeAction({ lineId: line.id, actionId: action.id })
    : updateAction(
        { lineId: line.id, actionId: action.id },
        { when: whenPassed(line.id, action.opening, action.id).when },
      );
