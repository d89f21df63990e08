import type { Interval } from '@wick/core/vacuum/drop-test';
import type { JobBudget } from './air.ts';
import type { DropReading, TwoTests } from './drop-test.ts';

/** Air at ambient pressure, in litres or, where it is little, millilitres. @param volume m3 */
export function airWords(volume: number): string {
  const litres = volume * 1000;
  if (litres >= 10) return `${Math.round(litres)} L`;
  if (litres >= 0.1) return `${litres.toPrecision(2)} L`;
  return `${Number((litres * 1000).toPrecision(2))} mL`;
}

/** A share as per cent, with as many places as tell something. */
export function shareWords(share: number): string {
  const percent = share * 100;
  if (percent >= 10) return `${Math.round(percent)} %`;
  return `${Number(percent.toPrecision(percent >= 0.1 ? 2 : 1))} %`;
}

/** Minutes, or hours where they are many. */
export function waitWords(seconds: number): string {
  if (!Number.isFinite(seconds)) return 'no end';
  const minutes = Math.max(1, Math.ceil(seconds / 60 - 1e-9));
  if (minutes < 120) return `${minutes} min`;
  const hours = seconds / 3600;
  return hours < 48 ? `${Number(hours.toPrecision(2))} h` : `${Math.round(hours / 24)} days`;
}

/** In mbar L/s, as gauges and leak detectors are spoken of: 1 mbar L/s is 0.1 Pa m3/s. */
export const leakWords = (throughput: number): string =>
  `${Number((throughput * 10).toPrecision(2))} mbar·L/s`;

/** Both ends of an interval, the unit said once; where it reaches down to nothing, its upper end. */
export function rangeWords({ low, high }: Interval, words: (value: number) => string): string {
  if (!(low > 0)) return `no more than ${words(high)}`;
  const [from, to] = [words(low), words(high)];
  if (from === to) return from;
  const unit = /[\s\u00a0]\S+$/.exec(to)?.[0] ?? '';
  return `${from.endsWith(unit) ? from.slice(0, from.length - unit.length) : from} to ${to}`;
}

/** How the answer is felt. */
export const dropTones = { passes: 'moss', leaks: 'ember', cannotTell: 'resin' } as const;

/** The answer in the trade's own worry. */
export function dropSentence(reading: DropReading, budget: JobBudget): string {
  const { judgement, air, voids, cause } = reading;
  const during = budget.timeFrom === 'fill' ? 'during the fill' : 'until gel';
  switch (judgement.verdict) {
    case 'passes':
      return `Lets in ${air.low > 0 ? airWords(air.value) : `no more than ${airWords(air.high)}`} of air ${during}: ${shareWords(air.low > 0 ? voids.value : voids.high)} voids. Passes.`;
    case 'leaks':
      return `Lets in ${airWords(air.value)} of air ${during}: ${shareWords(voids.value)} voids, more than the ${shareWords(budget.voidLimit)} this part takes. Find the leak.`;
    case 'cannotTell': {
      const looks =
        cause.chance < 0.8
          ? ''
          : cause.cause === 'moisture'
            ? 'It rises, and most of that looks like moisture, not a leak. '
            : voids.value > budget.voidLimit
              ? 'It looks like a leak. '
              : '';
      return `${looks}The gauge cannot tell yet: wait ${waitWords(judgement.wait)} more.`;
    }
  }
}

/** What of the rise is what, beside the answer. */
export function causeWords({ cause, kind }: Pick<DropReading, 'cause' | 'kind'>): string {
  if (kind === 'flat') return 'No rise to speak of.';
  const sure = cause.chance > 0.95 ? '' : cause.chance > 0.8 ? 'Likely ' : 'Perhaps ';
  const what =
    cause.cause === 'leak'
      ? 'most of the rise is a leak: it goes on straight.'
      : 'most of the rise is moisture or outgassing: it flattens.';
  return sure === '' ? what.charAt(0).toUpperCase() + what.slice(1) : sure + what;
}

export function twoTestWords({ kept, says }: TwoTests): string {
  const share = `${Math.round(100 * Math.max(0, kept.value))} %`;
  switch (says) {
    case 'leak':
      return `Pulled again, it rose by ${share} of the first time: a leak stays as it was.`;
    case 'moisture':
      return `Pulled again, it rose by only ${share} of the first time: moisture going, not a leak.`;
    case 'open':
      return `Pulled again, it rose by ${share} of the first time: that tells nothing yet. Keep it shut as long as the first time.`;
  }
}
