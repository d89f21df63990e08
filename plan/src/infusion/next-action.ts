import type { EntryBody } from '@wick/contract/run/run';
import type { QuantityName } from '@wick/core/units/quantities';
import type { LaidJob } from '../job/laid.ts';
import { valveScript } from '../layout/valve-script.ts';
import type { Infusion } from './infusion.ts';
import type { Minutes, Reforecast } from './reforecast.ts';
import type { ResinLeft } from './resin-left.ts';
import { openingNow } from './infusion.ts';

/** One thing to do, and what is written down when it has been done. */
export interface NextAction {
  readonly id: string;
  readonly title: string;
  /** By what it is known that it is time. */
  readonly trigger: string;
  /** s since first contact; null where it is time whenever somebody does it. */
  readonly at: Minutes | null;
  readonly says: readonly EntryBody[];
  /** On the button. */
  readonly done: string;
}

export interface NextRequest {
  readonly job: LaidJob;
  readonly infusion: Infusion;
  readonly answer: Reforecast | null;
  readonly resin: ResinLeft | null;
  /** When the feed may be shut so that what lies behind fills the rest, s since first contact; null where nobody has worked it out. */
  readonly shutAt: number | null;
  /** The pump draws on the bag. */
  readonly isPulled: boolean;
  /** From first contact to the first opening, as planned, s. */
  readonly plannedOpen: number;
  readonly show: (value: number, quantity: QuantityName) => string;
}

/** In the order in which they are due: the first is the one across the screen. */
export function nextActions(request: NextRequest): NextAction[] {
  const { infusion } = request;
  if (!request.isPulled && infusion.allWetAt === null) return [pulling()];
  if (infusion.contactAt === null) return [contact()];
  if (infusion.openedAt === null) return [opening(request)];
  if (infusion.allWetAt !== null) return ending(request);
  // Of two at the same minute the part is seen wet before anything is shut.
  return [allWet(request), ...turns(request), ...mixing(request), ...shutting(request)].sort(
    (a, b) => whenOf(a) - whenOf(b),
  );
}

const whenOf = ({ at }: NextAction) => at?.middle ?? Infinity;
const sure = (time: number): Minutes => ({ early: time, middle: time, late: time });

const pulling = (): NextAction => ({
  ...{ id: 'pull', title: 'Pump on the bag', at: null, done: 'It draws' },
  trigger: 'Nothing moves without it; the drop test under Vacuum says whether it holds.',
  says: [{ kind: 'pull' }],
});

const contact = (): NextAction => ({
  ...{ id: 'contact', title: 'Mix, and say when the two meet', at: null, done: 'They meet now' },
  trigger: 'From the first drop of hardener the clock runs, whatever waits.',
  says: [{ kind: 'mixed', mass: null }],
});

function opening({ job, plannedOpen, show }: NextRequest): NextAction {
  const script = valveScript(job, null, { clockTime: (time) => time, show });
  const feeds = script.filter(({ actionId, opening: open, lineId }) => {
    const line = job.lines.find(({ id }) => id === lineId);
    return actionId === null && open > 0 && line?.kind === 'feed';
  });
  return {
    id: 'open',
    title: `Open ${feeds.map(({ line }) => line).join(' and ') || 'the feed'}`,
    trigger: 'Hose full and clamped, end under the resin, vacuum recovered.',
    at: sure(plannedOpen),
    done: 'Open',
    says: feeds.map(({ lineId }) => ({ kind: 'valve', lineId, opening: 1, actionId: null })),
  };
}

/** Turns of the plan that nobody has done, as the re-forecast has them. */
function turns({ job, infusion, answer, shutAt, show }: NextRequest): NextAction[] {
  const done = new Set(infusion.turned.map(({ actionId }) => actionId));
  const times = new Map(answer?.turns.map(({ actionId, at }) => [actionId, at]));
  return valveScript(job, null, { clockTime: (time) => time, show }).flatMap(
    ({ lineId, actionId, order, cue, opening: to }): NextAction[] =>
      actionId === null || done.has(actionId) || (shutAt !== null && to === 0 && isFeed(job, lineId))
        ? []
        : [
            {
              ...{
                id: `turn-${actionId}`,
                title: `${order[0]!.toUpperCase()}${order.slice(1)}`,
                trigger: cue,
              },
              at: times.get(actionId) ?? null,
              done: to === 0 ? 'Clamped' : to === 1 ? 'Opened' : 'Throttled',
              says: [{ kind: 'valve', lineId, opening: to, actionId }],
            },
          ],
  );
}

