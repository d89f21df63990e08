import type { JobLine } from '@wick/contract/job/job';
import type { JobLayer } from '@wick/contract/job/stack';
import type { Material, MaterialOf } from '@wick/contract/materials';
import { nearestOnLine } from '@wick/core/geometry/along';
import { polygonOf } from '@wick/core/geometry/arcs';
import { fills } from '@wick/core/verdict/rule';
import type { Edit } from '../job/edits.ts';
import type { LaidJob } from '../job/laid.ts';
import { withLaminate } from '../laminate/edits.ts';
import { onLayout } from '../layout/edits.ts';
import { samplesOf } from '../layout/lines.ts';
import { stackOf } from '../laminate/stack.ts';
import type { StackContext } from './rule.ts';
import { updateLayer, withCovers } from './edits.ts';
import { OFF_TAPE } from './usual.ts';
import { meshedWith, meshOf, withMesh } from './mesh.ts';

/** Changes that mend what the checks of a stack find. */

/** How far past a line a layer is run under it, m: common practice, no source. */
const PAST_LINE = 0.015;

/** The layer run out so far that it lies under a line beside the part, but not onto the tape. */
export function ventsAcross(layer: JobLayer, line: JobLine, tape: { from: number } | null): Edit {
  return (job) => {
    const outline = polygonOf(job.part.outline);
    const edge = [...outline, outline[0]!];
    const farthest = Math.max(...samplesOf(line).map((p) => nearestOnLine(p, edge).distance));
    const most = tape ? tape.from - OFF_TAPE : Infinity;
    return withCovers(layer.id, (covers) =>
      covers.kind === 'part'
        ? {
            ...covers,
            edge: Math.min(most, Math.max(covers.edge, farthest + PAST_LINE)),
            feed: null,
            vent: null,
          }
        : covers,
    )(updateLayer(layer.id, { except: [] })(job));
  };
}

/** Width kept free at the very edge of a flange, m. */
const FREE = 0.005;
/** The nearest that tape may lie to the part's edge, m. */
const NEAREST = 0.01;

/** Tape, masking and bag drawn in so that they fit on a flange; null where they do not. */
export function fitting(tape: { from: number; to: number }, flange: number): Edit | null {
  const by = tape.to - (flange - FREE);
  if (tape.from - by < NEAREST) return null;
  return onLayout(({ layers }) => ({
    layers: layers.map(({ covers, ...layer }): JobLayer => {
      if (covers.kind === 'rim')
        return { ...layer, covers: { ...covers, from: covers.from - by, to: covers.to - by } };
      const isBag = layer.kind === 'bag' && covers.kind === 'part';
      return { ...layer, covers: isBag ? { ...covers, edge: covers.edge - by } : covers };
    }),
  }));
}

export const withCore = (zoneId: string | null, core: Material): Edit =>
  withLaminate(zoneId, { coreId: core.id }, [core]);

/** A mesh of another openness has to run so many times as quickly or slowly to be worth naming. */
const WORTH = 1.2;
/** Share of the usable time below which the front has time to spare; and lag of the mould side, m, at which it runs too far ahead. */
const TO_SPARE = 0.2;
const FAR_AHEAD = 0.15;

/** A mesh that suits the resin better, by what the forecast says; false where the one laid does, or nothing is known. */
export function otherMesh(job: LaidJob, { shop, materials, flow, verdict }: StackContext) {
  const now = meshOf(job);
  if (now === null || !flow || !verdict || flow.dryRegions.length > 0) return false;
  const speed = (laid: LaidJob) => {
    const { transmissibility, storage } = stackOf(laid, shop);
    return (transmissibility.xx + transmissibility.yy) / storage;
  };
  const others = materials
    .filter((own): own is MaterialOf<'flowMesh'> => own.kind === 'flowMesh' && own.id !== now)
    .map((mesh) => ({ mesh, times: speed(meshedWith(job, mesh)) / speed(job) }));
  const isTooSlow = !fills(verdict.band) || verdict.timeUsed > shop.judging.comfortableTime;
  const isTooQuick = verdict.timeUsed < TO_SPARE && (flow.lag?.largest ?? 0) > FAR_AHEAD;
  const better = isTooSlow
    ? others.filter(({ times }) => times > WORTH).sort((a, b) => a.times - b.times)[0]
    : isTooQuick
      ? others
          .filter(({ times }) => times < 1 / WORTH && verdict.timeUsed / times < shop.judging.comfortableTime)
          .sort((a, b) => b.times - a.times)[0]
      : undefined;
  if (!better) return false;
  const laid = materials.find(({ id }) => id === now)?.name ?? 'The mesh';
  return {
    itemId: job.layers.find(({ materialId }) => materialId === now)!.id,
    message: isTooSlow
      ? `${laid} is fine for a resin as thick as this: the forecast takes too long. A more open mesh runs ${better.times.toFixed(1)} times as fast.`
      : `${laid} is open for a resin as thin as this: the mould side lags far behind while there is time to spare. A finer mesh lets it keep up.`,
    fix: { label: `${better.mesh.name} instead`, apply: withMesh(better.mesh, better.mesh.id) },
  };
}
