import { prelude } from '../resin/run.ts';
import type { FlowForecast } from '@wick/core/flow/forecast';
import { formatClock } from '@wick/core/units/format';
import type { JobAction, JobLine } from '@wick/contract/job/job';
import type { Edit } from '../job/edits.ts';
import type { LaidJob } from '../job/laid.ts';
import { onLines } from './edits.ts';

/** One turn of a valve, as it is called out. */
export interface ScriptStep {
  readonly lineId: string;
  /** The line's action; null for what is open from the start. */
  readonly actionId: string | null;
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
export function valveScript(job: LaidJob, flow: FlowForecast | null, writing: ScriptWriting): ScriptStep[] {
  const open = prelude(job).open;
  const lines = job.lines.filter(({ kind }) => kind !== 'race');
  const starting = lines
    .filter(({ startsOpen }) => startsOpen)
    .map((line): ScriptStep => {
      const isVent = line.kind === 'vent';
      return {
        lineId: line.id,
        actionId: null,
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
    line.actions.map((action): ScriptStep => ({
      lineId: line.id,
      actionId: action.id,
      line: line.name,
      opening: action.opening,
      cue: cueWords(action, line, job, writing),
      order: `${orderWords(action.opening)} ${line.name}`,
      time: timeOf(action, flow, writing),
    })),
  );
  later.sort(
    (a, b) =>
      (a.time ?? Infinity) - (b.time ?? Infinity) || Number(b.opening > 0) - Number(a.opening > 0) || 0,
  );
  return [...vents, ...feeds, ...later];
}

/** When the forecast comes to an action; null where it does not. */
function timeOf({ id }: JobAction, flow: FlowForecast | null, writing: ScriptWriting): number | null {
  const event = flow?.events.find(({ actionId }) => actionId === id);
  return event ? writing.clockTime(event.time) : null;
}

function orderWords(opening: number): string {
  if (opening === 0) return 'shut';
  return opening === 1 ? 'open' : `throttle to ${Math.round(100 * opening)} %`;
}

function cueWords({ when }: JobAction, line: JobLine, job: LaidJob, { show }: ScriptWriting): string {
  const named = (id: string) =>
    [...job.lines, ...job.marks, ...job.zones].find((item) => item.id === id)?.name ?? id;
  const delay = when.kind !== 'time' && when.delay > 0 ? `, ${formatClock(when.delay)} min after that` : '';
  switch (when.kind) {
    case 'time':
      return `At minute ${formatClock(when.time)} from first mix`;
    case 'passed': {
      const isVent = job.lines.some(({ id, kind }) => id === when.what && kind === 'vent');
      const isLine = job.lines.some(({ id, points }) => id === when.what && points.length > 1);
      const where =
        isLine && when.at ? { first: 'the first of ', middle: 'the middle of ', last: '' }[when.at] : '';
      const base = isVent
        ? `When resin stands ${where === '' ? 'along' : 'at'} ${where}${named(when.what)}`
        : `When the front has passed ${where}${named(when.what)}`;
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

/** Every opening and shutting that the forecast came to set to its minute. */
export const typedTimes = (steps: readonly ScriptStep[]): Edit =>
  onLines((line) => ({
    ...line,
    actions: line.actions.map((action) => {
      const time = steps.find(({ actionId }) => actionId === action.id)?.time;
      return time != null && Number.isFinite(time)
        ? { ...action, when: { kind: 'time' as const, time } }
        : action;
    }),
  }));

/** Usual cautions on a script: deferred to the sheet and the site. */
export const scriptCautions: readonly string[] = [
  'Watch bag, bucket and inlet from the first opening on; stop if the bag floats or the inlet draws air.',
  'Mixed resin left in the pot heats up: stand it outside on a non-combustible surface.',
  'Keep the catch pot below half: resin in the pump is a dead pump.',
  'Gloves, eyes and air as the safety data sheets and your site’s rules say.',
];
