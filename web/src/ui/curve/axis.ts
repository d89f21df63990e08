/** A place on an axis with what stands beside it. */
export interface Tick {
  readonly value: number;
  readonly label: string;
}

const STEPS = [1, 2, 5];

/** Round steps over a range, at most so many. */
export function linearTicks(from: number, to: number, most: number): Tick[] {
  const rough = (to - from) / most;
  const power = 10 ** Math.floor(Math.log10(rough));
  const step = [...STEPS, 10].map((one) => one * power).find((one) => one >= rough * (1 - 1e-9))!;
  const decimals = Math.max(0, -Math.floor(Math.log10(step) + 1e-9));
  const ticks: Tick[] = [];
  for (let n = Math.ceil(from / step - 1e-9); n * step <= to + 1e-9 * step; n++)
    ticks.push({ value: n * step, label: (n * step).toFixed(decimals) });
  return ticks;
}

/** Ones, twos and fives of every decade; ones alone where that is too many. */
export function logTicks(from: number, to: number, most: number): Tick[] {
  const within = (steps: readonly number[]) => {
    const ticks: Tick[] = [];
    for (let power = Math.floor(Math.log10(from)); power <= Math.log10(to); power++)
      for (const one of steps) {
        const value = one * 10 ** power;
        if (value >= from * (1 - 1e-9) && value <= to * (1 + 1e-9))
          ticks.push({ value, label: String(Number(value.toPrecision(1))) });
      }
    return ticks;
  };
  const fine = within(STEPS);
  return fine.length <= most ? fine : within([1]);
}

/** Steps of time that people count in, s. */
const TIMES = [1, 2, 5, 10, 15, 30, 60, 120, 300, 600, 900, 1800, 3600, 7200, 14_400, 21_600, 43_200, 86_400];

/** Times from a beginning, in s, as minutes or as hours and minutes. */
export function timeTicks(from: number, to: number, most: number): Tick[] {
  const rough = (to - from) / most;
  const step = TIMES.find((one) => one >= rough) ?? Math.ceil(rough / 86_400) * 86_400;
  const ticks: Tick[] = [];
  for (let n = Math.ceil(from / step - 1e-9); n * step <= to + 1e-9; n++)
    ticks.push({ value: n * step, label: timeWords(n * step, step) });
  return ticks;
}

function timeWords(seconds: number, step: number): string {
  const sign = seconds < 0 ? '−' : '';
  const whole = Math.round(Math.abs(seconds));
  const [minutes, rest] = [Math.floor(whole / 60), whole % 60];
  const two = (n: number) => String(n).padStart(2, '0');
  if (step < 60) return `${sign}${minutes}:${two(rest)}`;
  if (step < 3600 && minutes < 180) return `${sign}${minutes} min`;
  return `${sign}${Math.floor(minutes / 60)} h${minutes % 60 === 0 ? '' : ` ${two(minutes % 60)}`}`;
}
