import type { EntryBody } from '@wick/contract/run/run';
import type { Shop } from '@wick/contract/shop';
import { createLiveFill, type LiveFill } from '@wick/core/flow/live-fill';
import { requestOf, type FlowProblem } from '@wick/core/flow/problem';
import type { ResinClock } from '@wick/core/resin/resin-clock';
import { warmedClock } from '@wick/core/resin/warmed-clock';
import { clockOf, type RunConditions } from '@wick/core/verdict/verdict';
import { problemOf } from '../forecast/problem.ts';
import { runConditionsOf } from '../resin/run.ts';
import { settledIn, settle } from '../settle.ts';
import { createCues, type Cues } from './cues.ts';
import type { Truth } from './truth.ts';

/** What somebody beside the mould could see, weigh and feel. */
export interface PartSeen {
  /** s since the start of the rehearsal */
  readonly time: number;
  /** s since first contact; null before it. */
  readonly clock: number | null;
  /** Fill fraction of each node of the mesh on the bag side; null before a feed has been opened. */
  readonly front: Float64Array | null;
  readonly mesh: LiveFill['mesh'] | null;
  /** In the pot, kg. */
  readonly pot: number;
  /** The hose draws air. */
  readonly drawsAir: boolean;
  /** Of the resin in the part, K. */
  readonly temperature: number;
  readonly hasGelled: boolean;
}

/** How it is in truth, for saying afterwards what was missed; times s since first contact. */
export interface PartTruth {
  readonly gelTime: number;
  /** NaN where the last corner was not wet. */
  readonly filledAt: number;
  readonly filledShare: number;
  readonly drewAirAt: number | null;
  /** kg */
  readonly drawn: number;
}

/** Nodes of the part; its layers come on top. */
const NODES = 500;
/** A pot with less than this of its heel lets air into the hose. */
export const AIR = 0.3;

/**
 * The part of a rehearsal on its mould, as the job's own physics has it with what was drawn: driven by what is said in the log and by the
 * pressure in the bag. The same truth and the same log come to the same.
 * @throws ModelError as problemOf
 * Checked by part-world.test.ts.
 */
