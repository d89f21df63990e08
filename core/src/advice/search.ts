import type { PartShape } from '../layouts/frame.ts';
import { framesOf } from '../layouts/frame.ts';
import { fitTemplate, type LineDraft, type TemplateRequest } from '../layouts/templates.ts';
import { compareScores, type LayoutScore } from './score.ts';

export interface Proposal {
  readonly request: TemplateRequest;
  readonly drafts: readonly LineDraft[];
  readonly score: LayoutScore;
}

export interface SearchRequest {
  readonly part: PartShape;
  /**
   * Simulates a layout; null where it cannot be laid like that. Quick runs sort and refine, thorough ones decide.
   */
  simulate(drafts: readonly LineDraft[], how: 'quick' | 'thorough'): Promise<LayoutScore | null>;
  /** Proposals wanted; at most one of a template, direction and number of feeds. */
  readonly count?: number;
  readonly onProgress?: (progress: SearchProgress) => void;
  /** True ends the search with what there is. */
  readonly isCancelled?: () => boolean;
}

export interface SearchProgress {
  /** 0-1 */
  readonly done: number;
  readonly simulated: number;
  /** Best so far, in order. */
  readonly best: readonly Proposal[];
}

const INSET_SHARE = 0.06;
const LEAST_INSET = 0.025;
const MOST_INSET = 0.06;
/** Steps of the pattern search, as shares of the part's length. */
const STEPS = [0.12, 0.05];
const ROUNDS = 3;
/** Turn of a feed that goes with a step, rad. */
const TILT = 2.2;
/** Of a long feed that starts out aslant, rad. */
const SLANT = 0.5;
const REFINED = 4;

/**
 * Proposes layouts for a part: every template fitted to it, the best of them moved about while that helps (pattern search,
 * Hooke & Jeeves 1961), the best of those run again thoroughly. The answer depends on the request alone, not on the order in
 * which simulations come back.
 * Checked by advice.test.ts, and against a brute-force search by contract/bench/advice.ts.
 */
export async function searchLayouts(request: SearchRequest): Promise<Proposal[]> {
  const { part, count = 5, onProgress, isCancelled = () => false } = request;
  let simulated = 0;
  let best: Proposal[] = [];
  const known = new Map<string, Promise<Proposal | null>>();
  const tell = (done: number) => onProgress?.({ done, simulated, best: best.slice(0, count) });

  function propose(template: TemplateRequest): Promise<Proposal | null> {
    const key = JSON.stringify(template);
    const found = known.get(key) ?? run(template);
    known.set(key, found);
    return found;
  }
  async function run(template: TemplateRequest): Promise<Proposal | null> {
    const drafts = fitTemplate(part, template);
    if (drafts.length === 0 || isCancelled()) return null;
    const score = await request.simulate(drafts, 'quick');
    simulated += 1;
    return score && { request: template, drafts, score };
  }

  const seeds = seedsFor(part);
  let seeded = 0;
  const found = await Promise.all(
    seeds.map((seed) =>
      propose(seed).then((proposal) => {
        tell((0.3 * ++seeded) / seeds.length);
        return proposal;
      }),
    ),
  );
  best = distinct(found.filter((proposal) => proposal !== null).sort(byRank));
  tell(0.3);

  const chosen = best.slice(0, REFINED);
  let refined = 0;
  const better = await Promise.all(
    chosen.map(async (start) => {
      const end = await refine(start, propose, isCancelled);
      tell(0.3 + (0.5 * ++refined) / chosen.length);
      return end;
    }),
  );
  best = distinct([...better, ...best.slice(REFINED)].sort(byRank));
  tell(0.8);

  const finals = best.slice(0, count + 1);
  let checked = 0;
  const thorough = await Promise.all(
    finals.map(async (proposal) => {
      const score = isCancelled() ? null : await request.simulate(proposal.drafts, 'thorough');
      simulated += score ? 1 : 0;
      tell(0.8 + (0.2 * ++checked) / finals.length);
      return score ? { ...proposal, score } : isCancelled() ? proposal : null;
    }),
  );
  best = thorough.filter((proposal) => proposal !== null).sort(byRank);
  tell(1);
  return best.slice(0, count);
}

const byRank = (a: Proposal, b: Proposal) => compareScores(a.score, b.score);

