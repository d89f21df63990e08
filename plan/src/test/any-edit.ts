import type { Job } from '@wick/contract/job/job';
import { materialOf } from '../job/material-of.ts';
import { setPrep, usualGelCoat } from '../card/edits.ts';
import { withDoubt, withName, withPart, withResin, withValueAt, type Edit } from '../job/edits.ts';
import { meshAreasOf } from '../layout/mesh-areas.ts';
import { currentLayout, laidOut } from '../job/laid.ts';
import {
  addPly,
  mirrorStack,
  movePly,
  removePly,
  repeatPly,
  setThrough,
  stagger,
  updatePly,
} from '../laminate/edits.ts';
import {
  addLine,
  bendLine,
  moveLine,
  moveLinePoint,
  newLine,
  removeLine,
  updateLine,
  whenPassed,
} from '../layout/edits.ts';
import { addFitting, addMeshArea, addTee, moveFitting, removeFitting } from '../layout/fittings.ts';
import {
  addLayout,
  adoptLayout,
  copyLayout,
  hasRoomForLayout,
  removeLayout,
  renameLayout,
} from '../layout/layouts.ts';
import { addMark, moveMark, removeMark } from '../layout/marks.ts';
import {
  addAction,
  closePrevious,
  moveTurn,
  removeAction,
  shiftTurn,
  updateAction,
} from '../layout/sequence.ts';
import {
  addHole,
  mirrorJob,
  moveCorner,
  moveRing,
  ringRefs,
  setEdgeLength,
  sizeRing,
  splitEdgeAt,
} from '../part/edits.ts';
import { addFeature, moveFeaturePoint, removeFeature } from '../part/features.ts';
import { addSection, removeSection } from '../bag/edits.ts';
import { layerKinds } from '@wick/contract/job/stack';
import { addLayer, moveLayer, newLayer, removeLayer, updateLayer } from '../stack/edits.ts';
import { drawEnd, placesOf, sectionAt } from '../stack/section.ts';
import { startFrom, startingStacks } from '../stack/starting.ts';
import { addZone, copyRing, raiseZone, removeRing, updateZone, withPurpose } from '../part/zones.ts';

/** A number 0-1 each time it is asked. */
export type Dice = () => number;

/** What a hand might do next to a job: an edit with all it needs. Null where there is nothing to do it to. */
type Move = (job: Job, dice: Dice, id: string) => Edit | null;

const pick = <T>(list: readonly T[], dice: Dice): T | undefined => list[Math.floor(dice() * list.length)];
const place = (dice: Dice) => ({ x: 0.1 + 2 * dice(), y: 0.1 + 0.9 * dice() });
const box = (dice: Dice) => {
  const { x, y } = place(dice);
  const [l, w] = [0.05 + 0.3 * dice(), 0.05 + 0.2 * dice()];
  return [
    { x, y },
    { x: x + l, y },
    { x: x + l, y: y + w },
    { x, y: y + w },
  ];
};
const step = (dice: Dice) => ({ x: 0.1 * dice() - 0.05, y: 0.1 * dice() - 0.05 });
/** The base, or a zone. */
const book = (job: Job, dice: Dice) => pick([null, ...job.zones.map(({ id }) => id)], dice)!;
const pliesAt = (job: Job, id: string | null) =>
  (id === null ? job.laminate : job.zones.find((zone) => zone.id === id)!.laminate).plies;
const anyTurn = (job: Job, dice: Dice) =>
  pick(
    currentLayout(job).lines.flatMap(({ id, actions }) =>
      actions.map((action) => ({ lineId: id, actionId: action.id })),
    ),
    dice,
  );

/** With something of a list, if there is any. */
const on =
  <T>(
    list: (job: Job) => readonly T[],
    edit: (item: T, job: Job, dice: Dice, id: string) => Edit | null,
  ): Move =>
  (job, dice, id) => {
    const item = pick(list(job), dice);
    return item === undefined ? null : edit(item, job, dice, id);
  };
const lines = (job: Job) => currentLayout(job).lines;
const fittings = (job: Job) => {
  const { stations, tees, layers } = currentLayout(job);
  return [...stations, ...tees, ...meshAreasOf({ layers })];
};
const layersOf = (job: Job) => currentLayout(job).layers;
const zones = (job: Job) => [...job.zones, ...currentLayout(job).brakes];

