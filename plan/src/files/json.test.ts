import { describe, expect, test } from '@jest/globals';
import fc from 'fast-check';
import { cleanText, readJson } from './json.ts';

const valueOf = (text: string) => {
  const read = readJson(text);
  return read.ok ? read.value : read.message;
};

describe('a text as JSON', () => {
  test('reads whatever JSON can say, with or without a byte order mark', () => {
    fc.assert(
      fc.property(fc.json({ maxDepth: 6 }), fc.boolean(), (text, marked) => {
        expect(valueOf(marked ? `\uFEFF${text}` : text)).toEqual(JSON.parse(text));
      }),
    );
  });

  test.each([
    ['nothing', ' \n', 'is empty'],
    ['half', '{"a": [1, 2', 'not complete JSON'],
    ['a page', '<html></html>', 'not complete JSON'],
    ['deep nesting', '['.repeat(2_000_000), 'nested more than 40'],
    ['brackets in texts only', JSON.stringify({ a: '[['.repeat(100) + '\\"' }), ''],
  ])('%s', (_, text, words) => {
    const read = readJson(text);
    expect(read.ok ? '' : read.message).toContain(words);
    expect(read.ok).toBe(words === '');
  });

  test('characters that no database keeps are taken out, of names and texts, and nothing else is', () => {
    expect(valueOf('{"na\\u0000me": ["a\\u0000b", "x\\ud800y", "\\ud83d\\udd25", "\\\\u0000"]}')).toEqual({
      name: ['ab', 'x\uFFFDy', '🔥', '\\u0000'],
    });
    expect(cleanText('né\0€')).toBe('né€');
  });
});
