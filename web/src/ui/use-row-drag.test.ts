import { describe, expect, test } from '@jest/globals';
import { ref } from 'vue';
import { useRowDrag } from './use-row-drag.ts';

/** Rows of 30 pixels. */
const body = ref({
  querySelector: () => ({ getBoundingClientRect: () => ({ height: 30 }) }),
} as unknown as HTMLElement);
const pointer = (clientY: number) =>
  ({
    clientY,
    pointerId: 1,
    currentTarget: { setPointerCapture: () => undefined },
  }) as unknown as PointerEvent;

function sheet(count = 4) {
  const moves: [number, number][] = [];
  const drops: [number, number][] = [];
  const rows = useRowDrag(body, {
    count: () => count,
    onMove: (...move) => moves.push(move),
    onDrop: (...drop) => drops.push(drop),
  });
  return { rows, moves, drops };
}

describe('a row in hand', () => {
  test('is over the place nearest to it, told once a place', () => {
    const { rows, moves, drops } = sheet();
    rows.grab(1, pointer(100));
    for (const y of [104, 114, 116, 120, 161]) rows.drag(pointer(y));
    expect(moves).toEqual([
      [1, 2],
      [1, 3],
    ]);
    expect([rows.dragged.value, rows.over.value]).toEqual([1, 3]);
    rows.drop();
    expect(drops).toEqual([[1, 3]]);
    expect([rows.dragged.value, rows.over.value]).toEqual([null, null]);
  });

  test('stays within the sheet', () => {
    const { rows, moves } = sheet();
    rows.grab(2, pointer(0));
    rows.drag(pointer(-900));
    rows.drag(pointer(900));
    expect(moves.map(([, to]) => to)).toEqual([0, 3]);
  });

  test('a pointer that never grabbed moves and drops nothing', () => {
    const { rows, moves, drops } = sheet();
    rows.drag(pointer(90));
    rows.drop();
    expect([...moves, ...drops]).toEqual([]);
  });
});