export const moves: Readonly<Record<string, Move>> = {
  name: (_, dice) => withName(`Job ${Math.floor(100 * dice())}`),
  rise: (_, dice) => withPart({ rise: dice() < 0.5 ? null : { x: dice() / 4, y: dice() / 4 } }),
  temperature: (_, dice) => withResin({ temperature: 283 + 20 * dice() }),
  batch: (_, dice, id) =>
    withResin({
      batches: [
        { id: `${id}-first`, stationId: null, mixedAt: 0, mass: 0.1 + dice() },
        { id, stationId: null, mixedAt: 900 * dice(), mass: null },
      ],
    }),
  prep: (_, dice) =>
    setPrep({
      gelCoat: dice() < 0.4 ? null : { ...usualGelCoat, passes: 1 + Math.floor(9 * dice()) },
      barrier: dice() < 0.5 ? null : 'Tissue',
    }),
  doubt: (_, dice) => withDoubt({ permeability: 1 + dice() }),
  reserve: (_, dice) => withResin({ reserve: dice() < 0.3 ? null : { kind: 'share', share: dice() } }),
  heel: (_, dice) => withValueAt('resin.heel', dice() < 0.3 ? null : dice()),
  hose: (_, dice) => withValueAt('resin.hoseLength', dice() < 0.3 ? null : 3 * dice()),
  line: (job, dice, id) =>
    addLine(newLine(job, pick(['feed', 'vent', 'race'] as const, dice)!, [place(dice), place(dice)], id)),
  'move a line': on(lines, ({ id }, _, dice) => moveLine(id, step(dice))),
  'move an end': on(lines, ({ id, points }, _, dice) =>
    moveLinePoint(id, Math.floor(dice() * points.length), place(dice)),
  ),
  section: (_, dice, id) => addSection([place(dice), place(dice)], id),
  'remove a section': on(
    (job) => job.part.sections,
    ({ id }) => removeSection(id),
  ),
  layer: (_, dice, id) => addLayer(newLayer(pick(layerKinds, dice)!, null, id)),
  'move a layer': on(layersOf, ({ id }, _, dice) => moveLayer(id, dice() < 0.5 ? 1 : -1)),
  'lap a layer': on(layersOf, ({ id }, _, dice) => updateLayer(id, { lap: 0.05 * dice() })),
  'remove a layer': on(layersOf, ({ id }) => removeLayer(id)),
  'start a stack': (job, dice, id) => {
    const stack = pick(startingStacks(job), dice);
    return stack ? startFrom(stack, job.materials, id) : null;
  },
  'draw an end': (job, dice) => {
    const laid = laidOut(job);
    const section = sectionAt(laid, pick(placesOf(laid), dice)!);
    const layer = pick(
      section.layers.filter(({ ends }) => ends.length > 0),
      dice,
    );
    return layer ? drawEnd(section, layer.id, layer.ends[0]!.name, 0.2 * dice() - 0.1) : null;
  },
  'bend a line': on(lines, ({ id }, _, dice) => bendLine(id, place(dice))),
  'change a line': on(lines, ({ id, startsOpen }) => updateLine(id, { startsOpen: !startsOpen })),
  'remove a line': on(lines, ({ id }) => removeLine(id)),
  action: on(lines, ({ id }, _, dice, own) => addAction(id, whenPassed(id, dice() < 0.5 ? 0 : 1, own))),
  'change an action': (job, dice) => {
    const turn = anyTurn(job, dice);
    return turn ? updateAction(turn, { when: { kind: 'time', time: 3000 * dice() } }) : null;
  },
  'shift a turn': (job, dice) => {
    const turn = anyTurn(job, dice);
    return turn ? shiftTurn(turn, 600 * dice() - 300) : null;
  },
  'order of turns': (job, dice) => {
    const turns = lines(job).flatMap(({ id, actions }) =>
      actions.map((a) => ({ lineId: id, actionId: a.id })),
    );
    return turns.length > 1 ? moveTurn(turns, 0, Math.floor(dice() * turns.length)) : null;
  },
  'remove an action': (job, dice) => {
    const turn = anyTurn(job, dice);
    return turn ? removeAction(turn) : null;
  },
  'close the one before': (_, dice, id) => closePrevious(dice() < 0.5, id),
  mark: (_, dice, id) => addMark(place(dice), id),
  'move a mark': on(
    (job) => job.marks,
    ({ id }, _, dice) => moveMark(id, step(dice)),
  ),
  'remove a mark': on(
    (job) => job.marks,
    ({ id }) => removeMark(id),
  ),
  fitting: (_, dice, id) => addFitting(pick(['pot', 'pump', 'tee'] as const, dice)!, place(dice), id),
  tee: (_, __, id) => addTee(null, id),
  mesh: (_, dice, id) => addMeshArea(box(dice), id),
  'move a fitting': on(fittings, ({ id }, _, dice) => moveFitting(id, step(dice))),
  'remove a fitting': on(fittings, ({ id }) => removeFitting(id)),
  zone: (_, dice, id) => addZone(box(dice), { purpose: dice() < 0.5 ? 'part' : 'brake' }, id),
  'warm a zone': on(zones, ({ id }, _, dice) => updateZone(id, { temperature: 290 + 20 * dice() })),
  'purpose of a zone': on(zones, ({ id }, _, dice) => withPurpose(id, dice() < 0.5 ? 'part' : 'brake')),
  'raise a zone': on(zones, ({ id }, _, dice) => raiseZone(id, dice() < 0.5 ? 1 : -1)),
  'copy a ring': on(ringRefs, (ref, _, __, id) => copyRing(ref, id)),
  'move a ring': on(ringRefs, (ref, _, dice) => moveRing(ref, step(dice))),
  'move a corner': on(ringRefs, (ref, _, dice) => moveCorner(ref, 0, place(dice))),
  'split an edge': on(ringRefs, (ref) => splitEdgeAt(ref, 0)),
  'length of an edge': on(ringRefs, (ref, _, dice) => setEdgeLength(ref, 0, 0.2 + dice())),
  'over-all size': on(ringRefs, (ref, _, dice) => sizeRing(ref, dice() < 0.5 ? 'x' : 'y', 0.2 + 2 * dice())),
  'remove a ring': on(ringRefs, (ref) => removeRing(ref)),
  hole: (_, dice, id) => addHole(box(dice), id),
  feature: (_, dice, id) => addFeature([place(dice), place(dice)], 'step', id),
  'move a feature': on(
    (job) => job.part.features,
    ({ id }, _, dice) => moveFeaturePoint(id, 0, place(dice)),
  ),
  'remove a feature': on(
    (job) => job.part.features,
    ({ id }) => removeFeature(id),
  ),
  ply: (job, dice, id) => {
    const fabric = job.materials.find(({ kind }) => kind === 'fabric');
    return fabric ? addPly(book(job, dice), fabric, dice(), 1 + Math.floor(3 * dice()), id) : null;
  },
  'repeat a ply': (job, dice, id) => {
    const at = book(job, dice);
    return pliesAt(job, at).length > 0 ? repeatPly(at, 0, 2, id) : null;
  },
  'turn a ply': (job, dice) => {
    const at = book(job, dice);
    return pliesAt(job, at).length > 0 ? updatePly(at, 0, { angle: dice() }) : null;
  },
  'move a ply': (job, dice) => movePly(book(job, dice), 0, 1),
  'remove a ply': (job, dice) => removePly(book(job, dice), 0),
  'mirror the stack': (job, dice, id) => {
    const at = book(job, dice);
    return pliesAt(job, at).length < 40 ? mirrorStack(at, id) : null;
  },
  stagger: (job, dice) => stagger(book(job, dice), 0.01 * dice()),
  'ply runs through': on(
    (job) => job.zones,
    ({ id }, job, dice) => {
      const ply = pick(job.laminate.plies, dice);
      return ply ? setThrough(id, ply.id, dice() < 0.5) : null;
    },
  ),
  'copy the layout': (job, _, id) => (hasRoomForLayout(job) ? copyLayout('', id) : null),
  'add a layout': (job, _, id) => (hasRoomForLayout(job) ? addLayout(laidOut(job), 'again', id) : null),
  'take up a layout': on(
    (job) => job.layouts,
    ({ id }) => adoptLayout(id),
  ),
  'rename a layout': on(
    (job) => job.layouts,
    ({ id }) => renameLayout(id, 'other'),
  ),
  'remove a layout': on(
    (job) => job.layouts,
    ({ id }) => removeLayout(id),
  ),
  mirror: () => mirrorJob,
  resin: (job, dice) =>
    materialOf(job, job.resin.materialId, 'resin') ? withResin({ drift: dice() < 0.5 ? null : 1e-4 }) : null,
};
const names = Object.keys(moves);

/** A generator of numbers 0-1 from a seed (mulberry32). */
function diceFrom(seed: number): Dice {
  let state = seed | 0;
  return () => {
    state = (state + 0x6d2b79f5) | 0;
    let t = Math.imul(state ^ (state >>> 15), 1 | state);
    t = (t + Math.imul(t ^ (t >>> 7), 61 | t)) ^ t;
    return ((t ^ (t >>> 14)) >>> 0) / 4294967296;
  };
}

/** What a seed has a hand do to a job: always the same for the same seed, job and new id. */
export function anyEdit(
  job: Job,
  seed: number,
  id = `id-${seed}`,
): { readonly name: string; readonly edit: Edit } {
  const dice = diceFrom(seed);
  const name = pick(names, dice)!;
  return { name, edit: moves[name]!(job, dice, id) ?? ((same) => same) };
}
