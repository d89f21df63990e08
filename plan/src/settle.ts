import type { Job } from '@wick/contract/job/job';
import type { Shop } from '@wick/contract/shop';
import type { QuantityName } from '@wick/core/units/quantities';
import { usualDoubt } from '@wick/core/verdict/verdict';
import { materialOf } from './job/material-of.ts';
import type { LaidJob } from './job/laid.ts';
import { carried, USUAL_THICKNESS } from './job/entry-doubt.ts';
import { flowDoubt } from './laminate/doubt.ts';
import { hasFront, processOf, type Process } from './processes/processes.ts';
import { ambientOf } from './shop/ambient.ts';

/** The part of a job that values are settled from. */
export type Settling = Pick<
  LaidJob,
  'process' | 'resin' | 'vacuum' | 'doubt' | 'materials' | 'laminate' | 'layers'
>;

/** A value as entered, or what is taken where nobody has entered one. */
export interface Settled {
  readonly value: number;
  readonly from: 'entered' | 'assumed';
  /** Why this value is taken. */
  readonly reason: string;
}

interface Rule {
  readonly stage: 'lines' | 'resin';
  readonly label: string;
  readonly quantity: QuantityName;
  readonly entered: (job: Settling, shop: Shop) => number | null | undefined;
  readonly usual: (job: Settling, shop: Shop) => { readonly value: number; readonly reason: string };
  /** Named in the list of assumptions: what has a panel of its own is not, nor are hoses where there are none. */
  readonly isListed: boolean | ((job: Settling) => boolean);
}

/** A rule that needs nothing of the shop. */
interface JobRule extends Rule {
  readonly entered: (job: Settling) => number | null | undefined;
  readonly usual: (job: Settling) => { readonly value: number; readonly reason: string };
}

const fixed = (value: number, reason: string) => () => ({ value, reason });
const ofProcess = (key: keyof Process['usual'], reason: string) => (job: Settling) => ({
  value: processOf(job).usual[key],
  reason,
});

/** Reach of a doubt that nobody has entered for the job. */
const doubtRule = (
  key: keyof Job['doubt'],
  label: string,
  quantity: QuantityName,
  usual: (job: Settling) => number,
): JobRule => ({
  stage: 'lines',
  label,
  quantity,
  entered: ({ doubt }) => doubt[key],
  usual: (job) => ({ value: usual(job), reason: 'common practice' }),
  isListed: false,
});

/** What the resin's entry carries for one of its sides, else what is usual. */
function ofResin(job: Settling, side: 'viscosity' | 'gelTime'): number {
  const resin = materialOf(job, job.resin.materialId, 'resin');
  return resin ? carried(resin, side) : usualDoubt[side];
}

/** Widest that was measured here of how the fabrics press; else what is usual. */
function thicknessDoubt({ materials }: Settling): number {
  const own = materials.flatMap(({ learned }) => learned?.compaction?.doubt ?? []);
  return own.length > 0 ? 1 + Math.max(...own) : USUAL_THICKNESS;
}

const duration = (key: 'mixDuration' | 'degasDuration' | 'hoseFillDuration') => (job: Settling) =>
  job.resin[key];

