import { describe, expect, test } from '@jest/globals';
import { fittingScale, papers } from './paper.ts';

const paper = (name: string) => papers.find((item) => item.name === name)!;

describe('printing to scale', () => {
  test.each([
    [{ width: 0.2, height: 0.1 }, 'A4', 1],
    [{ width: 3.4, height: 1.2 }, 'A4', 20],
    [{ width: 3.4, height: 1.2 }, 'A3', 10],
    [{ width: 1.6, height: 0.6 }, 'Letter', 10],
    [{ width: 60, height: 2 }, 'A1', 100],
  ])('%j on %s at 1:%i', (plan, name, scale) => {
    expect(fittingScale(plan, paper(name))).toBe(scale);
  });

  test('what fits no scale is told so', () => {
    expect(fittingScale({ width: 100, height: 1 }, paper('A4'))).toBeNull();
  });

  test('sheets are as ISO 216 and the US letter have them', () => {
    // Each A size is the one before halved: A1 841 x 594, A3 420 x 297, A4 297 x 210; letter 11 x 8.5 in.
    expect(paper('A3').height).toBe(paper('A4').width);
    expect(paper('Letter').width / 25.4).toBeCloseTo(11, 9);
    expect(paper('Letter').height / 25.4).toBeCloseTo(8.5, 9);
  });
});
