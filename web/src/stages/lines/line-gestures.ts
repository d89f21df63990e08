import type { Point } from '@wick/core/geometry/polygon';
import { ref, type Ref } from 'vue';
import {
  addMark,
  moveLine,
  moveLinePoint,
  moveMark,
  newLine,
  removeLine,
  removeMark,
} from '../../state/job-edits.ts';
import { useJobStore } from '../../state/job-store.ts';

type Tool = 'select' | 'feed' | 'vent' | 'race' | 'mark';

/** Shorter than this a drawn line is a point, m. */
const POINT = 0.012;

/** Pointer and keys on the board become edits in metres, one undo step a gesture. */
export function useLineGestures(selected: Ref<string | null>) {
  const job = useJobStore();
  const tool = ref<Tool>('select');
  const draft = ref<Point[] | null>(null);
  let heldMark: { id: string; from: Point } | null = null;
  let held: { id: string; corner: number | null; from: Point } | null = null;

  function press(at: Point, event: PointerEvent) {
    if (tool.value === 'mark') {
      job.apply(addMark(at));
      tool.value = 'select';
      return;
    }
    if (tool.value !== 'select') {
      draft.value = [at, at];
      return;
    }
    const target = event.target as Element;
    const mark = target.closest('[data-mark]')?.getAttribute('data-mark') ?? null;
    if (mark) {
      selected.value = mark;
      heldMark = { id: mark, from: at };
      return;
    }
    const id = target.closest('[data-line]')?.getAttribute('data-line') ?? null;
    const corner = target.closest('[data-end]')?.getAttribute('data-end') ?? null;
    selected.value = id;
    held = id ? { id, corner: corner === null ? null : Number(corner), from: at } : null;
  }

  function move(at: Point, event: PointerEvent) {
    if (draft.value) draft.value = [draft.value[0]!, event.shiftKey ? straight(draft.value[0]!, at) : at];
    if (heldMark) {
      const { id, from } = heldMark;
      job.preview(moveMark(id, { x: at.x - from.x, y: at.y - from.y }));
    }
    if (!held) return;
    const { id, corner, from } = held;
    job.preview(
      corner === null ? moveLine(id, { x: at.x - from.x, y: at.y - from.y }) : moveLinePoint(id, corner, at),
    );
  }

  function release() {
    held = heldMark = null;
    job.endGesture();
    if (!draft.value || tool.value === 'select' || tool.value === 'mark') return;
    const [a, b] = [draft.value[0]!, draft.value[1]!];
    const points = Math.hypot(b.x - a.x, b.y - a.y) < POINT ? [a] : [a, b];
    const line = newLine(job.document!, tool.value, points);
    job.apply((document) => ({ ...document, lines: [...document.lines, line] }));
    selected.value = line.id;
    draft.value = null;
    tool.value = 'select';
  }

  function abandon() {
    held = heldMark = null;
    draft.value = null;
    job.endGesture(false);
    tool.value = 'select';
  }

  /** Arrows and Delete on the selected line; false when the key is not for it. */
  function nudge(event: KeyboardEvent): boolean {
    const id = selected.value;
    if (!id || !(event.target as Element).closest?.('[data-line], body')) return false;
    if ((event.target as Element).closest('[role="slider"]')) return false;
    const size = event.shiftKey ? 0.001 : 0.01;
    const by = {
      ArrowLeft: { x: -size, y: 0 },
      ArrowRight: { x: size, y: 0 },
      ArrowUp: { x: 0, y: size },
      ArrowDown: { x: 0, y: -size },
    }[event.key];
    const isMark = job.document!.marks.some((mark) => mark.id === id);
    if (by) job.apply(isMark ? moveMark(id, by) : moveLine(id, by));
    else if (event.key === 'Delete' || event.key === 'Backspace') {
      selected.value = null;
      job.apply(isMark ? removeMark(id) : removeLine(id));
    } else return false;
    return true;
  }

  return { tool, draft, press, move, release, abandon, nudge };
}

/** The end moved onto the nearer of horizontal and vertical. */
function straight(from: Point, to: Point): Point {
  return Math.abs(to.x - from.x) > Math.abs(to.y - from.y) ? { x: to.x, y: from.y } : { x: from.x, y: to.y };
}
