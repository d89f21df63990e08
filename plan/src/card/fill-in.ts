import type { Shop } from '@wick/contract/shop';
import type { Step } from '@wick/contract/steps';
import type { Point } from '@wick/core/geometry/polygon';
import { bagOf } from '../bag/bag.ts';
import type { LaidJob } from '../job/laid.ts';
import { materialOf } from '../job/material-of.ts';
import { plyCutsOf } from '../laminate/ply-book.ts';
import { booksOf } from '../laminate/books.ts';
import { valveScript } from '../layout/valve-script.ts';
import { shownIn } from '../shop/units.ts';
import { layerWord } from '../stack/kinds.ts';
import type { Tick, Wait } from './step.ts';
import { cornersUnder, cornerTicks } from './corners.ts';
import type { LaidCoat } from './release.ts';
import { filmAfter } from './surface.ts';

/** What a job has for a step. */
export interface Filled {
  /** Among those of its step; empty where there is one. */
  readonly key: string;
  readonly what: string;
  readonly detail: string;
  readonly aboutId: string | null;
  readonly places: readonly Point[];
  readonly ticks: readonly Tick[];
  readonly waits: readonly Omit<Wait, 'endsWith'>[];
}

interface From {
  readonly job: LaidJob;
  readonly shop: Shop;
  readonly coats: readonly LaidCoat[];
}

const filled = (key: string, what: string, changes: Partial<Filled> = {}): Filled => ({
  ...{ key, what, detail: '', aboutId: null, places: [], ticks: [], waits: [] },
  ...changes,
});
const degrees = (angle: number) => `${Math.round((angle * 180) / Math.PI)}°`;

/** Everything that a job has for a kind of step, in the order of work. */
export function fillIn(each: Step['each'], from: From): Filled[] {
  return fillers[each](from);
}

const fillers: Readonly<Record<Step['each'], (from: From) => Filled[]>> = {
  once: () => [filled('', '')],
  mouldFace: ({ job }) => (job.showFace === 'bag' ? [] : [filled('', '')]),
  bagFace: ({ job }) => (job.showFace === 'bag' ? [filled('', '')] : []),
  core: ({ job }) => {
    const core = materialOf(job, job.laminate.coreId, 'core');
    return core ? [filled('', '', { detail: core.name })] : [];
  },
  coat: ({ coats }) => coats.map(coatStep),
  gelPass: ({ job, shop }) => gelPasses(job, shop),
  ply: ({ job }) => plies(job),
  layer: ({ job }) =>
    job.layers
      .filter(({ kind }) => !['lines', 'sealantTape', 'bag'].includes(kind))
      .map((layer) =>
        filled(layer.id, layerWord(layer.kind), {
          detail: job.materials.find(({ id }) => id === layer.materialId)?.name ?? '',
          aboutId: layer.id,
        }),
      ),
  line: ({ job }) =>
    job.lines
      .filter(({ kind }) => kind !== 'race')
      .map(({ id, name, kind, points }) =>
        filled(id, name, { detail: kind === 'vent' ? 'vent' : 'feed', aboutId: id, places: points }),
      ),
  pleat: ({ job, shop }) =>
    bagOf(job, shop).pleats.map(({ name, height, place, featureId }, n) =>
      filled(String(n + 1), `${n + 1}: ${name}`, {
        detail: `${shownIn(shop)(height, 'length')} high`,
        aboutId: featureId,
        places: [place],
      }),
    ),
  pull: ({ job, shop }) =>
    bagOf(job, shop).pullDown.map((words, n) => filled(String(n + 1), `${n + 1}`, { detail: words })),
  batch: ({ job }) =>
    Array.from({ length: Math.max(1, job.resin.batches.length) }, (_, n) =>
      filled(String(n + 1), job.resin.batches.length > 1 ? `batch ${n + 1}` : '', {
        aboutId: job.resin.batches[n]?.id ?? null,
      }),
    ),
  valve: ({ job, shop }) =>
    valveScript(job, null, { clockTime: (time) => time, show: shownIn(shop) }).map(
      ({ lineId, actionId, order, cue }) =>
        filled(actionId ?? `${lineId}-start`, order, { detail: cue, aboutId: lineId }),
    ),
};

function coatStep({ name, number, count, haze, opens, closes, isLast }: LaidCoat): Filled {
  const waits = [
    ...(haze === null
      ? []
      : [{ word: `${name} ${number} has hazed: wipe it`, opens: haze, closes: null, temperature: null }]),
    ...(opens > 0 || closes !== null
      ? [
          {
            word: isLast ? 'Release is ready' : `Next after ${name.toLowerCase()} ${number}`,
            opens,
            closes,
            temperature: null,
          },
        ]
      : []),
  ];
  return filled(
    `${name.toLowerCase().replace(/[^a-z0-9]+/g, '-')}-${number}`,
    `${name.toLowerCase()}, coat ${number} of ${count}`,
    { waits },
  );
}

function gelPasses({ prep: { gelCoat } }: LaidJob, shop: Shop): Filled[] {
  if (!gelCoat) return [];
  const { passes, name } = gelCoat;
  const show = shownIn(shop);
  return Array.from({ length: passes }, (_, n) => {
    const { low, high } = filmAfter(gelCoat, n + 1);
    return filled(String(n + 1), `pass ${n + 1} of ${passes}`, {
      detail: `${name}, wet film ${show(low, 'thickness')} to ${show(high, 'thickness')} by then`,
    });
  });
}

function plies(job: LaidJob): Filled[] {
  const books = booksOf(job);
  const cuts = plyCutsOf(job);
  const cornersOf = cornersUnder(job);
  return cuts.map(({ plyId, book, name, angle, region }, n) =>
    filled(plyId, `ply ${n + 1} of ${cuts.length}`, {
      detail: `${name}, ${degrees(angle)}, ${book === 0 ? 'whole part' : books[book]!.name}`,
      aboutId: plyId,
      ticks: cornerTicks(cornersOf(region), plyId),
    }),
  );
}
