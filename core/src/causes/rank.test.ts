import { describe, expect, test } from '@jest/globals';
import { askNext, entropyOf, gainOf, rankCauses, type Observation } from './rank.ts';

const seen = (id: string, likelihoods: Record<string, number>, group = id): Observation => ({
  ...{ id, group },
  likelihoods: new Map(Object.entries(likelihoods)),
});
const causes = [
  { id: 'a', prior: 0.3 },
  { id: 'b', prior: 0.2 },
  { id: 'c', prior: 0.5 },
];
const beliefs = (list: ReturnType<typeof rankCauses>) => new Map(list.map(({ id, belief }) => [id, belief]));

describe('ranking', () => {
  test('priors 0.3, 0.2, 0.5 and likelihoods 0.8, 0.3, 0.1, by hand', () => {
    const joint = [0.3 * 0.8, 0.2 * 0.3, 0.5 * 0.1];
    const total = joint[0]! + joint[1]! + joint[2]!;
    const ranked = rankCauses(causes, [seen('x', { a: 0.8, b: 0.3, c: 0.1 })]);
    expect(ranked.map(({ id }) => id)).toEqual(['a', 'b', 'c']);
    joint.forEach((part, n) => expect(ranked[n]!.belief).toBeCloseTo(part / total, 9));
    expect(ranked.map(({ belief }) => belief.toFixed(3))).toEqual(['0.686', '0.171', '0.143']);
    expect(ranked[0]!.for[0]!.id).toBe('x');
    expect(ranked[2]!.against[0]!.id).toBe('x');
  });

  test('nothing observed leaves the priors, whatever they sum to', () => {
    const ranked = rankCauses(
      causes.map((cause) => ({ ...cause, prior: 7 * cause.prior })),
      [],
    );
    expect(ranked.map(({ id, belief }) => [id, +belief.toFixed(9)])).toEqual([
      ['c', 0.5],
      ['a', 0.3],
      ['b', 0.2],
    ]);
  });

  test('a certainty is held at 0.02 and 0.98: one observation neither proves nor rules out', () => {
    const ranked = beliefs(rankCauses(causes, [seen('x', { a: 1, b: 0, c: 0 })]));
    expect(ranked.get('a')).toBeCloseTo((0.3 * 0.98) / (0.3 * 0.98 + 0.7 * 0.02), 9);
  });

  test('two that tell partly the same count half each; told twice over they are as one', () => {
    const one = beliefs(rankCauses(causes, [seen('x', { a: 0.8, b: 0.3, c: 0.1 })]));
    const two = beliefs(
      rankCauses(causes, [
        seen('x', { a: 0.8, b: 0.3, c: 0.1 }, 'g'),
        seen('y', { a: 0.8, b: 0.3, c: 0.1 }, 'g'),
      ]),
    );
    for (const [id, belief] of one) expect(two.get(id)).toBeCloseTo(belief, 9);
  });

  test('a cause of which an observation says nothing keeps its share', () => {
    const ranked = beliefs(rankCauses(causes, [seen('x', { a: 0.8, b: 0.2 })]));
    expect(ranked.get('c')).toBeCloseTo(0.5, 9);
    expect(ranked.get('a')! / ranked.get('b')!).toBeCloseTo((0.3 * 0.8) / (0.2 * 0.2), 9);
  });
});

describe('the next question', () => {
  const half = new Map([
    ['a', 0.5],
    ['b', 0.5],
  ]);
  const question = (id: string, yes: Record<string, number>) => ({
    id,
    answers: [
      new Map(Object.entries(yes)),
      new Map(Object.entries(yes).map(([cause, p]) => [cause, 1 - p] as const)),
    ],
  });

  test('even chances and 0.9 against 0.2 gain 0.397 bit, by hand', () => {
    const [yes, no] = [0.5 * 0.9 + 0.5 * 0.2, 0.5 * 0.1 + 0.5 * 0.8];
    const left = (p: number) => -(p * Math.log2(p) + (1 - p) * Math.log2(1 - p));
    const gain = 1 - yes * left(0.45 / yes) - no * left(0.05 / no);
    expect(gainOf(question('q', { a: 0.9, b: 0.2 }), half)).toBeCloseTo(gain, 9);
    expect(gain).toBeCloseTo(0.397, 3);
  });

  test('what tells the causes apart is asked before what does not; nothing is asked that tells nothing', () => {
    const ranked = [...half].map(([id, belief]) => ({ id, belief }));
    const asked = askNext(
      [question('dull', { a: 0.5, b: 0.5 }), question('sharp', { a: 0.9, b: 0.1 })],
      ranked,
    );
    expect(asked!.question.id).toBe('sharp');
    expect(askNext([question('dull', { a: 0.5, b: 0.5 })], ranked)).toBeNull();
    expect(askNext([], ranked)).toBeNull();
  });

  test('entropy: one of four alike is two bits', () => {
    expect(entropyOf([0.25, 0.25, 0.25, 0.25])).toBeCloseTo(2, 12);
    expect(entropyOf([1, 0])).toBe(0);
  });
});
