import type { Mould } from '@wick/contract/mould';
import {
  MOST_CAUSES,
  MOST_ROWS,
  type BookFigures,
  type ComparedRow,
  type Evidence,
  type FindingKind,
  type PartOutcome,
} from '@wick/contract/run/review-bodies';
import type { EntryBody } from '@wick/contract/run/run';
import type { LaidJob } from '../job/laid.ts';
import { isOf, type RunState } from '../run/state.ts';
import type { Answers } from './causes/observe.ts';
import type { LikelyCause } from './causes/rank-run.ts';
import type { FillReview } from './fill-review.ts';
import { findingsOf } from './findings.ts';
import type { Compared } from './compared.ts';

export interface BookRequest {
  readonly job: LaidJob;
  readonly mould: Mould | null;
  readonly state: Pick<RunState, 'entries'>;
  readonly fill: FillReview | null;
  readonly compared: readonly Compared[];
  readonly answers: Answers;
  readonly causes: readonly LikelyCause[];
  readonly evidence: readonly Evidence[];
  readonly outcome: PartOutcome;
  /** In the workshop's money; null where nobody has said. */
  readonly cost: number | null;
}

const finite = (value: number | null | undefined) =>
  value === null || value === undefined || !Number.isFinite(value) ? null : value;

const rowOf = ({ doubt: _doubt, planned, ...row }: Compared): ComparedRow => ({
  ...row,
  planned: planned && {
    early: finite(planned.early),
    middle: finite(planned.middle),
    late: finite(planned.late),
  },
});

/** What the shop's book keeps of a part: its last word counts. Infinity, which a file cannot hold, is kept as not known. */
export function bookedOf(request: BookRequest): Extract<EntryBody, { kind: 'booked' }> {
  const { job, mould, state, fill, compared, answers, causes, evidence, outcome, cost } = request;
  const kept = compared.slice(0, MOST_ROWS);
  const pairOf = (id: string): BookFigures['fill'] => {
    const row = compared.findLast((one) => one.id.startsWith(id));
    return { planned: finite(row?.planned?.middle), measured: finite(row?.measured) };
  };
  const counts: Partial<Record<FindingKind, number>> = {};
  for (const { is } of findingsOf(state)) counts[is] = (counts[is] ?? 0) + 1;
  const used = new Set([
    ...job.laminate.plies.map(({ materialId }) => materialId),
    ...job.layers.map(({ materialId }) => materialId),
    job.resin.materialId,
  ]);
  const figures: BookFigures = {
    ...{ process: job.process, outcome, cost, answers: { ...answers } },
    mouldId: mould?.id ?? null,
    mouldName: mould?.name ?? '',
    materials: job.materials.filter(({ id }) => used.has(id)).map(({ id, name }) => ({ id, name })),
    fill: { planned: finite(fill?.planned.last.middle), measured: finite(fill?.wetAt) },
    fillRange: fill ? { early: finite(fill.planned.last.early), late: finite(fill.planned.last.late) } : null,
    fraction: pairOf('fraction'),
    weight: pairOf('weight'),
    leak: pairOf('leak'),
    drawn: pairOf('drawn'),
    gel: pairOf('gel'),
    findings: counts,
    causeId: state.entries.filter(isOf('causeNamed')).at(-1)?.body.causeId ?? null,
    outside: kept.filter(({ isInside }) => isInside === false).map(({ id }) => id),
  };
  return {
    ...{ kind: 'booked', figures, evidence: [...evidence] },
    rows: kept.map(rowOf),
    causes: causes.slice(0, MOST_CAUSES).map(({ id, name, belief, for: speaksFor, against }) => ({
      ...{ id, name, belief: Number(belief.toFixed(4)), for: [...speaksFor], against: [...against] },
    })),
  };
}
