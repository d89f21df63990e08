import { gelTime } from '../src/resin/gel-time.ts';
import { createPotClock } from '../src/resin/pot.ts';
import { createResinClock } from '../src/resin/resin-clock.ts';
import type { ResinSystem } from '../src/resin/resin-system.ts';
import { usualRule } from '../src/test/usual-rule.ts';
import { clockOf, judge } from '../src/verdict/verdict.ts';
import type { Row } from './row.ts';

const kelvin = 293.15;
const bench: ResinSystem = {
  name: 'bench',
  density: 1130,
  viscosityPoints: [{ temperature: kelvin, viscosity: 1 }],
  gelPoints: [{ temperature: kelvin, time: 6000 }],
  gelViscosityRatio: 20,
  hardenerParts: 30,
};
const shareOfLife = (resin: ResinSystem, age: number) =>
  createResinClock(resin, kelvin).fluidity({ from: 0, to: 6000 * age }) / 6000;

const filmAt = (film: number, temperature: number) =>
  film * Math.exp((50_000 / 8.314462618) * (1 / temperature - 1 / kelvin));

/** When a pot of so many kg gels, s: an integration of its own. */
function gelByEuler(film: number, mass: number): number {
  let [warm, age, seconds] = [kelvin, 0, 0];
  const cooling = 8 * 1.5 * Math.PI * Math.cbrt((4 * mass) / (Math.PI * 1130)) ** 2;
  for (; age < 1; seconds += 0.25) {
    const rate = 1 / filmAt(film, warm);
    warm += (0.25 / 1900) * (240_000 * 2.5 * age ** 1.5 * rate - (cooling * (warm - kelvin)) / mass);
    age += 0.25 * rate;
  }
  return seconds;
}

/** The rows of resin and verdict. */
export function resinChecks(row: Row): void {
  for (const [age, expected] of [
    [0.5, 0.499],
    [0.7, 0.687],
    [0.8, 0.761],
  ] as const)
    row(
      `Radical cure: fluidity to age ${age}, t_gel / mu0`,
      'exp(ln 20 a^8), from memory, integrated by hand',
      expected,
      shareOfLife({ ...bench, chemistry: 'radical' }, age),
    );
  row(
    'Amine: fluidity to age 0.8',
    'exp(ln 20 a), closed',
    (1 - 20 ** -0.8) / Math.log(20),
    shareOfLife(bench, 0.8),
  );
  const sheet = { ...bench, gelPoints: [{ temperature: kelvin, time: 7800 }], gelMass: 0.15 };
  const film = gelTime(sheet, kelvin);
  row(
    'Pot life of 150 g at 130 min: gel of the pot by its film time, s',
    'heat balance, Euler, 0.25 s',
    7800,
    gelByEuler(film, 0.15),
  );
  const wide = {
    ...bench,
    gelPoints: [293.15, 393.15].map((t) => ({ temperature: t, time: filmAt(6000, t) })),
  };
  for (const mass of [0.5, 2])
    row(
      `Clock of the verdict, drawn from ${mass} kg in one pot: gel, s`,
      'heat balance, Euler, 0.25 s',
      gelByEuler(6000, mass),
      createPotClock({ resin: wide, mass, start: kelvin, ambient: kelvin }).gelTime,
    );
  for (const [used, chance] of [
    [0.3, 96],
    [0.5, 78],
    [0.8, 56],
  ] as const) {
    const run = { resin: { ...bench, gelViscosityRatio: 18 }, temperature: kelvin, openTime: 0 };
    const fillTime = clockOf(run).fluidity({ from: 0, to: used * 6000 });
    const doubt = { permeability: 1.4, viscosity: 1, gelTime: 1, temperature: 0 };
    const verdict = judge({ isFilled: true, fillTime, samples: [], dryRegions: [] }, run, doubt, usualRule);
    row(
      `Life used ${used}: chance with x/÷ 1.4 on permeability, in 100`,
      'lognormal tail',
      chance,
      100 * verdict.chance,
    );
  }
}
