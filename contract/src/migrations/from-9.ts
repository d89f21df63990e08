import type { Raw } from './raw.ts';

/** Version 10 says what the mould gets before the first ply. Until then nobody was asked. */
export const fromVersion9 = (raw: Raw): Raw => ({
  ...raw,
  version: 10,
  prep: { releaseId: null, gelCoat: null, barrier: null },
});
