import { ambientOf } from '../shop/ambient.ts';
import { describe, expect, test } from '@jest/globals';
import { formatQuantity } from '@wick/core/units/format';
import type { Verdict } from '@wick/core/verdict/verdict';
import { demoShop } from '../demo/jobs.ts';
import { shopSchema, usualShop } from '@wick/contract/shop';
import { bandWords, findingWords, likelyWords, usedWords, verdictSentence } from './words.ts';

const verdict: Verdict = {
  band: 'tight',
  openTime: 540,
  fillTime: 6420,
  gelTime: 8460,
  endsUnknown: false,
  usableTime: 8560,
  timeUsed: 6420 / 8560,
  lifeUsed: 6420 / 8460,
  flowUsed: 0.934,
  shutIn: 0,
  likely: { from: 3240, to: 7000 },
  chance: 0.91,
  chanceRange: { from: 0.878, to: 0.934 },
  runs: 400,
  reachedFraction: 1,
  drivers: [],
};

describe('a verdict in words', () => {
  test('tells time, life and flow used apart, and the odds with their range', () => {
    // 6420 / 8560 = 75.0 %, 6420 / 8460 = 75.9 %.
    expect(verdictSentence(verdict)).toBe(
      'Tight: 75 % of the usable time is gone at the last corner; 91 in 100 (88 to 93) fill.',
    );
    expect(usedWords(verdict).map(({ share, what }) => `${share} ${what}`)).toEqual([
      '75 % of the usable time, to 143 min',
      '76 % of the way to gel',
      '93 % of the flow until gel',
    ]);
    expect(usedWords({ ...verdict, fillTime: Infinity })).toEqual([]);
    expect(likelyWords(verdict)).toBe('54 to 117 min');
  });

  test('says when gel comes first, and how far the resin gets', () => {
    const late: Verdict = {
      ...verdict,
      band: 'willNotFill',
      fillTime: Infinity,
      reachedFraction: 0.938,
      chance: 0.2,
      chanceRange: { from: 0.164, to: 0.242 },
    };
    expect(verdictSentence(late)).toBe(
      'Will not fill: the resin gels at 2:21:00 with 94 % of the part wet; 20 in 100 (16 to 24) fill.',
    );
    expect(verdictSentence({ ...late, endsUnknown: true })).toMatch(
      /^Will not fill: its pot is warmer than the resin’s data cover from 2:21:00 on, with \d+ % of the part wet;/,
    );
    expect(likelyWords({ likely: { from: 5640, to: Infinity } })).toBe('94 min, or gels first');
    expect(likelyWords({ likely: { from: Infinity, to: Infinity } })).toBe('gels first, even with luck');
  });

  test('names dry places and trapped air before any margin', () => {
    expect(verdictSentence({ ...verdict, band: 'drySpot', reachedFraction: 0.8 })).toMatch(
      /^Stays dry in places: 80 % of the part fills/,
    );
    expect(verdictSentence({ ...verdict, band: 'airTrapped' })).toMatch(
      /^Traps air, although the front gets everywhere: 75 % of the usable time/,
    );
  });

  test('no sentence holds NaN, Infinity or undefined', () => {
    for (const band of Object.keys(bandWords) as (keyof typeof bandWords)[]) {
      const text = verdictSentence({ ...verdict, band });
      expect(text).not.toMatch(/NaN|Infinity|undefined/);
      expect(text.length).toBeGreaterThan(20);
    }
  });
});

describe('findings in words', () => {
  const write = {
    clock: (time: number) => `${time / 60} min`,
    show: (value: number, quantity: string) =>
      quantity === 'thickness' ? `${1000 * value} mm` : `${value / 100} mbar`,
    nameOf: (id: string) => ({ v: 'Vent', f1: 'Feed 1', f2: 'Feed 2' })[id] ?? id,
  };

  test('each says what, when and what to do about it', () => {
    expect(findingWords({ kind: 'ventFloodsEarly', lineId: 'v', time: 1200, filled: 0.8 }, write)).toBe(
      'Vent floods at 20 min with 20 % of the part still dry: the mesh runs up to it. End the mesh short of the vent, or put a brake between.',
    );
    expect(findingWords({ kind: 'cornersBetweenVents', count: 1, reach: 0.02 }, write)).toMatch(
      /^A corner between open vents may stay dry over the last 20 mm.*Clamp each vent once resin is there/,
    );
    expect(findingWords({ kind: 'bagFloats', time: 600, area: 0.1, pressure: 96_000 }, write)).toMatch(
      /from 10 min on: resin stands at 960 mbar.*Lower the pot/,
    );
    expect(findingWords({ kind: 'neverTriggers', lineId: 'f2', actionId: 'a', opening: 1 }, write)).toMatch(
      /Feed 2 never opens/,
    );
    expect(findingWords({ kind: 'neverTriggers', lineId: 'f2', actionId: 'a', opening: 0 }, write)).toMatch(
      /never shuts/,
    );
    expect(findingWords({ kind: 'hoseTakes', lineId: 'f1', share: 0.3 }, write)).toMatch(
      /takes 30 % of the pressure/,
    );
  });
});

describe('shop', () => {
  test('ambient pressure is the measured one, or that of the altitude', () => {
    expect(ambientOf({ ...demoShop, ambientPressure: 94_000 })).toBe(94_000);
    // ISO 2533 between its rows at 500 m (95 461 Pa) and 1000 m (89 875 Pa), from memory.
    expect(ambientOf(demoShop)).toBeGreaterThan(93_500);
    expect(ambientOf(demoShop)).toBeLessThan(94_200);
    expect(formatQuantity(ambientOf(usualShop), 'absolutePressure', 'mbar')).toBe('1013.3 mbar');
  });

  test.each<[string, object]>([
    ['a unit of another quantity', { units: { length: 'kg' } }],
    ['an unknown quantity', { units: { charm: 'mm' } }],
    ['an altitude in feet read as metres', { altitude: 21_000 }],
    ['no name', { name: ' ' }],
    ['a gauge reading for ambient pressure', { ambientPressure: 900 }],
    ['a temperature in Celsius', { temperature: 20 }],
    ['NaN', { temperature: NaN }],
  ])('%s is refused', (_, changes) => {
    expect(shopSchema.safeParse(usualShop).success).toBe(true);
    expect(shopSchema.safeParse({ ...usualShop, ...changes }).success).toBe(false);
  });
});
