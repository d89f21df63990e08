import type { z } from 'zod';

/** Chances, 0-1. */
export type Luck = () => number;

interface Def {
  readonly type: string;
  readonly innerType?: z.core.$ZodType;
  readonly element?: z.core.$ZodType;
  readonly options?: readonly z.core.$ZodType[];
  readonly shape?: Record<string, z.core.$ZodType>;
  readonly in?: z.core.$ZodType;
  readonly values?: readonly unknown[];
  readonly entries?: Record<string, unknown>;
  readonly keyType?: z.core.$ZodType;
  readonly valueType?: z.core.$ZodType;
  readonly getter?: () => z.core.$ZodType;
}

const NASTY_TEXTS = [
  '',
  '\0',
  'a\0b',
  '\ud800',
  '\udfff',
  '__proto__',
  "'; drop table jobs; --",
  '../../etc/passwd',
  '%00',
  '=1+1',
  '\u202e',
  '🔥',
  'x'.repeat(100_000),
];
const NASTY_NUMBERS = [0, -1, 1e300, -1e300, 2 ** 31, 2 ** 31 - 1, 2 ** 53, 1e-320, 0.1, -0];
const NASTY: readonly unknown[] = [
  null,
  true,
  [],
  {},
  [[]],
  { a: { b: [1] } },
  ...NASTY_NUMBERS,
  ...NASTY_TEXTS,
];

export const pick = <T>(luck: Luck, list: readonly T[]): T => list[Math.floor(luck() * list.length)]!;

/**
 * A value of about the shape of a schema: mostly as it should be, here and there of another kind, out of bounds, missing or too much.
 * @param wild share of places that are not as they should be
 */
export function anyOf(schema: z.core.$ZodType, luck: Luck, wild: number, depth = 0): unknown {
  if (luck() < wild) return pick(luck, NASTY);
  const def = schema._zod.def as unknown as Def;
  const inner = (of: z.core.$ZodType) => anyOf(of, luck, wild, depth + 1);
  switch (def.type) {
    case 'object':
      return Object.fromEntries([
        ...Object.entries(def.shape!).flatMap(([key, of]) => (luck() < wild ? [] : [[key, inner(of)]])),
        ...(luck() < wild ? [[pick(luck, NASTY_TEXTS), 1]] : []),
      ]);
    case 'array':
      return Array.from({ length: depth > 4 ? 0 : Math.floor(3 * luck()) }, () => inner(def.element!));
    case 'record':
      return { [String(inner(def.keyType!))]: inner(def.valueType!) };
    case 'union':
      return inner(pick(luck, def.options!));
    case 'optional':
    case 'nullable':
      return luck() < 0.3 ? null : inner(def.innerType!);
    case 'default':
      return inner(def.innerType!);
    case 'pipe':
      return inner(def.in!);
    case 'lazy':
      return depth > 6 ? null : inner(def.getter!());
    case 'enum':
      return pick(luck, Object.values(def.entries!));
    case 'literal':
      return def.values![0];
    case 'number':
      return luck() < 0.7 ? Math.round(100 * luck()) / 100 : Math.floor(5 * luck());
    case 'boolean':
      return luck() < 0.5;
    case 'string':
      return luck() < 0.8 ? `text ${Math.floor(9 * luck())}` : pick(luck, NASTY_TEXTS);
    default:
      return pick(luck, NASTY);
  }
}
