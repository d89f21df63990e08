import type { Mould } from '@wick/contract/mould';
import type { LessonTarget } from '@wick/contract/run/review-bodies';
import type { Phase, Step, StepLibrary } from '@wick/contract/steps';
import type { Shop } from '@wick/contract/shop';
import type { QuantityName } from '@wick/core/units/quantities';
import { withDoubt, withResin, withVacuum, type Edit } from '../job/edits.ts';
import { newId } from '../job/ids.ts';
import { laidOut } from '../job/laid.ts';
import { withEvent } from '../mould/edits.ts';
import { isOf, type EntryOf, type RunState } from '../run/state.ts';
import { settle } from '../settle.ts';
import { updateLayer } from '../stack/edits.ts';
import { layersOf } from '../stack/lies.ts';
import type { CauseId } from './causes/table.ts';

/** A change for the next part that is made by one click. */
export interface KnownChange {
  readonly id: string;
  readonly target: LessonTarget;
  readonly title: string;
  /** Causes that it answers. */
  readonly answers: readonly CauseId[];
  /** The number to it, with what is usual; null where there is none. */
  readonly amount: { readonly label: string; readonly quantity: QuantityName; readonly usual: number } | null;
  /** What it does to a job; null of one that is about steps or a mould. */
  readonly edit: ((shop: Shop, amount: number) => Edit) | null;
  /** The step that it adds to the workshop's own; null of others. */
  readonly step: { readonly phase: Phase; readonly title: string; readonly why: string } | null;
}

const onPlan = { target: 'plan', step: null } as const;
const onSteps = { target: 'steps', amount: null, edit: null } as const;

/** Changes that the usual causes ask for. Common practice, no source. */
export const knownChanges: readonly KnownChange[] = [
  {
    ...{ ...onPlan, id: 'reserve', title: 'Mix with more in reserve', answers: ['dryBucket'] },
    amount: { label: 'In reserve', quantity: 'fraction', usual: 0.2 },
    edit: (_, share) => withResin({ reserve: { kind: 'share', share } }),
  },
  {
    ...{ ...onPlan, id: 'warm-mould', title: 'Warm the mould', answers: ['gelFirst'] },
    amount: { label: 'Warmer by', quantity: 'temperatureDifference', usual: 5 },
    edit: (shop, by) => (job) => {
      const now = job.resin.mouldTemperature ?? settle(laidOut(job), shop)['resin.temperature'].value;
      return withResin({ mouldTemperature: now + by })(job);
    },
  },
  {
    ...{
      ...onPlan,
      id: 'expect-race',
      title: 'Reckon with races along the edges',
      answers: ['race', 'bridge'],
    },
    amount: { label: 'Chance along each side', quantity: 'fraction', usual: 0.4 },
    edit: (_, raceChance) => withDoubt({ raceChance }),
  },
  {
    ...{ ...onPlan, id: 'less-vacuum', title: 'Pull less', answers: ['starved'] },
    amount: { label: 'In the bag', quantity: 'absolutePressure', usual: 50_000 },
    edit: (_, ventPressure) => withVacuum({ ventPressure, ventSpread: null }),
  },
  {
    ...{ id: 'mesh-short', target: 'stack', title: 'End the mesh short of the vent', step: null },
    answers: ['starved', 'dryBucket'],
    amount: { label: 'Short of the vent by', quantity: 'length', usual: 0.06 },
    edit: (_, short) => (job) =>
      layersOf(laidOut(job), 'flowMesh').reduce(
        (own, { id, covers }) =>
          covers.kind === 'part' ? updateLayer(id, { covers: { ...covers, vent: short } })(own) : own,
        job,
      ),
  },
  {
    ...{ ...onSteps, id: 'long-drop', title: 'Read the drop test longer', answers: ['leak'] },
    step: {
      phase: 'leakCheck',
      title: 'Read the drop test for half an hour at least',
      why: 'A leak was missed by a short one.',
    },
  },
  {
    ...{ ...onSteps, id: 'stuff-edge', title: 'Stuff the gap along the edge', answers: ['race'] },
    step: {
      phase: 'layUp',
      title: 'Stuff the gap between plies and edge',
      why: 'Resin raced along it.',
    },
  },
  {
    ...{ ...onSteps, id: 'press-corners', title: 'Press the inside corners in', answers: ['bridge'] },
    step: {
      phase: 'bag',
      title: 'Press every inside corner in before the bag is pulled',
      why: 'Fabric bridged a corner: once it is pulled, friction holds it.',
    },
  },
  {
    ...{
      ...onSteps,
      id: 'second-reader',
      title: 'Have the ratio read by a second person',
      answers: ['wrongRatio'],
    },
    step: {
      phase: 'mix',
      title: 'A second person reads sheet and scale',
      why: 'A batch was mixed in a wrong ratio.',
    },
  },
  {
    ...{ ...onSteps, id: 'watch-pot', title: 'Name somebody who watches the pot', answers: ['dryBucket'] },
    step: {
      phase: 'infuse',
      title: 'Somebody by name watches the pot',
      why: 'It ran dry, and the hose drew air.',
    },
  },
];

