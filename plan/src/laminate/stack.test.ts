import { describe, expect, test } from '@jest/globals';
import { demoShop } from '../demo/jobs.ts';
import { laidDemos } from '../test/laid-demos.ts';
import { availablePressure, pressedPast, stackOf } from './stack.ts';

const spinner = laidDemos[1]!;
const wanting = (fibreVolumeFraction: number | null, compactionPressure: number | null = null) => ({
  ...spinner,
  laminate: { ...spinner.laminate, fibreVolumeFraction, compactionPressure },
});
const past = (job: ReturnType<typeof wanting>) => pressedPast(job, job.laminate, demoShop);

describe('a fibre volume below what the bag presses', () => {
  const available = availablePressure(spinner, demoShop);
  const pressed = stackOf(wanting(null), demoShop).fibreVolumeFraction;

  test('is named in an infusion with the resin pressure that would give it, and is not reckoned with', () => {
    const loose = wanting(null, 0.25 * available);
    const { wanted, resinPressure, pressed: most } = past(loose)!;
    expect(most).toBeCloseTo(pressed, 9);
    expect(wanted).toBeLessThan(pressed);
    // The load on the fibres is ambient less what stands in the resin: a quarter of it leaves three.
    expect(resinPressure).toBeCloseTo(2000 + 0.75 * available, 3);
    expect(stackOf(loose, demoShop).fibreVolumeFraction).toBeCloseTo(pressed, 9);
    expect(past(wanting(wanted))!.resinPressure).toBeCloseTo(resinPressure, 0);
    expect(stackOf(wanting(wanted), demoShop).fibreVolumeFraction).toBeCloseTo(pressed, 9);
  });

  test('is nothing to name where the bag just reaches it, nothing is wanted, or mould halves set it', () => {
    expect(past(wanting(null))).toBeNull();
    expect(past(wanting(pressed))).toBeNull();
    const between = { ...wanting(0.45), process: 'closedMould' as const };
    expect(past(between)).toBeNull();
    expect(stackOf(between, demoShop).fibreVolumeFraction).toBeCloseTo(0.45, 6);
  });

  test('more than the bag presses is refused as ever', () => {
    expect(past(wanting(0.7))).toBeNull();
    expect(() => stackOf(wanting(0.7), demoShop)).toThrow(/more than this vacuum can press/);
  });
});