export function createPartWorld(truth: Truth, shop: Shop, nodeCount = NODES) {
  const { job } = truth;
  const density = settledIn(job, 'resin.density');
  const heel = settledIn(job, 'resin.heel');
  const feedPressure = settle(job, shop)['shop.ambientPressure'].value;
  const plannedDrive = feedPressure - settle(job, shop)['vacuum.ventPressure'].value;
  const planned = runConditionsOf(job, shop);
  const feeds = job.lines.filter(({ kind }) => kind === 'feed');
  const openings = new Map(
    job.lines.filter(({ kind }) => kind === 'vent').map(({ id, startsOpen }) => [id, Number(startsOpen)]),
  );

  let time = 0;
  let contact: number | null = null;
  let fill: LiveFill | null = null;
  let cues: Cues | null = null;
  let openTime = 0;
  let clock: ResinClock | null = null;
  let problem: FlowProblem | null = null;
  let poured = 0;
  /** In mixing buckets, kg. */
  const mixed = new Map<string, number>();
  let drewAirAt: number | null = null;
  let isStarved = false;
  let filledAt = NaN;
  let temperature = planned?.temperature ?? settle(job, shop)['resin.temperature'].value;

  const sinceContact = () => (contact === null ? 0 : time - contact);
  const potMass = () => Math.max(0, truth.potShare * poured - density * (fill?.drawn() ?? 0));

  function open(): void {
    if (!planned) return;
    contact ??= time - planned.openTime;
    openTime = sinceContact();
    const run: RunConditions = { ...planned, openTime };
    clock = clockOf(run);
    const made = problemOf(job, shop, { soft: false });
    problem = { ...made, patchwork: truth.patchwork, run: made.run && { ...made.run, openTime } };
    const request = requestOf(problem, { nodeCount, steps: 60 });
    fill = createLiveFill(request);
    cues = createCues(problem, fill);
    for (const { id } of feeds) fill.turn(id, openings.get(id) ?? 0);
    for (const { id, kind } of job.lines) if (kind === 'vent') fill.turn(id, openings.get(id) ?? 1);
  }

  /** Run time of the fill at a time since first contact. */
  const runTimeAt = (at: number) =>
    problem!.moving ? at - openTime : clock!.fluidity({ from: openTime, to: Math.min(at, clock!.gelTime) });
  /** And back, s since first contact. */
  const clockTimeAt = (run: number) =>
    problem!.moving ? openTime + run : clock!.timeAtFluidity({ from: openTime, fluidity: run });

  function turn(lineId: string, opening: number): void {
    openings.set(lineId, opening);
    if (fill) fill.turn(lineId, isStarved && feeds.some(({ id }) => id === lineId) ? 0 : opening);
    else if (opening > 0 && feeds.some(({ id }) => id === lineId)) open();
  }

  /** From now on the resin in the part is so warm; null takes it back to what it was. */
  function warm(to: number | null): void {
    const at = sinceContact();
    if (!clock || !planned || at >= clock.gelTime) return;
    const was = temperature;
    temperature = to ?? planned.temperature;
    clock = warmedClock(planned.resin, { clock, temperature: was }, at, temperature);
  }

  /** Air in the hose stops what it fed; resin on top of it goes on. */
  function lookAtPot(): void {
    const isDry = fill !== null && poured > 0 && potMass() < AIR * heel;
    if (isDry === isStarved) return;
    isStarved = isDry;
    if (isDry) drewAirAt ??= sinceContact();
    for (const { id } of feeds) fill!.turn(id, isDry ? 0 : (openings.get(id) ?? 0));
  }

  return {
    /** What is said changes what acts on the part from the moment to which it has been passed. */
    hear(body: EntryBody): void {
      switch (body.kind) {
        case 'mixed':
        case 'contact':
          contact ??= time;
          return;
        case 'batchPoured':
          poured += body.mass;
          lookAtPot();
          return;
        case 'poured':
          mixed.set(body.mixId, (mixed.get(body.mixId) ?? 0) + body.mass);
          return;
        case 'mixStep':
          if (body.step !== 'inPot') return;
          poured += mixed.get(body.mixId) ?? 0;
          lookAtPot();
          return;
        case 'valve':
          turn(body.lineId, body.opening);
          return;
        case 'warming':
          warm(body.temperature);
      }
    },
    /** @param to s since the start  @param pressure in the bag meanwhile, Pa absolute */
    pass(to: number, pressure: number): void {
      if (to <= time) return;
      time = to;
      if (!fill || !clock) return;
      fill.drive(Math.max(1e-6, (feedPressure - pressure) / plannedDrive));
      const at = sinceContact();
      if (at < clock.gelTime) fill.pass(runTimeAt(at));
      if (Number.isNaN(filledAt) && fill.isFull()) filledAt = clockTimeAt(fill.filledAt());
      lookAtPot();
    },
    /** Actions of the plan whose trigger holds by what can be seen, and which have not been heard of. */
    due: (): readonly string[] => (fill && clock ? cues!.due(sinceContact()) : []),
    frontAt: (place: { readonly x: number; readonly y: number }): number =>
      fill ? clockTimeAt(cues!.frontAt(place)) : NaN,
    seen: (): PartSeen => ({
      ...{ time, clock: contact === null ? null : sinceContact(), pot: potMass(), drawsAir: isStarved },
      front: fill?.bagSide() ?? null,
      mesh: fill?.mesh ?? null,
      temperature,
      hasGelled: clock !== null && sinceContact() >= clock.gelTime,
    }),
    truth: (): PartTruth => ({
      ...{ gelTime: clock?.gelTime ?? Infinity, filledAt, drewAirAt },
      filledShare: fill?.filled() ?? 0,
      drawn: density * (fill?.drawn() ?? 0),
    }),
  };
}

export type PartWorld = ReturnType<typeof createPartWorld>;
