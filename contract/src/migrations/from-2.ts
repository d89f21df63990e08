import { each, isRecord, type Raw } from './raw.ts';

/** Version 3 brought arcs, features, moulds, plies that run through zones, drops, and the core's place. */
export function fromVersion2(raw: Raw): Raw {
  const { part, laminate, zones } = raw;
  return {
    ...raw,
    version: 3,
    part: isRecord(part) ? { ...part, flange: null, features: [] } : part,
    mould: null,
    showFace: null,
    laminate: laminateFromVersion2(laminate),
    zones: each(zones, (zone) => ({ ...zone, laminate: laminateFromVersion2(zone.laminate) })),
  };
}

function laminateFromVersion2(laminate: unknown): unknown {
  if (!isRecord(laminate)) return laminate;
  return {
    ...laminate,
    plies: each(laminate.plies, (ply) => ({ ...ply, inset: 0 })),
    pliesUnderCore: null,
    compactionPressure: null,
  };
}
