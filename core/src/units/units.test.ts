import { describe, expect, test } from '@jest/globals';
import fc from 'fast-check';
import { formatClock, formatQuantity, fromUnit, toUnit } from './format.ts';
import { parseQuantity } from './parse.ts';
import { quantityNames, quantityOf, type QuantityName } from './quantities.ts';

const value = (text: string, name: QuantityName, unit?: string) => {
  const parsed = parseQuantity(text, name, { ambientPressure: 101_325, unit });
  if (!parsed.ok) throw new Error(parsed.message);
  return parsed.value;
};

describe('typing a quantity', () => {
  // Factors: NIST SP 811, appendix B.8.
  test.each<[string, QuantityName, number]>([
    ['0.79mm', 'length', 0.79e-3],
    ['0,79 mm', 'length', 0.79e-3],
    ['1/32 in', 'length', 0.0254 / 32],
    ['1 1/2 in', 'length', 0.0381],
    ['3 ft 4 in', 'length', 40 * 0.0254],
    ['31 mil', 'length', 31 * 25.4e-6],
    ['12oz/yd2', 'arealWeight', 12 * 0.03390575],
    ['850', 'arealWeight', 0.85],
    ['850 gsm', 'arealWeight', 0.85],
    ['70 F', 'temperature', 294.2611],
    ['21 °C', 'temperature', 294.15],
    ['300 cP', 'viscosity', 0.3],
    ['0.3 Pa s', 'viscosity', 0.3],
    ['300 mPa s', 'viscosity', 0.3],
    ['3 lb 2 oz', 'mass', 50 * 0.028349523],
    ['1 h 30 min', 'duration', 5400],
    ['45 s', 'duration', 45],
    ['1.15 g/cm3', 'density', 1150],
    ['52 %', 'fraction', 0.52],
    ['2.1e-9 m2', 'permeability', 2.1e-9],
    ['760 Torr', 'absolutePressure', 101_325.02],
    ['26 inHg', 'gaugePressure', 26 * 3386.389],
    ['-45 deg', 'angle', -Math.PI / 4],
    ['90°', 'angle', Math.PI / 2],
    ['-45', 'angle', -Math.PI / 4],
  ])('%s as %s', (text, name, si) => {
    expect(Math.abs(value(text, name) - si)).toBeLessThan(1e-6 * Math.max(Math.abs(si), 1e-9));
  });

  test('a vacuum reading becomes an absolute pressure through the ambient one', () => {
    expect(value('26 inHg', 'absolutePressure')).toBeCloseTo(101_325 - 26 * 3386.389, 6);
    expect(value('26 inHg abs', 'absolutePressure')).toBeCloseTo(26 * 3386.389, 6);
    expect(value('900 mbar vac', 'absolutePressure')).toBeCloseTo(101_325 - 90_000, 6);
    expect(value('20 mbar', 'absolutePressure')).toBeCloseTo(2000, 9);
    expect(value('20 mbar abs', 'gaugePressure')).toBeCloseTo(99_325, 6);
  });

  test('more vacuum than there is air is refused with what there is', () => {
    const parsed = parseQuantity('30 inHg vac', 'absolutePressure', { ambientPressure: 101_325 });
    expect(parsed).toMatchObject({ ok: false, message: expect.stringContaining('29.9 inHg') });
  });

  test.each<[string, QuantityName, string[], number[]]>([
    // Factors of NIST SP 811; the air outside has 1013.25 mbar.
    ['-28 inHg', 'absolutePressure', ['28 inHg vac'], [101_325 - 28 * 3386.389]],
    ['−0.95 bar', 'absolutePressure', ['0.95 bar vac'], [6325]],
    ['1 psi', 'absolutePressure', ['1 psi abs', '1 psi vac'], [6894.757, 94_430.24]],
    ['30 inHg', 'absolutePressure', ['30 inHg abs'], [101_591.67]],
    ['-28 inHg', 'gaugePressure', ['28 inHg vac'], [28 * 3386.389]],
  ])('%s as %s is asked back, never taken as absolute', (text, name, meanings, values) => {
    const parsed = parseQuantity(text, name, { ambientPressure: 101_325 });
    expect(parsed).toMatchObject({ ok: false, meanings });
    meanings.forEach((meaning, n) => expect(Math.abs(value(meaning, name) - values[n]!)).toBeLessThan(1));
  });

  test('marked, the same are taken as they stand', () => {
    expect(value('1 psi abs', 'absolutePressure')).toBeCloseTo(6894.757, 2);
    expect(value('28 inHg', 'absolutePressure')).toBeCloseTo(101_325 - 28 * 3386.389, 3);
    expect(value('5 psi', 'gaugePressure')).toBeCloseTo(5 * 6894.757, 1);
  });

  test.each<[string, QuantityName]>([
    ['', 'length'],
    ['long', 'length'],
    ['12 kg', 'length'],
    ['1e999 mm', 'length'],
    ['NaN', 'mass'],
    ['1/0 in', 'length'],
    ['3 mm 4', 'length'],
    ['20 C 5 C', 'temperature'],
    ['--5', 'angle'],
    ['5 m²', 'length'],
  ])('%p as %s gets a message with an example', (text, name) => {
    const parsed = parseQuantity(text, name);
    expect(parsed).toMatchObject({ ok: false, message: expect.stringContaining(quantityOf(name).example) });
  });
});

describe('showing a quantity', () => {
  test('every unit of every quantity round-trips', () => {
    for (const name of quantityNames)
      for (const unit of quantityOf(name).units)
        fc.assert(
          fc.property(fc.double({ min: 1e-3, max: 1e4, noNaN: true }), (x) => {
            const si = fromUnit(x, name, unit.symbol);
            expect(Math.abs(toUnit(si, name, unit.symbol) - x)).toBeLessThan(1e-9 * x + 1e-9);
          }),
          { numRuns: 20 },
        );
  });

  test('what is shown can be typed again', () => {
    for (const name of quantityNames)
      for (const unit of quantityOf(name).units) {
        const si = fromUnit(12, name, unit.symbol);
        const text = formatQuantity(si, name, unit.symbol);
        const marked = name === 'absolutePressure' ? `${text} abs` : text;
        expect(Math.abs(value(marked, name, unit.symbol) - si)).toBeLessThan(1e-9 * Math.abs(si) + 1e-15);
      }
  });

  test('missing values show a dash, clocks count minutes', () => {
    expect(formatQuantity(NaN, 'length')).toBe('–');
    expect(formatQuantity(null, 'length')).toBe('–');
    expect(formatClock(2280)).toBe('38:00');
    expect(formatClock(3725)).toBe('1:02:05');
  });
});
