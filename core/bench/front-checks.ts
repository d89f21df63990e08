import { forecastFlow } from '../src/flow/forecast.ts';
import { feedLine, plainZone, strip, stripEnds } from '../src/test/layouts.ts';
import { computeLayers } from '../src/laminate/layers.ts';
import { benchStack } from './layered-plate.ts';
import type { Row } from './row.ts';

const [T, S, DROP, VACUUM] = [1.5e-12, 1e-3, 92_000, 2000];
const [LENGTH, WIDTH] = [1, 0.6];
const plate = {
  ...{ outline: strip(LENGTH, WIDTH), holes: [], density: 1130, nodeCount: 2000 },
  ...{ feedPressure: DROP + VACUUM, vacuumPressure: VACUUM },
};

/** The rows of borders between laminates and of gas that is shut in. */
export function frontChecks(row: Row): void {
  const from = 0.4;
  const [flow, pores] = [2, 4];
  const border = [from, 0.7].map((x) => ({ x, y: -0.1 }));
  const outline = [...border, ...border.map(({ x }) => ({ x, y: 0.7 })).reverse()];
  const marks = [from, 0.7].map((x) => ({ id: `${x}`, name: `${x}`, x, y: 0.31 }));
  const zones = [plainZone({ T, S }), plainZone({ T: flow * T, S: pores * S, outline })];
  const [first, second] = forecastFlow({ ...plate, lines: stripEnds(LENGTH, WIDTH), zones, marks }).marks;
  const darcy = 'Darcy, zones in series, integrated over the pores';
  row(
    'Border to 2 times the flow and 4 times the pores, 1/Pa',
    darcy,
    (S * from ** 2) / (2 * T * DROP),
    first.arrival,
  );
  const along = 0.7 - from;
  const beyond = pores * S * (along ** 2 / (2 * flow * T) + (from * along) / T);
  row('The same, at its far side', darcy, ((S * from ** 2) / (2 * T) + beyond) / DROP, second.arrival);

  const edges = [
    { x: 0, y: 0 },
    { x: 0, y: WIDTH },
    { x: LENGTH, y: WIDTH },
    { x: LENGTH, y: 0 },
  ];
  const vent = feedLine({
    ...{ id: 'vent', name: 'Vent', kind: 'vent', points: [{ x: 0.2, y: 0 }] },
    actions: [{ opening: 0, when: { kind: 'passed', what: 'vent', distance: 0, delay: 0 } }],
  });
  const zone = [plainZone({ T, S })];
  const { dryRegions } = forecastFlow({ ...plate, zones: zone, lines: [feedLine({ points: edges }), vent] });
  const [{ area, finalArea }] = dryRegions;
  row(
    'Gas shut in on a plate fed on three sides: what it is pressed to, of its area',
    'Boyle, to the pot’s pressure',
    VACUUM / (VACUUM + DROP),
    finalArea / area,
  );

  const core = { kind: 'core', name: 'Closed', thickness: 0.01, density: 60, resinUptake: 0 } as const;
  const layers = computeLayers({ ...benchStack, core });
  const shut = forecastFlow({
    ...{ ...plate, nodeCount: 300, lines: stripEnds(LENGTH, WIDTH) },
    zones: [{ ...plainZone({ T, S }), layers }],
  });
  const wet = shut.layers.map(({ arrival }) => arrival.filter(Number.isFinite).length / arrival.length);
  row('Core without holes or slits: share of the bag side that is wetted', 'nothing crosses it', 1, wet[0]);
  row('The same: of the mould side that stays dry', 'nothing crosses it', 1, 1 - wet[wet.length - 1]);
}
