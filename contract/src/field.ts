import type { QuantityName } from '@wick/core/units/quantities';
import type { z } from 'zod';

/** Limits of a number, SI; each is absent where there is none. */
export interface NumberLimits {
  readonly above?: number;
  readonly atLeast?: number;
  readonly below?: number;
  readonly atMost?: number;
}

/** A number of a document: what it measures, what it may be, and whether it may be left blank. */
export interface NumberField {
  readonly quantity: QuantityName;
  readonly limits: NumberLimits;
  readonly optional: boolean;
}

/** The parts of a schema's definition that lead to what lies within it. */
interface Inner {
  readonly type: string;
  readonly innerType?: z.core.$ZodType;
  readonly element?: z.core.$ZodType;
  readonly options?: readonly z.core.$ZodType[];
  readonly shape?: Record<string, z.core.$ZodType>;
  readonly in?: z.core.$ZodType;
  readonly valueType?: z.core.$ZodType;
}

/** A check of a number against a limit. */
interface Bound {
  readonly check: 'greater_than' | 'less_than';
  readonly value: number;
  readonly inclusive: boolean;
}
const within = (schema: z.core.$ZodType) => schema._zod.def as unknown as Inner;

/**
 * What a schema says of one of its numbers.
 * @param path names joined by dots; lists, records and choices between shapes are looked into by themselves
 * @throws Error when there is no measured number there: a fault of the caller
 */
export function fieldOf(schema: z.core.$ZodType, path: string): NumberField {
  const found = findField(schema, path);
  if (!found) throw new Error(`the schema has no measured number at ${path}`);
  return found;
}

/** The same where there is one. */
export const findField = (schema: z.core.$ZodType, path: string): NumberField | undefined =>
  numberAt(schema, path.split('.'), false);

function numberAt(
  schema: z.core.$ZodType,
  path: readonly string[],
  optional: boolean,
): NumberField | undefined {
  const { type, innerType, element, options, shape, in: source, valueType } = within(schema);
  const [name, ...rest] = path;
  switch (type) {
    case 'nullable':
    case 'optional':
    case 'default':
      return numberAt(innerType!, path, path.length === 0 || optional);
    case 'pipe':
      return numberAt(source!, path, optional);
    case 'array':
      return numberAt(element!, path, false);
    case 'record':
      return numberAt(valueType!, path, false);
    case 'union':
      for (const option of options!) {
        const found = numberAt(option, path, optional);
        if (found) return found;
      }
      return undefined;
    case 'object':
      return name !== undefined && shape![name] ? numberAt(shape![name], rest, false) : undefined;
    case 'number':
      return name === undefined ? measured(schema as z.ZodNumber, optional) : undefined;
    default:
      return undefined;
  }
}

function measured(schema: z.ZodNumber, optional: boolean): NumberField | undefined {
  const quantity = schema.meta()?.['quantity'] as QuantityName | undefined;
  if (!quantity) return undefined;
  return { quantity, optional, limits: limitsOf(schema) };
}

/** Of several limits of one kind the tightest. */
function limitsOf(schema: z.ZodNumber): NumberLimits {
  const bounds = (schema.def.checks ?? []).map((one) => one._zod.def as unknown as Bound);
  const values = (check: Bound['check'], inclusive: boolean) =>
    bounds
      .filter((bound) => bound.check === check && bound.inclusive === inclusive)
      .map(({ value }) => value);
  const most = (list: readonly number[]) => (list.length > 0 ? Math.max(...list) : undefined);
  const least = (list: readonly number[]) => (list.length > 0 ? Math.min(...list) : undefined);
  return {
    above: most(values('greater_than', false)),
    atLeast: most(values('greater_than', true)),
    below: least(values('less_than', false)),
    atMost: least(values('less_than', true)),
  };
}

export function isWithin(value: number, { above, atLeast, below, atMost }: NumberLimits): boolean {
  return (
    Number.isFinite(value) &&
    (above === undefined || value > above) &&
    (atLeast === undefined || value >= atLeast) &&
    (below === undefined || value < below) &&
    (atMost === undefined || value <= atMost)
  );
}

/** The limits as a sentence. @param show a value with its unit */
export function limitWords(
  { above, atLeast, below, atMost }: NumberLimits,
  show: (value: number) => string,
): string {
  const least =
    above !== undefined
      ? `more than ${show(above)}`
      : atLeast !== undefined
        ? `at least ${show(atLeast)}`
        : '';
  const most =
    below !== undefined ? `less than ${show(below)}` : atMost !== undefined ? `at most ${show(atMost)}` : '';
  const words = [least, most].filter(Boolean).join(' and ');
  return words && `${words[0]!.toUpperCase()}${words.slice(1)}.`;
}
