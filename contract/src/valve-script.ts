import type { FlowForecast } from '@wick/core/flow/forecast';
import { formatClock } from '@wick/core/units/format';
import { prelude } from './forecast-input.ts';
import type { Job, JobAction, JobLine } from './job.ts';

/** One turn of a valve, as it is called out. */
export interface ScriptStep {
  readonly lineId: string;
  /** Which of the line's actions; null for what is open from the start. */
  readonly action: number | null;
  readonly line: string;
  /** 0 shut, 1 open, in between throttled. */
  readonly opening: number;
  /** "When the front has passed Feed 2 and gone 50 mm beyond" */
  readonly cue: string;
  /** "open Feed 2" */
  readonly order: string;
  /** Expected, s since first mix; null where this forecast does not come to it, Infinity past gel. */
  readonly time: number | null;
}

export interface ScriptWriting {
  /** Run time of the forecast to s since first mix. */
  readonly clockTime: (runTime: number) => number;
  readonly show: (value: number, quantity: 'length' | 'mass') => string;
}

/**
 * Every valve turn of a layout in the order in which the forecast comes to it; what it never comes to stands last.
 * Of two turns at the same moment the opening comes first: the part is never without a feed.
 */
export function valveScript(job: Job, flow: FlowForecast | null, writing: ScriptWriting): ScriptStep[] {
  const open = prelude(job).open;
  const lines = job.lines.filter(({ kind }) => kind !== 'race');
  const starting = lines
    .filter(({ startsOpen }) => startsOpen)
    .map((line): ScriptStep => {
      const isVent = line.kind === 'vent';
      return {
        lineId: line.id,
        action: null,
        line: line.name,
        opening: 1,
        cue: isVent ? 'Before the first feed' : 'To start',
        order: isVent ? `check that ${line.name} is open` : `open ${line.name}`,
        time: isVent ? null : open,
      };
    });
  const vents = starting.filter(({ time }) => time === null);
  const feeds = starting.filter(({ time }) => time !== null);
  const later = lines.flatMap((line) =>
    line.actions.map((action, index): ScriptStep => ({
      lineId: line.id,
      action: index,
      line: line.name,
      opening: action.opening,
      cue: cueWords(action, line, job, writing),
      order: `${orderWords(action.opening)} ${line.name}`,
      time: timeOf(action, line, flow, writing),
    })),
  );
  later.sort(
    (a, b) =>
      (a.time ?? Infinity) - (b.time ?? Infinity) || Number(b.opening > 0) - Number(a.opening > 0) || 0,
  );
  return [...vents, ...feeds, ...later];
}

/** When the forecast comes to an action: the matching event of its line, in the order of the line's actions of that sort. */
function timeOf(
  action: JobAction,
  line: JobLine,
  flow: FlowForecast | null,
  writing: ScriptWriting,
): number | null {
  if (!flow) return null;
  const kindOf = (opening: number) => (opening === 0 ? 'closes' : opening === 1 ? 'opens' : 'throttles');
  const kind = kindOf(action.opening);
  const events = flow.events.filter(
    (event) => event.name === line.name && event.kind === kind && (event.time > 0 || !line.startsOpen),
  );
  const same = line.actions.filter(({ opening }) => kindOf(opening) === kind);
  const event = events[same.indexOf(action)] ?? (same.length === 1 ? events[0] : undefined);
  return event ? writing.clockTime(event.time) : null;
}

function orderWords(opening: number): string {
  if (opening === 0) return 'shut';
  return opening === 1 ? 'open' : `throttle to ${Math.round(100 * opening)} %`;
}

function cueWords({ when }: JobAction, line: JobLine, job: Job, { show }: ScriptWriting): string {
  const named = (id: string) =>
    [...job.lines, ...job.marks, ...job.zones].find((item) => item.id === id)?.name ?? id;
  const delay = when.kind !== 'time' && when.delay > 0 ? `, ${formatClock(when.delay)} min after that` : '';
  switch (when.kind) {
    case 'time':
      return `At minute ${formatClock(when.time)} from first mix`;
    case 'passed': {
      const isVent = job.lines.some(({ id, kind }) => id === when.what && kind === 'vent');
      const base = isVent
        ? `When resin stands along ${named(when.what)}`
        : `When the front has passed ${named(when.what)}`;
      const beyond = when.distance > 0 ? ` and gone ${show(when.distance, 'length')} beyond` : '';
      return `${base}${beyond}${delay}`;
    }
    case 'zoneFull':
      return `When ${named(when.zone)} is wet throughout${delay}`;
    case 'drawn':
      return `When the pot has given ${show(when.mass, 'mass')}${delay}`;
    case 'opened':
      return when.what === line.id
        ? `Once it is open${delay}`
        : `As soon as ${named(when.what)} is open${delay}`;
    case 'full':
      return `When the whole part is wet${delay}`;
  }
}

/** The job with every opening and shutting that the forecast came to set to its minute. */
export function typedTimes(job: Job, steps: readonly ScriptStep[]): Job {
  return {
    ...job,
    lines: job.lines.map((line) => ({
      ...line,
      actions: line.actions.map((action, index) => {
        const step = steps.find(({ lineId, action: own }) => lineId === line.id && own === index);
        const time = step?.time;
        return time != null && Number.isFinite(time)
          ? { ...action, when: { kind: 'time' as const, time } }
          : action;
      }),
    })),
  };
}

/** Usual cautions on a script: deferred to the sheet and the site. */
export const scriptCautions: readonly string[] = [
  'Watch bag, bucket and inlet from the first opening on; stop if the bag floats or the inlet draws air.',
  'Mixed resin left in the pot heats up: stand it outside on a non-combustible surface.',
  'Keep the catch pot below half: resin in the pump is a dead pump.',
  'Gloves, eyes and air as the safety data sheets and your site’s rules say.',
];
