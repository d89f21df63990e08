import { each, isRecord, type Raw } from './raw.ts';

/** Version 4 brought stock, pots and pumps, mesh areas, pinned lines, and several layouts of one job. */
export function fromVersion3(raw: Raw): Raw {
  const { lines, tees, forecast } = raw;
  return {
    ...raw,
    version: 4,
    layout: { letter: 'A', name: '' },
    lines: each(lines, (line) => ({ ...line, stockId: null, hoseId: null, stationId: null, pinned: false })),
    tees: each(tees, (tee) => ({ ...tee, place: null })),
    stations: [],
    meshAreas: [],
    variants: [],
    forecast: isRecord(forecast) ? { ...forecast, nodeCount: null } : forecast,
  };
}
