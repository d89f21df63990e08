import { describe, expect, test } from '@jest/globals';
import { cutOffGroups } from './dry-regions.ts';
import { createGateBoard, type Gate } from './gates.ts';
import type { FlowNetwork } from './network.ts';

/** Nodes in a row, each joined to the next. */
function chain(nodeCount: number): FlowNetwork {
  const rows = Array.from({ length: nodeCount }, (_, i) =>
    [i - 1, i + 1].filter((j) => j >= 0 && j < nodeCount),
  );
  const rowStart = [0];
  for (const row of rows) rowStart.push(rowStart[rowStart.length - 1] + row.length);
  return {
    nodeCount,
    rowStart: Int32Array.from(rowStart),
    columns: Int32Array.from(rows.flat()),
    conductance: new Float64Array(rows.flat().length).fill(1),
    storage: new Float64Array(nodeCount).fill(2),
  };
}
const fillOf = (text: string) => Float64Array.from(text, (letter) => ({ '#': 1, '.': 0, h: 0.5 })[letter]!);
const flagsAt = (count: number, ...nodes: number[]) =>
  Uint8Array.from({ length: count }, (_, i) => (nodes.includes(i) ? 1 : 0));

describe('air that is cut off', () => {
  test.each([
    ['##....v', '##.....', [6], []],
    ['resin between air and vent', '#..#...', [6], [4]],
    ['two pockets, the larger first', '#.#...#...', [9], [6, 2]],
    ['half-full counts what is left', '#.h#...', [6], [3]],
    ['no vent at all', '#...', [], [6]],
    ['a flooded vent still drains what touches it', '##..#', [4], []],
  ])('%s', (_, text, vents, volumes) => {
    const fill = fillOf(text);
    const groups = cutOffGroups(chain(text.length), {
      fill,
      isVent: flagsAt(text.length, ...vents),
      minVolume: 0,
    });
    expect(groups.map((group) => group.volume)).toEqual(volumes);
  });

  test('what is smaller than asked for is left out', () => {
    const fill = fillOf('#.#...#...');
    const groups = cutOffGroups(chain(10), { fill, isVent: flagsAt(10, 9), minVolume: 3 });
    expect(groups).toHaveLength(1);
    expect(Array.from(groups[0].nodes).sort()).toEqual([3, 4, 5]);
  });
});

describe('gate board', () => {
  const gates: Gate[] = [
    { name: 'Feed 1', kind: 'feed', nodes: Int32Array.of(0, 1) },
    { name: 'Feed 2', kind: 'feed', nodes: Int32Array.of(3, 4), opens: 'whenReached' },
    { name: 'Vent', kind: 'vent', nodes: Int32Array.of(6, 7) },
  ];

  test('flags follow what is open', () => {
    const board = createGateBoard(gates, 8);
    board.open(0);
    board.open(2);
    expect(Array.from(board.isFeed)).toEqual([1, 1, 0, 0, 0, 0, 0, 0]);
    expect(Array.from(board.isGiven)).toEqual([1, 1, 0, 0, 0, 0, 1, 1]);
    board.close(2);
    expect(Array.from(board.isVent)).toEqual(new Array(8).fill(0));
  });

  test('a waiting feed or open vent is reached once, when its whole length is wet', () => {
    const board = createGateBoard(gates, 8);
    board.open(0);
    board.open(2);
    expect(board.newlyReached(fillOf('####h...'))).toEqual([]);
    expect(board.newlyReached(fillOf('#####...'))).toEqual([1]);
    expect(board.newlyReached(fillOf('#####...'))).toEqual([1]);
    board.keepReached([1]);
    expect(board.newlyReached(fillOf('#####...'))).toEqual([]);
    expect(board.newlyReached(fillOf('########'))).toEqual([2]);
  });
});
