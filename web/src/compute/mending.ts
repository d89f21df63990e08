import type { Job } from '@wick/contract/job/job';
import { scoreOf } from '@wick/plan/advice/score';
import { remediesFor } from '@wick/plan/advice/remedies';
import { findRepairs, type Repair } from '@wick/plan/advice/repairs';
import { COARSE, finenessOf, verdictOf, type Resolution } from '@wick/plan/forecast/assess';
import { isSound } from '@wick/plan/forecast/words';
import { outcomeOf } from '@wick/plan/forecast/outcome';
import { laidOut } from '@wick/plan/job/laid';
import { shallowRef } from 'vue';
import type { AdviceWork } from './advice-work.ts';
import type { Desk } from './desk.ts';

/** Repairs that are simulated again, more finely. */
const SHOWN_REPAIRS = 7;
/** Sizes of a repair that are tried on, from the smallest that a quick run calls enough. */
const MOST_SIZES = 4;

/** What would mend the layout there is, each tried on a worker. */
export function createMending(
  { session, shop, library }: Desk,
  { work, score, picture, progress }: AdviceWork,
) {
  const repairs = shallowRef<readonly Repair[] | null>(null);

  const mend = () =>
    work('mend', async (signal) => {
      repairs.value = null;
      const { document } = session;
      // Its own, not the board's, which may be that of a moment ago.
      const flow = await picture(session.laid, signal);
      const remedies = remediesFor(session.laid, {
        shop: shop.shop,
        materials: library.materials,
        lastPlace: flow.dryRegions[0]?.place ?? flow.lastPlace,
        show: shop.show,
        thinHoses: flow.findings.flatMap((f) => (f.kind === 'hoseTakes' ? [f.lineId] : [])),
      });
      const found = await findRepairs(
        document,
        remedies,
        (changed) => score(changed, 'quick', signal),
        (done) => (progress.value = 0.8 * done),
      );
      if (signal.aborted) return;
      const confirmed = await Promise.all(
        found.slice(0, SHOWN_REPAIRS).map((repair) => confirm(document, repair, signal)),
      );
      if (signal.aborted) return;
      const known = confirmed.filter((repair) => repair !== null);
      repairs.value = [...known.filter((r) => r.isEnough), ...known.filter((r) => !r.isEnough)];
    });

  /** What is called enough is so on the board's own fine forecast, which is then there already when it is done. */
  async function confirm(document: Job, repair: Repair, signal: AbortSignal): Promise<Repair | null> {
    let best: Repair | null = null;
    for (const size of [repair, ...repair.larger].slice(0, MOST_SIZES)) {
      const tried = await judged(document, { ...repair, ...size }, signal);
      if (tried?.isEnough) return tried;
      best ??= tried;
      if (!repair.isEnough) break;
    }
    return best;
  }

  /** Simulated as the board's quick forecast does, and where that is enough as its fine one does. */
  async function judged(
    document: Job,
    repair: Repair,
    signal: AbortSignal,
    how: Resolution = COARSE,
  ): Promise<Repair | null> {
    const changed = laidOut(repair.apply(document));
    const run = await picture(changed, signal, how);
    const verdict = verdictOf(changed, shop.shop, run);
    if (!verdict) return null;
    const own = scoreOf(changed, shop.shop, outcomeOf(changed, shop.shop, run, verdict));
    const isEnough = isSound(verdict.band);
    return isEnough && how === COARSE
      ? judged(document, repair, signal, finenessOf(changed))
      : { ...repair, score: own, isEnough };
  }

  /** Does it, once: the other changes were simulated on the job as it was. */
  function apply(repair: Repair) {
    session.apply(repair.apply, repair.words);
    repairs.value = null;
  }

  return { repairs, mend, apply };
}