const changeOf = (id: string | null): KnownChange | null =>
  knownChanges.find((change) => change.id === id) ?? null;

/** A lesson with what has become of it. */
export interface Lesson {
  readonly id: string;
  readonly entry: EntryOf<'lesson'>;
  readonly change: KnownChange | null;
  readonly settled: EntryOf<'lessonSettled'>['body'] | null;
}

/** Lessons of a run, in the order in which they were written. */
export function lessonsOf({ entries }: Pick<RunState, 'entries'>): Lesson[] {
  const settled = entries.filter(isOf('lessonSettled'));
  return entries.filter(isOf('lesson')).map((entry) => ({
    ...{ id: entry.id, entry, change: changeOf(entry.body.change) },
    settled: settled.findLast(({ body }) => body.lessonId === entry.id)?.body ?? null,
  }));
}

/** What a lesson does to a job; nothing where it is in words alone, or about something else. */
export function editOfLesson({ change, entry }: Pick<Lesson, 'change' | 'entry'>, shop: Shop): Edit | null {
  if (!change?.edit) return null;
  return change.edit(shop, entry.body.amount ?? change.amount?.usual ?? 0);
}

/** A step that is as plain as can be, for the workshop to word further. */
const plainStep: Omit<Step, 'id' | 'phase' | 'title' | 'why'> = {
  ...{ caution: '', takes: [], who: '', lasts: null, each: 'once', processes: [], wait: null },
  ...{ photo: false, isUsed: true },
};

/** The workshop's steps with the lesson's among them, after the others of its phase; as they are where it is there already. */
export function withLessonStep(
  library: StepLibrary,
  lesson: { readonly step: KnownChange['step'] },
  id: string = newId(),
): StepLibrary {
  const { step } = lesson;
  if (!step || library.steps.some(({ title, phase }) => title === step.title && phase === step.phase))
    return library;
  const last = library.steps.findLastIndex(({ phase }) => phase === step.phase);
  const steps = [...library.steps];
  steps.splice(last < 0 ? steps.length : last + 1, 0, { ...plainStep, ...step, id });
  return { ...library, steps };
}

/** The mould's record with a lesson in it. */
export const withLessonNote = (mould: Mould, text: string, date: string): Mould =>
  withEvent(mould, { date, kind: 'note', text: text.slice(0, 300) });

/** A job that learned something, and one that is opened. */
export interface AlikeJob {
  readonly id: string;
  readonly mouldId: string | null;
  readonly process: string;
  readonly materialIds: readonly string[];
}

/** How alike two jobs have to be for the lessons of one to be shown in the other. From memory. */
const ALIKE = 0.5;

/** The same mould, or the same process with half of the materials in common. */
export function isAlike(a: AlikeJob, b: AlikeJob): boolean {
  if (a.id === b.id || (a.mouldId !== null && a.mouldId === b.mouldId)) return true;
  const both = a.materialIds.filter((id) => b.materialIds.includes(id)).length;
  const all = new Set([...a.materialIds, ...b.materialIds]).size;
  return a.process === b.process && all > 0 && both / all >= ALIKE;
}
