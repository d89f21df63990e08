/** Something that may have happened, and how often it does where nothing is known. */
export interface Cause {
  readonly id: string;
  /** Only their ratios count, > 0 */
  readonly prior: number;
}

/** What was seen, and how likely each cause makes it. */
export interface Observation {
  readonly id: string;
  /** Those of one group tell partly the same. */
  readonly group: string;
  /** P(seen | cause), 0-1, by the cause's id; a cause it says nothing of is left as it is. */
  readonly likelihoods: ReadonlyMap<string, number>;
}

export interface RankedCause {
  readonly id: string;
  /** 0-1; of all together 1. */
  readonly belief: number;
  /** What speaks for it and against it: by how much ln of its odds moved, strongest first. */
  readonly for: readonly Weight[];
  readonly against: readonly Weight[];
}

export interface Weight {
  readonly id: string;
  /** ln(P(seen | cause) / P(seen)), as it was counted. */
  readonly weight: number;
}

/** No single observation proves or rules out. */
const LEAST = 0.02;
/** So much counts an observation that tells partly the same as another. */
const RELATED = 0.5;

/**
 * Causes by what was observed: ln of the odds = ln prior + sum of ln P(observed | cause); what nobody looked at is left out, likelihoods
 * are held between 0.02 and 0.98, and related observations count half.
 * @param causes one at least  @param seen any number
 * @returns likeliest first; those of equal belief in the order given
 * Source: Bayes' rule with conditional independence. Checked by rank.test.ts.
 */
export function rankCauses(causes: readonly Cause[], seen: readonly Observation[]): RankedCause[] {
  const total = causes.reduce((sum, { prior }) => sum + prior, 0);
  const counts = new Map<string, number>();
  for (const { group } of seen) counts.set(group, (counts.get(group) ?? 0) + 1);
  const parts = seen.map(({ id, group, likelihoods }) => {
    const share = counts.get(group)! > 1 ? RELATED : 1;
    const all = causes.map((cause) => likelihoodOf(likelihoods, cause.id));
    const told = all.filter((likelihood) => likelihood !== null);
    // A cause it says nothing of stands where the others do on the average.
    const usual =
      causes.reduce((sum, { prior }, c) => sum + (all[c] === null ? 0 : prior * all[c]!), 0) /
      Math.max(
        1e-12,
        causes.reduce((sum, { prior }, c) => sum + (all[c] === null ? 0 : prior), 0),
      );
    return {
      id,
      logs: all.map((likelihood) =>
        told.length === 0 || likelihood === null ? 0 : share * Math.log(likelihood / usual),
      ),
    };
  });
  const logs = causes.map(
    ({ prior }, c) => Math.log(prior / total) + parts.reduce((sum, part) => sum + part.logs[c]!, 0),
  );
  const most = Math.max(...logs);
  const whole = logs.reduce((sum, log) => sum + Math.exp(log - most), 0);
  return causes
    .map(({ id }, c) => {
      const weights = parts.map((part) => ({ id: part.id, weight: part.logs[c]! }));
      return {
        ...{ id, belief: Math.exp(logs[c]! - most) / whole },
        for: weights.filter(({ weight }) => weight > 0).sort((a, b) => b.weight - a.weight),
        against: weights.filter(({ weight }) => weight < 0).sort((a, b) => a.weight - b.weight),
      };
    })
    .sort((a, b) => b.belief - a.belief);
}

/** Held between 0.02 and 0.98; null where nothing is said of the cause. */
function likelihoodOf(likelihoods: ReadonlyMap<string, number>, causeId: string): number | null {
  const likelihood = likelihoods.get(causeId);
  return likelihood === undefined ? null : Math.min(1 - LEAST, Math.max(LEAST, likelihood));
}

/** A question that is answered by one of several answers; P(answer | cause) of each, together 1. */
export interface Question {
  readonly id: string;
  readonly answers: readonly ReadonlyMap<string, number>[];
}

/** What is not known, bit. @param beliefs together 1 */
export const entropyOf = (beliefs: readonly number[]): number =>
  beliefs.reduce((sum, belief) => sum - (belief > 0 ? belief * Math.log2(belief) : 0), 0);

/**
 * By how much the answer to a question would lower what is not known, on the average of its answers, bit.
 * @param beliefs each cause's, together 1
 * Source: Shannon 1948, mutual information. Checked by rank.test.ts.
 */
export function gainOf(question: Question, beliefs: ReadonlyMap<string, number>): number {
  const ids = [...beliefs.keys()];
  const before = entropyOf([...beliefs.values()]);
  const after = question.answers.reduce((sum, answer) => {
    // A cause that the question says nothing of answers it any way alike.
    const joint = ids.map(
      (id) => beliefs.get(id)! * (likelihoodOf(answer, id) ?? 1 / question.answers.length),
    );
    const chance = joint.reduce((total, part) => total + part, 0);
    return sum + chance * entropyOf(joint.map((part) => part / chance));
  }, 0);
  return before - after;
}

/** The question that tells most, and by how much; null where none tells anything. */
export function askNext<Q extends Question>(
  questions: readonly Q[],
  ranked: readonly Pick<RankedCause, 'id' | 'belief'>[],
): { readonly question: Q; readonly gain: number } | null {
  const beliefs = new Map(ranked.map(({ id, belief }) => [id, belief]));
  const gains = questions.map((question) => ({ question, gain: gainOf(question, beliefs) }));
  const best = gains.reduce<(typeof gains)[number] | null>(
    (most, one) => (most === null || one.gain > most.gain ? one : most),
    null,
  );
  return best && best.gain > 1e-6 ? best : null;
}
