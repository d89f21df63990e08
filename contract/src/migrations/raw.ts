/** A document as it was read: of whatever shape, to be checked when it is up to date. */
export type Raw = Record<string, unknown>;

export const isRecord = (value: unknown): value is Raw =>
  typeof value === 'object' && value !== null && !Array.isArray(value);

/** Each record of a list changed; what is no list, or no record in it, is left for the check to name. */
export const each = (items: unknown, change: (item: Raw, index: number) => unknown): unknown =>
  Array.isArray(items)
    ? items.map((item: unknown, index) => (isRecord(item) ? change(item, index) : item))
    : items;

export const records = (items: unknown): Raw[] => (Array.isArray(items) ? items.filter(isRecord) : []);
