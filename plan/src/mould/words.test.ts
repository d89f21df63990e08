import { byDate, mouldCautions, openLeaks, pullsSinceCoat } from './words.ts';
import { describe, expect, test } from '@jest/globals';
import { demoMoulds } from '../demo/moulds.ts';
import { mouldSchema, type MouldEvent } from '@wick/contract/mould';

const event = (date: string, kind: MouldEvent['kind'], id = date): MouldEvent => ({
  id,
  date,
  kind,
  text: '',
});

describe('mould record', () => {
  test('pulls are counted from the last coat on', () => {
    const history = [
      event('2026-01-05', 'pull'),
      event('2026-01-09', 'coat'),
      event('2026-02-01', 'pull'),
      event('2026-02-03', 'pull'),
    ];
    expect(pullsSinceCoat(history)).toBe(2);
    expect(pullsSinceCoat([...history].reverse())).toBe(2);
    expect(pullsSinceCoat([event('2026-01-05', 'pull')])).toBeNull();
    // Of one day, what was entered last happened last.
    expect(pullsSinceCoat([event('2026-03-01', 'coat', 'a'), event('2026-03-01', 'pull', 'b')])).toBe(1);
    expect(byDate(history).map(({ date }) => date)[0]).toBe('2026-02-03');
  });

  test('a leak is open until something is mended after it', () => {
    const leak = event('2026-02-01', 'leak');
    expect(openLeaks([leak])).toEqual([leak]);
    expect(openLeaks([leak, event('2026-02-02', 'mended')])).toEqual([]);
    expect(openLeaks([event('2026-01-02', 'mended'), leak])).toEqual([leak]);
  });

  test('cautions say what to look at: a thin mould, an open leak, no coat', () => {
    const [gore, , , sled] = demoMoulds;
    expect(mouldCautions(gore!)).toEqual([]);
    expect(mouldCautions(sled!).join(' ')).toMatch(/Leak of 2026-05-29.*3 plies may leak/);
    expect(mouldCautions({ ...gore!, history: [], condition: 'damaged' }).join(' ')).toMatch(
      /damaged.*No release coat/,
    );
  });

  test('a record with a date that is none, or without a name, is refused', () => {
    const [mould] = demoMoulds;
    expect(mouldSchema.safeParse(mould).success).toBe(true);
    expect(mouldSchema.safeParse({ ...mould!, name: ' ' }).success).toBe(false);
    const bad = { ...mould!, history: [event('2026-02-30', 'pull', 'x')] };
    expect(mouldSchema.safeParse(bad).success).toBe(false);
  });
});
