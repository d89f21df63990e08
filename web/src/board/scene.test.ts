import { describe, expect, test } from '@jest/globals';
import { figureAt, type Scene } from './scene.ts';

const line = {
  role: 'line',
  id: 'feed',
  points: [
    { x: 0, y: 0 },
    { x: 1, y: 0 },
  ],
  reach: 10,
} as const;
const end = (index: number) =>
  ({ role: 'lineEnd', id: 'feed', index, points: [{ x: index, y: 0 }], reach: 8 }) as const;
const square = [
  { x: 2, y: 0 },
  { x: 3, y: 0 },
  { x: 3, y: 1 },
  { x: 2, y: 1 },
];
/** A pixel is a millimetre. */
const at = (scene: Scene, x: number, y: number) => figureAt(scene, { x, y }, 1e-3);

describe('what lies under a place', () => {
  const scene: Scene = [line, end(0), end(1)];

  test('a line within its reach, and nothing beyond it', () => {
    expect(at(scene, 0.5, 0.0099)).toBe(line);
    expect(at(scene, 0.5, 0.0101)).toBeNull();
    expect(at(scene, 1.02, 0)).toBeNull();
    expect(figureAt(scene, { x: 0.5, y: 0.05 }, 1e-2)).toBe(line);
  });

  test('an end lies over its line', () => {
    expect(at(scene, 0.003, 0.004)).toMatchObject({ role: 'lineEnd', index: 0 });
    expect(at(scene, 0.997, 0)).toMatchObject({ role: 'lineEnd', index: 1 });
  });

  test('of two of a kind the nearer, whichever is on top', () => {
    const near = {
      ...line,
      id: 'near',
      points: [
        { x: 0, y: 0.008 },
        { x: 1, y: 0.008 },
      ],
    };
    expect(at([near, line], 0.5, 0.006)?.id).toBe('near');
    expect(at([line, near], 0.5, 0.002)?.id).toBe('feed');
  });

  test('another role underneath is not taken for being nearer', () => {
    const mark = { role: 'mark', id: 'm', points: [{ x: 0.5, y: 0.005 }], reach: 11 } as const;
    expect(at([line, mark], 0.5, 0)?.id).toBe('m');
    expect(at([mark, line], 0.5, 0.005)?.id).toBe('feed');
  });

  test('a closed path is held by its edge, the last one too; an area anywhere within', () => {
    const closed = { role: 'fitting', id: 'mesh', points: square, shape: 'closed', reach: 8 } as const;
    expect(at([closed], 2.004, 0.5)?.id).toBe('mesh');
    expect(at([closed], 2.5, 0.5)).toBeNull();
    expect(at([{ ...closed, shape: 'area' }], 2.5, 0.5)?.id).toBe('mesh');
  });

  test('an empty scene holds nothing', () => {
    expect(at([], 0, 0)).toBeNull();
  });
});
