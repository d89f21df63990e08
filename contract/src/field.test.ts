import { describe, expect, test } from '@jest/globals';
import fc from 'fast-check';
import { z } from 'zod';
import { fieldOf, findField, isWithin, limitWords } from './field.ts';
import { jobSchema } from './job/job.ts';
import { materialSchema } from './materials.ts';
import { quantity } from './quantity.ts';
import { shopSchema } from './shop.ts';

describe('a number of a schema', () => {
  test('is found through lists, blanks and choices between shapes', () => {
    expect(fieldOf(jobSchema, 'resin.hoseLength')).toEqual({
      quantity: 'length',
      optional: true,
      limits: { atLeast: 0, below: 100 },
    });
    expect(fieldOf(jobSchema, 'layouts.lines.actions.when.mass').limits).toEqual({ above: 0, below: 1e5 });
    expect(fieldOf(jobSchema, 'layouts.lines.points.x').quantity).toBe('length');
    expect(fieldOf(jobSchema, 'part.rise.y').limits).toEqual({ atLeast: -1, atMost: 1 });
    expect(fieldOf(materialSchema, 'gelPoints.time')).toMatchObject({
      quantity: 'duration',
      optional: false,
    });
    expect(fieldOf(materialSchema, 'about.doubt').limits).toEqual({ atLeast: 0, atMost: 10 });
    expect(fieldOf(shopSchema, 'ambientPressure')).toMatchObject({ optional: true });
  });

  test('a blank is allowed where the number itself may be blank, not where what holds it may', () => {
    expect(fieldOf(jobSchema, 'part.rise.x').optional).toBe(false);
    expect(fieldOf(jobSchema, 'zones.temperature').optional).toBe(true);
  });

  test.each(['resin.hose', 'name', 'resin', 'layouts.lines.bore.more', 'part.outline.bulge'])(
    'nothing is found at %s',
    (path) => {
      expect(findField(jobSchema, path)).toBeUndefined();
      expect(() => fieldOf(jobSchema, path)).toThrow(path);
    },
  );
});

describe('limits', () => {
  const number = fc.option(fc.double({ min: -100, max: 100, noNaN: true }), { nil: undefined });

  test('say yes to exactly what the schema takes', () => {
    fc.assert(
      fc.property(
        fc.record({ above: number, atLeast: number, below: number, atMost: number }),
        fc.oneof(fc.double({ min: -120, max: 120 }), fc.constantFrom(NaN, Infinity, -Infinity, 0)),
        (limits, value) => {
          const schema = z.object({ it: quantity('mass', limits) });
          const read = fieldOf(schema, 'it').limits;
          // Zod keeps the tighter of two lower bounds; both say the same of every value.
          expect(isWithin(value, read)).toBe(schema.safeParse({ it: value }).success);
          expect(isWithin(value, limits)).toBe(isWithin(value, read));
        },
      ),
    );
  });

  test('are said with their units', () => {
    const show = (value: number) => `${value} m`;
    expect(limitWords({ atLeast: 0, below: 100 }, show)).toBe('At least 0 m and less than 100 m.');
    expect(limitWords({ above: 2 }, show)).toBe('More than 2 m.');
    expect(limitWords({ atMost: 3 }, show)).toBe('At most 3 m.');
    expect(limitWords({}, show)).toBe('');
  });
});