/** The first of each kind. */
function distinct(sorted: readonly Proposal[]): Proposal[] {
  const kind = ({ request: { template, direction, count } }: Proposal) =>
    template === 'point' ? template : `${template} ${direction} ${count}`;
  return sorted.filter((proposal, i) => sorted.findIndex((other) => kind(other) === kind(proposal)) === i);
}

/** Moves the first and last feed, the inset and the order while one of them helps, in ever smaller steps. */
async function refine(
  start: Proposal,
  propose: (template: TemplateRequest) => Promise<Proposal | null>,
  isCancelled: () => boolean,
): Promise<Proposal> {
  let best = start;
  for (const step of STEPS)
    for (let round = 0; round < ROUNDS && !isCancelled(); round++) {
      const tried = await Promise.all(neighbours(best.request, step).map(propose));
      const next = tried.filter((proposal) => proposal !== null).sort(byRank)[0];
      if (!next || byRank(next, best) >= 0) break;
      best = next;
    }
  return best;
}

/** Usual places of the first and last feed, from where they are moved. */
const usualEnds: Record<TemplateRequest['template'], readonly [number, number] | null> = {
  edgeToEdge: [0.05, 1],
  parallel: [0.05, 0.8],
  outward: [0.5, 0.85],
  centreRing: [0.2, 0.8],
  spine: [0.2, 0.8],
  radial: null,
  point: null,
};

function neighbours(request: TemplateRequest, step: number): TemplateRequest[] {
  const usual = usualEnds[request.template];
  if (!usual) return [];
  const [from, to] = [request.from ?? usual[0], request.to ?? usual[1]];
  const moved: TemplateRequest[] = [];
  const add = (change: Partial<TemplateRequest>) => {
    const next = { ...request, from, to, ...change };
    const isOutward = request.template === 'outward';
    if (next.from! > 0.005 && next.to! < 0.995 && next.to! - next.from! > (isOutward ? 0.1 : 0.05))
      moved.push(next);
  };
  const near = (share: number) => Math.round(share * 1e4) / 1e4;
  if (request.template === 'edgeToEdge') {
    for (const by of [-step, step])
      if (from + by > 0.005 && from + by < 0.6) moved.push({ ...request, from: near(from + by) });
    return moved;
  }
  for (const by of [-step, step]) {
    add({ from: near(from + by) });
    add({ to: near(to + by) });
  }
  if (request.template === 'centreRing') {
    const [tilt, shift] = [request.tilt ?? 0, request.shift ?? 0];
    for (const by of [-step, step]) {
      add({ tilt: near(tilt + TILT * by) });
      add({ shift: near(shift + by) });
    }
  }
  if (step === STEPS[0] && (request.template === 'parallel' || request.template === 'outward'))
    add({ together: !request.together });
  return moved;
}

/** Every template in every direction and number that a part of its proportions could want. */
function seedsFor(part: PartShape): TemplateRequest[] {
  const { long, short } = framesOf(part);
  const inset = Math.min(MOST_INSET, Math.max(LEAST_INSET, INSET_SHARE * long.width));
  const seed = (
    template: TemplateRequest['template'],
    count: number,
    direction: TemplateRequest['direction'] = 'long',
    reversed = false,
  ): TemplateRequest => ({ template, count, direction, reversed, inset });
  const isSquare = short.length > 0.7 * long.length;
  const directions = ['long', 'short'] as const;
  return [
    ...directions.flatMap((d) => [false, true].map((r) => seed('edgeToEdge', 1, d, r))),
    ...directions.map((d) => seed('centreRing', 1, d)),
    ...[-SLANT, 0, SLANT].map((tilt) => ({ ...seed('centreRing', 1), tilt, from: 0.08, to: 0.92 })),
    ...[2, 3, 4].flatMap((n) => [false, true].map((r) => seed('parallel', n, 'long', r))),
    ...[3, 5].map((n) => seed('outward', n)),
    ...(isSquare
      ? [seed('parallel', 2, 'short'), seed('parallel', 2, 'short', true), seed('outward', 3, 'short')]
      : []),
    ...[2, 3].map((n) => seed('spine', n)),
    ...[4, 6].map((n) => seed('radial', n)),
    seed('point', 1),
  ];
}
