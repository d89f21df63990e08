import type { Point } from '@wick/core/geometry/polygon';
import type { Edit } from '@wick/plan/job/edits';
import { bendEdgeTo, moveCorner, moveRing, ringUnder, type RingRef } from '@wick/plan/part/edits';
import { moveFeaturePoint } from '@wick/plan/part/features';
import type { Ref } from 'vue';
import type { Figure, Role } from '../../board/scene.ts';
import type { BoardEvent, Tool } from '../../board/tool.ts';
import type { OpenSession } from '../../compute/use-desk.ts';
import type { PartHand } from './part-hand.ts';

/** What is taken hold of: a handle, or the ring that lies under the pointer. */
interface Hold {
  readonly figure: Figure | null;
  readonly from: Point;
}

const labels: Partial<Record<Role, string>> = { corner: 'move of a corner', edgeMiddle: 'bend' };

/** The tool that takes hold of corners, edges, rises and whole holes or zones. */
export function selectTool(
  job: OpenSession,
  { selected, corner }: { selected: Ref<RingRef>; corner: Ref<number | null> },
  { pointer, snapped, onRings }: PartHand,
): Tool {
  let held: Hold | null = null;

  function dragged({ figure, from }: Hold, event: BoardEvent): Edit {
    const { at } = event;
    const ref = selected.value;
    if (!figure) return moveRing(ref, { x: at.x - from.x, y: at.y - from.y });
    const index = figure.index!;
    if (figure.role === 'edgeMiddle') return bendEdgeTo(ref, index, at);
    if (figure.role === 'featurePoint') return moveFeaturePoint(figure.id, index, onRings(event));
    pointer.value = snapped(event, ref, index);
    return moveCorner(ref, index, pointer.value.point);
  }

  return {
    press({ at, target }) {
      held = { figure: target, from: at };
      if (target?.role === 'corner') corner.value = target.index!;
      if (target) return;
      const under = ringUnder(job.document, at);
      selected.value = under ?? { kind: 'outline' };
      corner.value = null;
      if (!under || under.kind === 'outline') held = null;
    },
    move(event) {
      if (held) job.preview(dragged(held, event));
    },
    release() {
      const role = held?.figure?.role;
      held = null;
      pointer.value = null;
      job.endGesture(true, (role && labels[role]) ?? 'move');
    },
    abandon() {
      held = null;
      job.endGesture(false);
    },
  };
}
