import { cureLawOf } from './cure-law.ts';
import type { ResinClock } from './resin-clock.ts';
import type { ResinSystem } from './resin-system.ts';

/**
 * The clock of a run that is warmer or colder from a time on: up to then what it was, from there on the same course, quicker by what the
 * temperature does to the cure and thinner by what it does to the viscosity, a pot's own warmth among it.
 * @param base its clock, and the temperature it counts with, K
 * @param from s since first mix, before its gel  @param temperature from there on, K
 * @throws ModelError of the resin's curves
 * Valid: all of it as warm as that at once; with kinetics by the rate at the state it then has. Checked by warmed-clock.test.ts.
 */
export function warmedClock(
  resin: ResinSystem,
  base: { readonly clock: ResinClock; readonly temperature: number },
  from: number,
  temperature: number,
): ResinClock {
  const { clock } = base;
  const law = cureLawOf(resin);
  const state = clock.ageAt(from) * law.gelState;
  const quicker = law.rate(state, temperature) / law.rate(state, base.temperature);
  const thicker = law.viscosity(0, temperature) / law.viscosity(0, base.temperature);
  /** When the clock of before would be as far. */
  const was = (time: number) => (time <= from ? time : from + quicker * (time - from));
  const isNow = (time: number) => (time <= from ? time : from + (time - from) / quicker);
  const after = (span: { from: number; to: number }) => clock.fluidity(span) / (quicker * thicker);
  return {
    gelTime: isNow(clock.gelTime),
    endsUnknown: clock.endsUnknown,
    ageAt: (time) => clock.ageAt(was(time)),
    viscosityAt: (time) => clock.viscosityAt(was(time)) * (time <= from ? 1 : thicker),
    fluidity({ from: start, to }) {
      const before = start < from ? clock.fluidity({ from: start, to: Math.min(to, from) }) : 0;
      return to <= from ? before : before + after({ from: was(Math.max(start, from)), to: was(to) });
    },
    timeAtFluidity({ from: start, fluidity }) {
      const before = start < from ? clock.fluidity({ from: start, to: from }) : 0;
      if (fluidity <= before) return clock.timeAtFluidity({ from: start, fluidity });
      const rest = (fluidity - before) * quicker * thicker;
      return isNow(clock.timeAtFluidity({ from: was(Math.max(start, from)), fluidity: rest }));
    },
  };
}
