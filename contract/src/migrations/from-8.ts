import { claims, idsIn } from './claims.ts';
import { isRecord, type Raw } from './raw.ts';

/**
 * Version 9 lists every batch by its own mass, with the pot it goes into, and knows bucket, scale, mixers and what is trimmed off. Until then the first
 * batch was not named, and each later one said how much had been drawn when it was put on.
 */
export function fromVersion8(raw: Raw): Raw {
  const { resin, part } = raw;
  return {
    ...raw,
    version: 9,
    part: isRecord(part) ? { trim: null, ...part } : part,
    resin: isRecord(resin)
      ? {
          ...{ mixers: null, mixingPotId: null, feedPotId: null, scaleStep: null },
          ...resin,
          batches: batchesFrom(raw, resin.batches),
        }
      : resin,
  };
}

function batchesFrom(raw: Raw, later: unknown): unknown {
  if (!Array.isArray(later) || later.length === 0 || !later.every(isRecord)) return later;
  const claim = claims();
  for (const id of idsIn(raw)) claim.take(id);
  const drawn = later.map(({ after }) => Number(after));
  const massAfter = (n: number) => {
    const mass = n < 0 ? drawn[0]! : drawn[n + 1]! - drawn[n]!;
    return mass > 0 ? mass : null;
  };
  return [
    { id: claim.next('batch-first'), stationId: null, mixedAt: 0, mass: massAfter(-1) },
    ...later.map(({ after: _, ...batch }, n) => ({ ...batch, stationId: null, mass: massAfter(n) })),
  ];
}
