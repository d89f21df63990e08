import type { Infusion } from '@wick/plan/infusion/infusion';
import type { SolvedShape } from '@wick/plan/infusion/problem-shapes';
import { refusalOf } from '@wick/plan/infusion/upstream';
import { ref } from 'vue';
import { useRun } from '../../compute/use-desk.ts';

/** A place at which the front is seen, and by how much it may be off, m. */
export interface MarkedPlace {
  readonly markId: string | null;
  readonly x: number;
  readonly y: number;
  readonly doubt: number;
}

/** Says where the front is, unless that cannot be; a slip is taken back by a correcting entry. */
export function createMarking(infusion: () => Infusion | null, plan: () => SolvedShape | null) {
  const run = useRun();
  const refusal = ref<string | null>(null);
  const lastId = ref<string | null>(null);

  async function mark(place: MarkedPlace): Promise<void> {
    const fill = infusion();
    const shape = plan();
    lastId.value = null;
    if (!fill || fill.openedAt === null) {
      refusal.value = 'Nothing runs yet: a mark counts from the opening of the feed.';
      return;
    }
    refusal.value = shape && refusalOf(shape, fill.seen, { x: place.x, y: place.y, at: run.now() });
    if (refusal.value === null) lastId.value = await run.say({ kind: 'front', ...place });
  }
  async function undo(): Promise<void> {
    if (lastId.value) await run.say({ kind: 'struck', entryId: lastId.value, why: 'tapped by mistake' });
    lastId.value = null;
  }
  return { refusal, lastId, mark, undo };
}
