/** Value at a path; undefined where there is none. */
export function valueAt(entry: object, path: string): unknown {
  return path
    .split('.')
    .reduce<unknown>(
      (at, key) => (typeof at === 'object' && at !== null ? (at as Record<string, unknown>)[key] : undefined),
      entry,
    );
}
