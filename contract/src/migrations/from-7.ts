import { isRecord, type Raw } from './raw.ts';

/** Version 8 knows the catch pot, the check valve and what the part is for; and how far the pressure at the vents is in doubt. */
export function fromVersion7(raw: Raw): Raw {
  const { vacuum } = raw;
  return {
    ...raw,
    version: 8,
    vacuum: isRecord(vacuum)
      ? { ventSpread: null, potId: null, hasCheckValve: null, isStructural: null, ...vacuum }
      : vacuum,
  };
}
