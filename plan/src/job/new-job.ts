import { JOB_FORMAT, JOB_VERSION, type Job, type JobLaminate, type JobLayout } from '@wick/contract/job/job';
import { newId } from './ids.ts';

export const emptyLaminate: JobLaminate = {
  plies: [],
  coreId: null,
  pliesUnderCore: null,
  fibreVolumeFraction: null,
  compactionPressure: null,
};

/** Nothing laid yet. */
const emptyLayout = (letter: string, id: string = newId()): JobLayout => ({
  id,
  letter,
  name: '',
  lines: [],
  tees: [],
  stations: [],
  layers: [],
  brakes: [],
});

/** Size of a new part that nobody has drawn yet, m. */
const PLATE = { length: 1.2, width: 0.8 };

/** A job with an empty laminate and no lines, on a plain rectangle unless it has a shape. */
export function emptyJob(name: string, layoutId: string = newId()): Job {
  return {
    format: JOB_FORMAT,
    version: JOB_VERSION,
    name,
    process: 'infusion',
    part: {
      outline: [
        { x: 0, y: 0 },
        { x: PLATE.length, y: 0 },
        { x: PLATE.length, y: PLATE.width },
        { x: 0, y: PLATE.width },
      ],
      holes: [],
      rise: null,
      flange: null,
      trim: null,
      features: [],
      sections: [],
    },
    mould: null,
    prep: { releaseId: null, gelCoat: null, barrier: null },
    showFace: null,
    bondFace: null,
    laminate: emptyLaminate,
    zones: [],
    layouts: [emptyLayout('A', layoutId)],
    currentLayoutId: layoutId,
    marks: [],
    resin: {
      materialId: null,
      temperature: null,
      mouldTemperature: null,
      cureTemperature: null,
      drift: null,
      batches: [],
      mixers: null,
      mixingPotId: null,
      feedPotId: null,
      scaleStep: null,
      mixDuration: null,
      degasDuration: null,
      hoseFillDuration: null,
      hoseLength: null,
      heel: null,
      reserve: null,
    },
    vacuum: {
      ventPressure: null,
      ventSpread: null,
      pumpId: null,
      potId: null,
      hasCheckValve: null,
      isStructural: null,
    },
    forecast: { layers: null, soft: false, nodeCount: null },
    doubt: usualDoubts(),
    materials: [],
  };
}

/** A new job of a shape, or on the plain rectangle where nobody has said. */
export function jobWithShape(wanted: {
  readonly name: string;
  readonly outline?: Job['part']['outline'];
  readonly holes?: readonly Job['part']['outline'][];
  readonly process?: Job['process'];
}): Job {
  const job = emptyJob(wanted.name);
  return {
    ...job,
    process: wanted.process ?? job.process,
    part: {
      ...job.part,
      outline: wanted.outline ?? job.part.outline,
      holes: (wanted.holes ?? []).map((outline) => ({ id: newId(), outline })),
    },
  };
}

/** Nothing typed: the usual spreads. */
function usualDoubts(): Job['doubt'] {
  return {
    permeability: null,
    viscosity: null,
    gelTime: null,
    temperature: null,
    thickness: null,
    raceChance: null,
    raceGap: null,
  };
}
