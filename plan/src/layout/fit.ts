import { polygonOf } from '@wick/core/geometry/arcs';
import type { PartShape } from '@wick/core/layouts/frame';
import type { LineDraft } from '@wick/core/layouts/templates';
import type { Job, JobLine } from '@wick/contract/job/job';
import { roundPoint } from '../job/edits.ts';
import { idsFrom, newId, nextName } from '../job/ids.ts';
import type { LaidJob } from '../job/laid.ts';
import { whenPassed } from './edits.ts';

/** The plain plan that layouts are fitted to. */
export const partShapeOf = ({ part }: Pick<Job, 'part'>): PartShape => ({
  outline: polygonOf(part.outline),
  holes: part.holes.map((hole) => polygonOf(hole.outline)),
});

/** Usual bore of a line: common practice, no source. */
const LINE_BORE = 0.012;
/** One hose feeds everything behind a tee: it is short and wide. */
const TEE_HOSE = { hoseLength: 0.6, hoseBore: 0.02 };

/**
 * The job with its unpinned feeds and vents replaced by proposed ones; races, pinned lines, pots and pumps stay. Stock and
 * bore are those of the first line of the same kind that goes.
 */
export function applyDrafts(job: LaidJob, drafts: readonly LineDraft[], seed: string = newId()): LaidJob {
  const stays = (line: JobLine) => line.pinned || line.kind === 'race';
  const kept = job.lines.filter(stays);
  const model = (kind: JobLine['kind']) =>
    job.lines.find((line) => line.kind === kind && !stays(line)) ??
    job.lines.find((line) => line.kind === kind);
  const nextId = idsFrom(seed);
  const usedTees = job.tees.filter(({ id }) => kept.some((line) => line.tee === id));
  const isTeed = drafts.some(({ onTee }) => onTee);
  const tee = { id: nextId(), name: nextName('Tee', usedTees), place: null, ...TEE_HOSE };
  const names = kept.map(({ name }) => ({ name }));
  const added = drafts.map((draft): JobLine => {
    const id = nextId();
    const name = nextName(draft.kind === 'feed' ? 'Feed' : 'Vent', names);
    names.push({ name });
    const like = model(draft.kind);
    const waits = draft.kind === 'feed' && draft.opens === 'passed';
    return {
      id,
      kind: draft.kind,
      name,
      points: draft.points.map(roundPoint),
      bore: like?.bore ?? LINE_BORE,
      stockId: like?.stockId ?? null,
      hoseId: like?.hoseId ?? null,
      hoseBore: like?.hoseBore ?? null,
      hoseLength: draft.onTee ? 0.5 : (like?.hoseLength ?? null),
      tee: draft.onTee ? tee.id : null,
      stationId: like?.stationId ?? null,
      inlet: 0.5,
      potLevel: draft.kind === 'feed' ? (like?.potLevel ?? null) : null,
      startsOpen: !waits,
      actions: waits ? [whenPassed(id, 1, nextId())] : [],
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
