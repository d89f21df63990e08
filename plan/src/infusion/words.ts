import { ENOUGH_SHAPES } from '@wick/core/reforecast/shapes';
import { LIKELY, type Minutes, type Reforecast } from './reforecast.ts';
import type { ShapeEvent } from './problem-shapes.ts';

const minute = (seconds: number) => `${Math.round(seconds / 60)}`;

/** "22 to 31 min", "22 min, or not before gel". */
export function rangeWords({ early, late }: Minutes): string {
  if (early === Infinity) return 'not before gel';
  if (late === Infinity) return `${minute(early)} min, or not before gel`;
  const [from, to] = [minute(early), minute(late)];
  return from === to ? `${from} min` : `${from} to ${to} min`;
}

/** Belief from which a thing is worth a look. */
const PERHAPS = 0.2;

const eventClauses: Readonly<Record<ShapeEvent['kind'], (where: string) => string>> = {
  race: (where) => `it races along ${where}`,
  blocked: (where) => `${where} is nearly blocked`,
  cold: (where) => `${where} takes resin badly: cold, or pressed hard`,
};

/** What the marks say of the part beside its minutes, in sentences. */
export function reforecastWords({ events, factor, marks, effective }: Reforecast): string[] {
  if (marks.length === 0) return [];
  const out: string[] = [];
  const [first] = events;
  if (first && first.belief > LIKELY)
    out.push(`By the marks ${eventClauses[first.event.kind](first.event.where)}.`);
  else if (first && first.belief > PERHAPS)
    out.push(`Perhaps ${eventClauses[first.event.kind](first.event.where)}: one more mark there tells.`);
  const off = Math.round(100 * Math.abs(1 - factor.middle));
  if (factor.early > 1 || factor.late < 1)
    out.push(`It takes resin ${off} % ${factor.middle < 1 ? 'worse' : 'better'} than planned.`);
  for (const mark of marks.filter(({ isDoubted }) => isDoubted))
    out.push(
      `The mark at ${minute(mark.time)} min does not fit ${marks.length > 1 ? 'the others, which have' : 'the plan, which has'} the front there at ${minute(mark.expected)} min: it is kept, and not believed.`,
    );
  if (effective < ENOUGH_SHAPES && (!first || first.belief < LIKELY))
    out.push('What was seen fits few of the sampled parts: the range may be too narrow.');
  return out;
}
