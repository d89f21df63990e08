/** One value of a document, by the names that lead to it; lists by their index. */
export interface Leaf {
  readonly path: readonly (string | number)[];
  readonly value: string | number | boolean | null;
}

/** Every value of a document; of each list no more than the first few items. */
export function leavesOf(document: unknown, most: number, path: Leaf['path'] = []): Leaf[] {
  if (typeof document !== 'object' || document === null)
    return document === undefined ? [] : [{ path, value: document as Leaf['value'] }];
  const entries = Array.isArray(document)
    ? document.slice(0, most).map((item, i) => [i, item] as const)
    : Object.entries(document);
  return entries.flatMap(([name, value]) => leavesOf(value, most, [...path, name]));
}

/** The document with another value there. */
export function withLeaf<T>(document: T, [name, ...rest]: Leaf['path'], value: unknown): T {
  if (name === undefined) return value as T;
  const branch = document as Record<string, unknown>;
  const after = withLeaf(branch[name], rest, value);
  return (
    Array.isArray(document)
      ? document.map((item, i) => (i === name ? after : item))
      : { ...branch, [name]: after }
  ) as T;
}

/** The path without its indices: the same for every item of a list. */
export const schemaPath = ({ path }: Leaf): string =>
  path.filter((name) => typeof name === 'string').join('.');

/** Other values that might stand there: a little off, far off, blank, of the other kinds seen there; not all of them read. */
export function alternatives({ value }: Leaf, others: readonly Leaf['value'][]): Leaf['value'][] {
  const near: readonly Leaf['value'][] =
    typeof value === 'number'
      ? [value * 1.07 + 0.003, value * 0.8, Math.round(value) + 1]
      : typeof value === 'boolean'
        ? [!value]
        : typeof value === 'string'
          ? [`${value}x`]
          : [0.6, 3, 301, 5000, true, 'x'];
  return [...new Set([...near, ...others.slice(0, 2), null])].filter((other) => other !== value);
}
