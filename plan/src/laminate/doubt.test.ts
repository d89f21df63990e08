import { describe, expect, test } from '@jest/globals';
import { demoMaterials } from '../demo/materials.ts';
import { laidDemos } from '../test/laid-demos.ts';
import { flowDoubt, flowShares, inPlaneDoubt, throughDoubt } from './doubt.ts';

const gore = laidDemos[0]!;
const named = (id: string) => demoMaterials.find((material) => material.id === id)!;

describe('doubt that the library carries', () => {
  test('is the entry’s own, in its plane and through it apart; else somebody else’s data', () => {
    const fabric = named('quad-glass-850');
    expect(inPlaneDoubt(fabric)).toBeCloseTo(1.4, 12);
    // From memory: 2 of other people's data, 2.5 through the thickness.
    expect(inPlaneDoubt({ ...fabric, about: {} })).toBe(2);
    expect(throughDoubt(fabric)).toBe(2.5);
    const tested = { ...fabric, about: { 'permeability.through': { doubt: 0.5 } } };
    expect(throughDoubt(tested)).toBe(1.5);
    expect(inPlaneDoubt(tested)).toBe(2);
  });

  test('counts by what a material carries of the flow: with an open mesh it is the mesh’s', () => {
    const shares = flowShares(gore);
    expect([...shares.values()].reduce((sum, share) => sum + share, 0)).toBeCloseTo(1, 12);
    expect(shares.get('mesh-open')!).toBeGreaterThan(0.9);
    expect(flowDoubt(gore)).toBeGreaterThan(1.25);
    expect(flowDoubt(gore)).toBeLessThan(1.3);
    const bare = { ...gore, layers: [] };
    expect(flowDoubt(bare)).toBeCloseTo(1.4, 9);
  });

  test('two that carry half each, x/÷2 and for certain: x/÷ sqrt 2', () => {
    const plies = ['quad-glass-850', 'twin'].map((materialId, n) => ({
      id: `p${n}`,
      materialId,
      angle: 0,
      inset: 0,
    }));
    const fabric = { ...named('quad-glass-850'), about: {} };
    const twin = { ...fabric, id: 'twin', about: { 'permeability.along': { doubt: 0 } } };
    const laminate = { ...gore.laminate, plies };
    expect(flowDoubt({ laminate, layers: [], materials: [fabric, twin] })).toBeCloseTo(Math.SQRT2, 9);
  });
});
