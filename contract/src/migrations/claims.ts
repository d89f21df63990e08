import { isRecord } from './raw.ts';

/** Ids of things drawn or laid; materials have a list of their own. */
export function idsIn(value: unknown): string[] {
  if (Array.isArray(value)) return value.flatMap(idsIn);
  if (!isRecord(value)) return [];
  return Object.entries(value).flatMap(([key, item]) =>
    key === 'materials' || key === 'mould'
      ? []
      : key === 'id' && typeof item === 'string'
        ? [item]
        : idsIn(item),
  );
}

export type Claims = ReturnType<typeof claims>;

/** Ids that are taken, and the next free one like a given one. */
export function claims() {
  const taken = new Set<string>();
  return {
    take: (id: string) => void taken.add(id),
    next(wanted: string): string {
      const plain = wanted.replaceAll(/[^A-Za-z0-9_-]/g, '').slice(0, 36);
      let id = plain;
      for (let n = 2; taken.has(id); n++) id = `${plain}-${n}`;
      taken.add(id);
      return id;
    },
  };
}
