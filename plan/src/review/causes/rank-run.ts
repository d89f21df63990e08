import { askNext, rankCauses, type Observation, type Question } from '@wick/core/causes/rank';
import { MOST_CAUSES } from '@wick/contract/run/review-bodies';
import type { CauseEdits } from '@wick/contract/shop';
import type { Answers } from './observe.ts';
import { causeIds, causes, questions, type CauseId, type QuestionRow } from './table.ts';

/** A part that was reviewed before, whose cause the workshop has named. */
export interface NamedBefore {
  readonly causeId: string;
  readonly answers: Answers;
}

/** The built-in table counts as much as so many parts of each cause. From memory. */
const AS_MANY_PARTS = 10;

/** What the workshop holds of its causes: the built-in table, its own edits of it, and its parts so far. */
export interface CauseBook {
  readonly edits: CauseEdits;
  readonly before: readonly NamedBefore[];
}

/** P(answer | cause), by what is edited, else as built in; the workshop's own parts drawn into it. */
export function likelihoodsOf(
  question: QuestionRow,
  { edits, before }: CauseBook,
): Map<string, Map<string, number>> {
  const rows = new Map(question.answers.map(({ id }) => [id, new Map<string, number>()]));
  causeIds.forEach((causeId, c) => {
    const own = edits.likelihoods[`${question.id} ${causeId}`];
    const base = question.answers.map(({ id, given }) => own?.[id] ?? given[c]!);
    const total = base.reduce((sum, p) => sum + p, 0);
    const parts = before.filter(
      (part) => part.causeId === causeId && rows.has(part.answers[question.id] ?? ''),
    );
    question.answers.forEach(({ id }, n) => {
      const seen = parts.filter(({ answers }) => answers[question.id] === id).length;
      rows
        .get(id)!
        .set(causeId, ((AS_MANY_PARTS * base[n]!) / total + seen) / (AS_MANY_PARTS + parts.length));
    });
  });
  return rows;
}

/** How often each cause is the one, before anything is known: as edited, else as built in, with the workshop's own parts. */
export function priorsOf({ edits, before }: CauseBook): Map<CauseId, number> {
  const base = causeIds.map((id) => edits.priors[id] ?? causes[id].prior);
  const total = base.reduce((sum, p) => sum + p, 0);
  const own = causeIds.map((id) => before.filter(({ causeId }) => causeId === id).length);
  const parts = own.reduce((sum, count) => sum + count, 0);
  return new Map(
    causeIds.map((id, c) => [id, ((AS_MANY_PARTS * base[c]!) / total + own[c]!) / (AS_MANY_PARTS + parts)]),
  );
}

export interface LikelyCause {
  readonly id: CauseId;
  readonly name: string;
  readonly belief: number;
  /** What was seen that speaks for it and against it, strongest first. */
  readonly for: readonly string[];
  readonly against: readonly string[];
  readonly prevents: string;
}

export interface CauseAnswer {
  /** All of them, likeliest first; the first three are shown. */
  readonly ranked: readonly LikelyCause[];
  readonly shown: number;
  /** What tells most next; null where nothing is left that tells. */
  readonly next: { readonly question: QuestionRow; readonly gain: number } | null;
}

/** ln of the odds below which an observation is not worth a word. */
const WORTH_A_WORD = 0.15;

/** What may have gone wrong with a part by all that was observed of it. @param answers by observed */
export function causesOf(answers: Answers, book: CauseBook): CauseAnswer {
  const rows = questions.map((question) => ({ question, given: likelihoodsOf(question, book) }));
  const seen = rows.flatMap(({ question, given }): Observation[] => {
    const likelihoods = given.get(answers[question.id] ?? '');
    return likelihoods ? [{ id: question.id, group: question.group, likelihoods }] : [];
  });
  const priors = priorsOf(book);
  const ranked = rankCauses(
    causeIds.map((id) => ({ id, prior: priors.get(id)! })),
    seen,
  );
  const words = (id: string) => {
    const question = questions.find((one) => one.id === id)!;
    return question.answers.find((answer) => answer.id === answers[id])!.seen;
  };
  const said = (weights: readonly { id: string; weight: number }[]) =>
    weights.filter(({ weight }) => Math.abs(weight) > WORTH_A_WORD).map(({ id }) => words(id));
  const open = rows
    .filter(({ question }) => !(question.id in answers))
    .map(({ question, given }): Question & { row: QuestionRow } => ({
      ...{ id: question.id, row: question },
      answers: [...given.values()],
    }));
  const next = askNext(open, ranked);
  return {
    shown: MOST_CAUSES,
    next: next && { question: next.question.row, gain: next.gain },
    ranked: ranked.map((one) => {
      const id = one.id as CauseId;
      return {
        ...{ id, name: causes[id].name, prevents: causes[id].prevents, belief: one.belief },
        ...{ for: said(one.for), against: said(one.against) },
      };
    }),
  };
}
