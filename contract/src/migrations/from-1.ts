import { each, isRecord, type Raw } from './raw.ts';

/** Version 2 brought zones, marks, tees, hoses, sequences of actions, tilt, batches and the settings of the forecast. */
export function fromVersion1(raw: Raw): Raw {
  const { part, resin, lines } = raw;
  return {
    ...raw,
    version: 2,
    part: isRecord(part) ? { ...part, rise: null } : part,
    zones: [],
    lines: each(lines, lineFromVersion1),
    marks: [],
    tees: [],
    resin: isRecord(resin) ? { ...resin, mouldTemperature: null, drift: null, batches: [] } : resin,
    forecast: { layers: false, soft: false },
    doubt: {
      permeability: null,
      viscosity: null,
      gelTime: null,
      temperature: null,
      thickness: null,
      raceChance: null,
      raceGap: null,
    },
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
