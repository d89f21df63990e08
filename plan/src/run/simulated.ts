import type { Instrument } from '@wick/contract/run/instrument';
import type { Run } from '@wick/contract/run/run';

/** A simulated instrument: what it shows, and how well. */
export type SimulatedInstrument = Pick<
  Instrument,
  'id' | 'name' | 'measures' | 'unit' | 'resolution' | 'noise'
> & { readonly place: 'bag' | 'room' | 'mould' | 'bench' | 'pot' | null };

/** Those of every rehearsal. */
export const simulated: readonly SimulatedInstrument[] = [
  {
    id: 'gauge',
    name: 'Absolute gauge',
    measures: 'absolutePressure',
    unit: 'mbar',
    resolution: 10,
    noise: 6,
    place: 'bag',
  },
  {
    id: 'needle',
    name: 'Needle gauge',
    measures: 'gaugePressure',
    unit: 'inHg',
    resolution: 1693.2,
    noise: 200,
    place: 'bag',
  },
  {
    id: 'barometer',
    name: 'Barometer',
    measures: 'absolutePressure',
    unit: 'mbar',
    resolution: 10,
    noise: 3,
    place: 'room',
  },
  {
    id: 'thermometer',
    name: 'Thermometer on the mould',
    measures: 'temperature',
    unit: '°C',
    resolution: 0.1,
    noise: 0.05,
    place: 'mould',
  },
  {
    id: 'listener',
    name: 'Leak listener',
    measures: 'soundLevel',
    unit: 'dB',
    resolution: 1,
    noise: 0.7,
    place: null,
  },
  {
    id: 'scale',
    name: 'Scale at the mixing bench',
    measures: 'mass',
    unit: 'g',
    resolution: 1e-3,
    noise: 3e-4,
    place: 'bench',
  },
  {
    id: 'potScale',
    name: 'Scale under the pot',
    measures: 'mass',
    unit: 'g',
    resolution: 5e-3,
    noise: 2e-3,
    place: 'pot',
  },
];

export const instrumentIn = (run: Pick<Run, 'id'>, own: string) => `${run.id}-${own}`;
/** Of a rehearsal, with ids of their own. */
export const simulatedInstruments = (run: Pick<Run, 'id'>): SimulatedInstrument[] =>
  simulated.map((one) => ({ ...one, id: instrumentIn(run, one.id) }));
