import type { Outcome } from '@wick/contract/job/result';
import { bandTones, bandWords, chanceWords } from '@wick/plan/forecast/words';

export const minutesWords = (seconds: number | null) =>
  seconds === null ? 'gels' : `${Math.round(seconds / 60)} min`;

/** "38 min, 27 to 55" */
export function marginWords({ fillTime, earliest, latest }: Outcome): string {
  const edge = (time: number | null) => (time === null ? 'gel' : `${Math.round(time / 60)}`);
  if (fillTime === null) return earliest === null ? 'gels first' : `gels; ${edge(earliest)} min with luck`;
  return `${minutesWords(fillTime)}, ${edge(earliest)} to ${edge(latest)}`;
}

export const outcomeTone = ({ band }: Outcome) => bandTones[band];

export const outcomeBand = ({ band }: Outcome) => bandWords[band];

/** "93 in 100 (90 to 95)" */
export const outcomeChance = ({ chance, chanceFrom, chanceTo }: Outcome) =>
  chanceWords({ chance, chanceRange: { from: chanceFrom, to: chanceTo } });