const isFeed = ({ lines }: LaidJob, lineId: string) =>
  lines.some(({ id, kind }) => id === lineId && kind === 'feed');

function mixing({ resin, show }: NextRequest): NextAction[] {
  if (!resin || resin.short === 0 || resin.mixBy === null) return [];
  return [
    {
      id: 'mix',
      title: `Mix ${show(resin.short, 'mass')} more`,
      trigger: 'Before the hose would draw air: mixing and degassing take their time.',
      at: sure(resin.mixBy),
      done: 'In the pot',
      says: [{ kind: 'batchPoured', mass: resin.short }],
    },
  ];
}

/** m; common practice, no source. */
const LEFT = '50 to 75 mm';

function shutting({ job, infusion, shutAt, answer }: NextRequest): NextAction[] {
  const open = job.lines.filter((line) => line.kind === 'feed' && openingNow(infusion, line) > 0);
  const planned = job.lines.some((line) =>
    line.actions.some(
      ({ opening: to, id }) => to === 0 && !infusion.turned.some(({ actionId }) => actionId === id),
    ),
  );
  if (open.length === 0 || (shutAt === null && planned)) return [];
  const at = shutAt ?? answer?.last.middle ?? null;
  return [
    {
      id: 'shut',
      title: `Shut ${open.map(({ name }) => name).join(' and ')}`,
      trigger:
        shutAt === null
          ? `When the front is ${LEFT} from the end.`
          : 'What lies behind the front still fills the rest.',
      at: at === null ? null : sure(at),
      done: 'Clamped',
      says: open.map((line) => shut(line)),
    },
  ];
}

const allWet = ({ answer }: NextRequest): NextAction => ({
  ...{ id: 'allWet', title: 'See the last corner wet', done: 'All wet' },
  trigger: 'On both faces where they can be seen; the mould side lags.',
  at: answer?.last ?? null,
  says: [{ kind: 'allWet' }],
});

/** What the chosen school still has to shut; without one what the plan has. */
function ending(request: NextRequest): NextAction[] {
  const { job, infusion } = request;
  if (infusion.school === null) return turns({ ...request, shutAt: null }).filter(isShutting);
  const kinds = infusion.school === 'shutBoth' ? ['feed', 'vent'] : ['feed'];
  const open = job.lines.filter((line) => kinds.includes(line.kind) && openingNow(infusion, line) > 0);
  if (open.length === 0) return [];
  return [
    {
      id: 'close',
      title: `Clamp ${open.map(({ name }) => name).join(' and ')}`,
      trigger:
        infusion.school === 'shutBoth'
          ? 'The brake holds what is in there.'
          : 'The vent stays open, and somebody watches the pump, until gel.',
      at: null,
      done: 'Clamped',
      says: open.map((line) => shut(line)),
    },
  ];
}

const isShutting = ({ says }: NextAction) => says.some((body) => body.kind === 'valve' && body.opening === 0);

/** The turn of the plan where it has one, so that it counts as done. */
const shut = ({ id, actions }: LaidJob['lines'][number]): EntryBody => ({
  ...{ kind: 'valve', lineId: id, opening: 0 },
  actionId: actions.find(({ opening: to }) => to === 0)?.id ?? null,
});

/** s before it is due at which a thing is called. */
export const CALLS = [180, 60, 0] as const;

/** How near a thing is: the last call that it has come to; null before the first. */
export function callOf({ at }: Pick<NextAction, 'at'>, now: number): (typeof CALLS)[number] | null {
  if (!at || at.middle === Infinity) return null;
  const left = at.middle - now;
  return CALLS.findLast((before) => left <= before) ?? null;
}
