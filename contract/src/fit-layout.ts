import { polygonOf } from '@wick/core/geometry/arcs';
import type { PartShape } from '@wick/core/layouts/frame';
import type { LineDraft } from '@wick/core/layouts/templates';
import type { Job, JobLine } from './job.ts';

/** The plain plan that layouts are fitted to. */
export const partShapeOf = ({ part }: Pick<Job, 'part'>): PartShape => ({
  outline: polygonOf(part.outline),
  holes: part.holes.map((hole) => polygonOf(hole)),
});

/** Usual bore of a line: common practice, no source. */
const LINE_BORE = 0.012;
/** One hose feeds everything behind a tee: it is short and wide. */
const TEE_HOSE = { hoseLength: 0.6, hoseBore: 0.02 };

/**
 * The job with its unpinned feeds and vents replaced by proposed ones; races, pinned lines, pots and pumps stay. Stock and
 * bore are those of the first line of the same kind that goes.
 */
export function applyDrafts(job: Job, drafts: readonly LineDraft[]): Job {
  const stays = (line: JobLine) => line.pinned || line.kind === 'race';
  const kept = job.lines.filter(stays);
  const keptIds = new Set(kept.map(({ id }) => id));
  const model = (kind: JobLine['kind']) =>
    job.lines.find((line) => line.kind === kind && !stays(line)) ??
    job.lines.find((line) => line.kind === kind);
  const taken = new Set<string>([
    ...keptIds,
    ...kept.map(({ name }) => name),
    ...[...job.marks, ...job.stations, ...job.meshAreas, ...job.zones, ...job.part.features].map(
      ({ id }) => id,
    ),
  ]);
  const usedTees = job.tees.filter(({ id }) => kept.some((line) => line.tee === id));
  const isTeed = drafts.some(({ onTee }) => onTee);
  const teeId = fresh(new Set([...taken, ...usedTees.map(({ id }) => id)]), 'tee', 'Tee').id;
  const tee = {
    id: teeId,
    name: `Tee ${teeId.split('-')[1]}`,
    place: null,
    ...TEE_HOSE,
  };
  const added = drafts.map((draft): JobLine => {
    const { id, name } = fresh(taken, draft.kind, draft.kind === 'feed' ? 'Feed' : 'Vent');
    taken.add(id).add(name);
    const like = model(draft.kind);
    const passed = { kind: 'passed' as const, what: id, distance: 0, delay: 0 };
    const waits = draft.kind === 'feed' && draft.opens === 'passed';
    return {
      id,
      kind: draft.kind,
      name,
      points: draft.points.map(rounded),
      bore: like?.bore ?? LINE_BORE,
      stockId: like?.stockId ?? null,
      hoseId: like?.hoseId ?? null,
      hoseBore: like?.hoseBore ?? null,
      hoseLength: draft.onTee ? 0.5 : (like?.hoseLength ?? null),
      tee: draft.onTee ? teeId : null,
      stationId: like?.stationId ?? null,
      inlet: 0.5,
      potLevel: draft.kind === 'feed' ? (like?.potLevel ?? null) : null,
      startsOpen: !waits,
      actions: waits ? [{ opening: 1, when: passed }] : [],
      pinned: false,
    };
  });
  const ids = new Set([...kept, ...added, ...job.marks].map(({ id }) => id));
  const lines = [...kept, ...added].map((line) => ({
    ...line,
    actions: line.actions.filter(({ when }) => !('what' in when) || ids.has(when.what)),
  }));
  return { ...job, lines, tees: isTeed ? [...usedTees, tee] : usedTees };
}

function fresh(taken: ReadonlySet<string>, word: string, name: string): { id: string; name: string } {
  let number = 1;
  while (taken.has(`${word}-${number}`) || taken.has(`${name} ${number}`)) number += 1;
  return { id: `${word}-${number}`, name: `${name} ${number}` };
}

const rounded = ({ x, y }: { x: number; y: number }) => ({
  x: Math.round(x * 1e4) / 1e4,
  y: Math.round(y * 1e4) / 1e4,
});
