import { usualDoubts } from './job.ts';

type Raw = Record<string, unknown>;

const isRecord = (value: unknown): value is Raw =>
  typeof value === 'object' && value !== null && !Array.isArray(value);

/**
 * Brings a job document of an earlier version up to this one, before it is checked. What is not as it should be is left
 * for the check to name.
 */
export function migrateJob(raw: Raw): Raw {
  const second = raw.version === 1 ? fromVersion1(raw) : raw;
  const third = second.version === 2 ? fromVersion2(second) : second;
  return third.version === 3 ? fromVersion3(third) : third;
}

/** Version 4 brought stock, pots and pumps, mesh areas, pinned lines, and several layouts of one job. */
function fromVersion3(raw: Raw): Raw {
  const { lines, tees, forecast } = raw;
  const each = (items: unknown, change: (item: Raw) => Raw) =>
    Array.isArray(items) ? items.map((item: unknown) => (isRecord(item) ? change(item) : item)) : items;
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

/** Version 3 brought arcs, features, moulds, plies that run through zones, drops, and the core's place. */
function fromVersion2(raw: Raw): Raw {
  const { part, laminate, zones } = raw;
  return {
    ...raw,
    version: 3,
    part: isRecord(part) ? { ...part, flange: null, features: [] } : part,
    mould: null,
    showFace: null,
    laminate: laminateFromVersion2(laminate),
    zones: Array.isArray(zones)
      ? zones.map((zone) =>
          isRecord(zone) ? { ...zone, laminate: laminateFromVersion2(zone.laminate) } : zone,
        )
      : zones,
  };
}

function laminateFromVersion2(laminate: unknown): unknown {
  if (!isRecord(laminate)) return laminate;
  const { plies } = laminate;
  return {
    ...laminate,
    plies: Array.isArray(plies) ? plies.map((ply) => (isRecord(ply) ? { ...ply, inset: 0 } : ply)) : plies,
    pliesUnderCore: null,
    compactionPressure: null,
  };
}

/** Version 2 brought zones, marks, tees, hoses, sequences of actions, tilt, batches and the settings of the forecast. */
function fromVersion1(raw: Raw): Raw {
  const { part, resin, lines } = raw;
  return {
    ...raw,
    version: 2,
    part: isRecord(part) ? { ...part, rise: null } : part,
    zones: [],
    lines: Array.isArray(lines)
      ? lines.map((line) => (isRecord(line) ? lineFromVersion1(line) : line))
      : lines,
    marks: [],
    tees: [],
    resin: isRecord(resin) ? { ...resin, mouldTemperature: null, drift: null, batches: [] } : resin,
    forecast: { layers: false, soft: false },
    doubt: usualDoubts(),
  };
}

function lineFromVersion1({ opens, closesWhenReached, ...line }: Raw): Raw {
  const passed = { kind: 'passed', what: line.id, distance: 0, delay: 0 };
  const waits = line.kind === 'feed' && opens === 'whenReached';
  const clamps = line.kind === 'vent' && closesWhenReached === true;
  return {
    ...line,
    hoseLength: null,
    hoseBore: null,
    tee: null,
    inlet: 0.5,
    potLevel: null,
    startsOpen: !waits,
    actions: waits ? [{ opening: 1, when: passed }] : clamps ? [{ opening: 0, when: passed }] : [],
  };
}
