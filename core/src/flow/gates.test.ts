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
    const groups = cutOffGroups(chain(text.length), { fill, isVent: flagsAt(text.length, ...vents) });
    expect(groups.map((group) => group.volume)).toEqual(volumes);
  });

  test('each group has the nodes that are joined, the largest first', () => {
    const fill = fillOf('#.#...#...');
    const groups = cutOffGroups(chain(10), { fill, isVent: flagsAt(10, 9) });
    expect(groups.map(({ nodes }) => Array.from(nodes).sort())).toEqual([[3, 4, 5], [1]]);
  });
});

describe('gate board', () => {
  const gates: Gate[] = [
    { name: 'Feed 1', kind: 'feed', nodes: Int32Array.of(0, 1), startsOpen: true },
    { name: 'Feed 2', kind: 'feed', nodes: Int32Array.of(3, 4), startsOpen: false },
    { name: 'Vent', kind: 'vent', nodes: Int32Array.of(6, 7), startsOpen: true },
  ];

  test('flags follow what is open', () => {
    const board = createGateBoard(gates, 8, { feedPressure: 92_000, vacuumPressure: 2_000 });
    board.set(0, 1);
    board.set(2, 1);
    expect(Array.from(board.isFeed)).toEqual([1, 1, 0, 0, 0, 0, 0, 0]);
    expect(Array.from(board.isGiven)).toEqual([1, 1, 0, 0, 0, 0, 1, 1]);
    board.set(2, 0);
    expect(Array.from(board.isVent)).toEqual(new Array(8).fill(0));
  });

  test('a feed behind a hose has its pot at pressure all the time, and its own line never', () => {
    const [feed, , vent] = gates;
    const hosed = { ...feed, pressure: 95_000, supply: { pot: 5, from: 5, junction: 0 }, startsOpen: false };
    const board = createGateBoard([hosed, vent], 8, { feedPressure: 92_000, vacuumPressure: 2_000 });
    expect(Array.from(board.isFeed)).toEqual([0, 0, 0, 0, 0, 1, 0, 0]);
    expect(board.pressure[5]).toBe(93_000);
    board.set(0, 0.5);
    expect(Array.from(board.opening)).toEqual([0.5, 0]);
    expect(Array.from(board.isFeed)).toEqual([0, 0, 0, 0, 0, 1, 0, 0]);
  });

  test('a waiting feed or open vent is reached once, when its whole length is wet', () => {
    const board = createGateBoard(gates, 8, { feedPressure: 92_000, vacuumPressure: 2_000 });
    board.set(0, 1);
    board.set(2, 1);
    expect(board.newlyReached(fillOf('####....'))).toEqual([]);
    // Inside the part the front stands at a node when its volume is half full.
    expect(board.newlyReached(fillOf('####h...'))).toEqual([1]);
    expect(board.newlyReached(fillOf('#####...'))).toEqual([1]);
    expect(board.newlyReached(fillOf('#####...'))).toEqual([1]);
    board.keepReached([1]);
    expect(board.newlyReached(fillOf('#####...'))).toEqual([]);
    expect(board.newlyReached(fillOf('#######h'))).toEqual([]);
    expect(board.newlyReached(fillOf('########'))).toEqual([2]);
  });
});
