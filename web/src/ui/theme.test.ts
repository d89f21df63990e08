import { readFileSync } from 'node:fs';
import { expect, test } from '@jest/globals';
import { colours, nightColours } from './theme.ts';

const sheet = readFileSync(new URL('../app/styles.css', import.meta.url), 'utf8');
/** Colours that a rule of the style sheet names, by the names they have in the program. */
function named(rule: string): Record<string, string> {
  const [, body] = new RegExp(`${rule}\\s*\\{([^}]*)\\}`).exec(sheet)!;
  return Object.fromEntries(
    [...body!.matchAll(/--([a-z-]+):\s*(#[0-9a-f]{6})/g)].map(([, name, value]) => [
      name!.replace(/-(\w)/g, (_, letter: string) => letter.toUpperCase()),
      value!.toUpperCase(),
    ]),
  );
}
/** Source: WCAG 2.2, relative luminance and contrast ratio. */
function contrast(a: string, b: string): number {
  const light = (hex: string) => {
    const [r, g, blue] = [1, 3, 5].map((at) => {
      const s = parseInt(hex.slice(at, at + 2), 16) / 255;
      return s <= 0.04045 ? s / 12.92 : ((s + 0.055) / 1.055) ** 2.4;
    });
    return 0.2126 * r! + 0.7152 * g! + 0.0722 * blue!;
  };
  const [high, low] = [light(a), light(b)].sort((x, y) => y - x);
  return (high! + 0.05) / (low! + 0.05);
}

test.each([
  [':root', colours],
  [":root\\[data-light='night'\\]", nightColours],
])('%s has the colours of the program', (rule, own) => {
  expect(named(rule)).toMatchObject(own);
});

test('what is read stands out from what it lies on by 4.5 and more, by day and by night', () => {
  for (const own of [colours, nightColours])
    for (const letters of ['ink', 'quiet', 'resinInk', 'ember', 'moss', 'tide'] as const)
      for (const ground of ['paper', 'sheet'] as const)
        expect([letters, ground, contrast(own[letters], own[ground]) >= 4.5]).toEqual([
          letters,
          ground,
          true,
        ]);
});
