import { inject, proxyRefs, type InjectionKey, type ShallowUnwrapRef } from 'vue';
import type { JobSession } from '../session/job-session.ts';
import type { RunSession } from '../session/run-session.ts';
import { createAdvice } from './advice.ts';
import { createCard, type CardParts } from './card.ts';
import { createChecks, createStackChecks } from './checks.ts';
import type { Desk } from './desk.ts';
import { createDoubt } from './doubt.ts';
import { createDraw } from './draw.ts';
import { createForecast } from './forecast.ts';
import { createLayouts } from './layouts.ts';
import { createProbes } from './probes.ts';
import { createUnentered } from './unentered.ts';
import { createResults, type ResultsParts } from './results.ts';

interface DeskParts extends Omit<Desk, 'session'> {
  /** What happens when it is made. */
  readonly run: RunSession;
  readonly plans: CardParts;
  readonly results: ResultsParts;
}

/** Everything about one open job, its refs unwrapped: made with its session, gone with its scope. */
export function createDesk(session: JobSession, { results, run, plans, ...parts }: DeskParts) {
  const open = proxyRefs(session);
  const desk: Desk = { ...parts, session: open as Desk['session'] };
  const shelf = createResults(results);
  void shelf.load();
  const doubt = createDoubt(desk);
  const forecast = createForecast(desk, doubt.settled);
  return {
    session: open,
    run: proxyRefs(run),
    scheduler: parts.scheduler,
    forecast: proxyRefs(forecast),
    layouts: proxyRefs(createLayouts(desk, forecast, shelf)),
    checks: proxyRefs(createChecks(desk, forecast)),
    stackChecks: proxyRefs(createStackChecks(desk, forecast)),
    advice: proxyRefs(createAdvice(desk)),
    doubt: proxyRefs(doubt),
    probes: proxyRefs(createProbes(desk, forecast)),
    unentered: proxyRefs(createUnentered(desk, forecast)),
    draw: proxyRefs(createDraw(desk, forecast)),
    card: proxyRefs(createCard(desk, run, plans)),
  };
}

export type OpenDesk = ReturnType<typeof createDesk>;
export const deskKey: InjectionKey<OpenDesk> = Symbol('desk');

function useDesk(): OpenDesk {
  const desk = inject(deskKey);
  if (!desk) throw new Error('no job is open here: this belongs under the page of a job');
  return desk;
}

/** A session with its refs unwrapped. */
export type OpenSession = ShallowUnwrapRef<JobSession>;

export const useSession = (): OpenSession => useDesk().session;
export const useRun = () => useDesk().run;
export const useScheduler = () => useDesk().scheduler;
export const useForecast = () => useDesk().forecast;
export const useLayouts = () => useDesk().layouts;
export const useChecks = () => useDesk().checks;
export const useStackChecks = () => useDesk().stackChecks;
export const useAdvice = () => useDesk().advice;
export const useDoubt = () => useDesk().doubt;
export const useCard = () => useDesk().card;
export const useDraw = () => useDesk().draw;
export const useProbes = () => useDesk().probes;
export const useUnentered = () => useDesk().unentered;