/** What is taken where nobody has entered it, by path. Common practice, no source, unless the reason says more. */
const jobRules = {
  'resin.mixDuration': {
    stage: 'resin',
    label: 'Mixing',
    quantity: 'duration',
    entered: duration('mixDuration'),
    usual: fixed(120, 'common practice'),
    isListed: true,
  },
  'resin.degasDuration': {
    stage: 'resin',
    label: 'Degassing',
    quantity: 'duration',
    entered: duration('degasDuration'),
    usual: fixed(0, 'taken as not done'),
    isListed: true,
  },
  'resin.hoseFillDuration': {
    stage: 'resin',
    label: 'Filling the hose',
    quantity: 'duration',
    entered: duration('hoseFillDuration'),
    usual: ofProcess('hoseFillDuration', 'common practice'),
    isListed: hasFront,
  },
  'resin.hoseLength': {
    stage: 'resin',
    label: 'Feed hose',
    quantity: 'length',
    entered: ({ resin }) => resin.hoseLength,
    usual: ofProcess('hoseLength', 'common practice'),
    isListed: hasFront,
  },
  'resin.heel': {
    stage: 'resin',
    label: 'Heel in the pot',
    quantity: 'mass',
    entered: ({ resin }) => resin.heel,
    usual: fixed(0.4, 'keeps the hose end covered; from memory, 0.3 to 0.8 kg in a 10 L pot'),
    isListed: false,
  },
  'resin.mixers': {
    stage: 'resin',
    label: 'Batches mixed at once',
    quantity: 'number',
    entered: ({ resin }) => resin.mixers,
    usual: fixed(1, 'one pair of hands'),
    isListed: false,
  },
  'resin.scaleStep': {
    stage: 'resin',
    label: 'Step of the scale',
    quantity: 'mass',
    entered: ({ resin }) => resin.scaleStep,
    usual: fixed(0.001, 'a kitchen scale'),
    isListed: false,
  },
  /** Mixed, before cure; only weight, drawn masses and the ledger use it. */
  'resin.density': {
    stage: 'resin',
    label: 'Density of the resin',
    quantity: 'density',
    entered: (job) => materialOf(job, job.resin.materialId, 'resin')?.density,
    usual: fixed(1100, 'no resin is chosen yet'),
    isListed: false,
  },
  'vacuum.ventPressure': {
    stage: 'lines',
    label: 'Vacuum at the vent',
    quantity: 'absolutePressure',
    entered: ({ vacuum }) => vacuum.ventPressure,
    usual: (job) => {
      const sound = processOf(job).usual.ventPressure;
      const pump = materialOf(job, job.vacuum.pumpId, 'pump');
      return pump && pump.ultimatePressure > sound
        ? { value: pump.ultimatePressure, reason: `the best that ${pump.name} reaches` }
        : { value: sound, reason: 'a sound pump and bag' };
    },
    isListed: true,
  },
  /** Of the whole laminate; as its materials' entries carry it. */
  'doubt.permeability': doubtRule('permeability', 'Permeability', 'factor', flowDoubt),
  'doubt.viscosity': doubtRule('viscosity', 'Viscosity', 'factor', (job) => ofResin(job, 'viscosity')),
  'doubt.gelTime': doubtRule('gelTime', 'Gel time', 'factor', (job) => ofResin(job, 'gelTime')),
  'doubt.temperature': doubtRule(
    'temperature',
    'Temperature',
    'temperatureDifference',
    () => usualDoubt.temperature,
  ),
  'doubt.thickness': doubtRule('thickness', 'Thickness', 'factor', thicknessDoubt),
  'doubt.raceChance': doubtRule('raceChance', 'Race along a side', 'fraction', () => 0.15),
  'doubt.raceGap': doubtRule('raceGap', 'Gap of a race', 'thickness', () => 0.001),
} as const satisfies Record<string, JobRule>;

const shopRules = {
  'resin.temperature': {
    stage: 'resin',
    label: 'Resin temperature',
    quantity: 'temperature',
    entered: ({ resin }) => resin.temperature,
    usual: (_, shop) => ({ value: shop.temperature, reason: 'the workshop’s usual temperature' }),
    isListed: true,
  },
  'shop.ambientPressure': {
    stage: 'lines',
    label: 'Ambient pressure',
    quantity: 'absolutePressure',
    entered: (_, shop) => shop.ambientPressure,
    usual: (_, shop) => ({ value: ambientOf(shop), reason: 'standard atmosphere at the shop’s altitude' }),
    isListed: true,
  },
} as const satisfies Record<string, Rule>;

/** In the order in which they are listed. */
const rules = {
  'resin.temperature': shopRules['resin.temperature'],
  ...jobRules,
  'shop.ambientPressure': shopRules['shop.ambientPressure'],
};

export type SettledPath = keyof typeof rules;

/** Every value of a job that may be left blank, settled. */
export type Settlement = Readonly<Record<SettledPath, Settled>>;

/** Jobs and shops are never mutated, so what was settled once stays true. */
const known = new WeakMap<Settling, { shop: Shop; settled: Settlement }>();

/** The one place that says what is taken where a job or the shop leaves a blank. */
export function settle(job: Settling, shop: Shop): Settlement {
  const before = known.get(job);
  if (before?.shop === shop) return before.settled;
  const settled = Object.fromEntries(
    Object.entries<Rule>(rules).map(([path, rule]): [string, Settled] => {
      const entered = rule.entered(job, shop);
      return [
        path,
        entered == null
          ? { ...rule.usual(job, shop), from: 'assumed' }
          : { value: entered, from: 'entered', reason: 'as entered' },
      ];
    }),
  ) as Settlement;
  known.set(job, { shop, settled });
  return settled;
}

/** One value that depends on the job alone. */
export function settledIn(job: Settling, path: keyof typeof jobRules): number {
  const rule: JobRule = jobRules[path];
  return rule.entered(job) ?? rule.usual(job).value;
}

/** What would be taken if the value were left blank. */
export const usualFor = (path: SettledPath, job: Settling, shop: Shop): number =>
  (rules[path] as Rule).usual(job, shop).value;

/** A value that is settled where it is left blank. */
export const isSettled = (path: string): path is SettledPath => path in rules;

/** A value nobody entered, and what the forecast takes instead. */
export interface Assumption extends Settled {
  readonly path: SettledPath;
  readonly stage: Rule['stage'];
  readonly label: string;
  readonly quantity: QuantityName;
}

export function assumptionsOf(job: Settling, shop: Shop): Assumption[] {
  const settled = settle(job, shop);
  return Object.entries<Rule>(rules)
    .map(([path, { stage, label, quantity, isListed }]) => ({
      ...settled[path as SettledPath],
      path: path as SettledPath,
      stage,
      label,
      quantity,
      isListed,
    }))
    .filter(
      ({ from, isListed }) =>
        from === 'assumed' && (typeof isListed === 'function' ? isListed(job) : isListed),
    );
}
