import type { Job, JobLayout, JobZone } from '@wick/contract/job/job';

/** A zone of the part, or a brake of the layout. */
export interface LaidZone extends JobZone {
  readonly purpose: 'part' | 'brake';
}

/** A job with one of its layouts laid on: what a forecast is made of, and what most questions are about. */
export interface LaidJob
  extends
    Omit<Job, 'zones' | 'layouts' | 'currentLayoutId'>,
    Pick<JobLayout, 'lines' | 'tees' | 'stations' | 'layers'> {
  readonly layout: Pick<JobLayout, 'id' | 'letter' | 'name'>;
  /** Later ones lie over earlier ones; brakes lie over all zones of the part. */
  readonly zones: LaidZone[];
}

/** Jobs are never mutated, so what was laid out once stays true. */
const known = new WeakMap<Job, Map<string, LaidJob>>();

/** The job with a layout laid on; the one worked on when none is named, or the first where that is gone. */
export function laidOut(job: Job, layoutId: string = job.currentLayoutId): LaidJob {
  let own = known.get(job);
  if (!own) known.set(job, (own = new Map()));
  let laid = own.get(layoutId);
  if (!laid) own.set(layoutId, (laid = lay(job, layoutById(job, layoutId))));
  return laid;
}

const layoutById = (job: Job, id: string): JobLayout =>
  job.layouts.find((layout) => layout.id === id) ?? job.layouts[0]!;

export const currentLayout = (job: Job): JobLayout => layoutById(job, job.currentLayoutId);

function lay(job: Job, layout: JobLayout): LaidJob {
  const { zones, layouts: _, currentLayoutId: __, ...shared } = job;
  const { id, letter, name, brakes, lines, tees, stations, layers } = layout;
  return {
    ...shared,
    layout: { id, letter, name },
    lines,
    tees,
    stations,
    layers,
    zones: [
      ...zones.map((zone): LaidZone => ({ ...zone, purpose: 'part' })),
      ...brakes.map((zone): LaidZone => ({ ...zone, purpose: 'brake' })),
    ],
  };
}

/** What was laid, as a layout again. */
export function layoutOf(laid: LaidJob): JobLayout {
  const { layout, lines, tees, stations, layers, zones } = laid;
  const brakes = zones.filter(({ purpose }) => purpose === 'brake').map(plainZone);
  return { ...layout, lines, tees, stations, layers, brakes };
}

/** A job with this layout alone. */
export function jobOf(laid: LaidJob): Job {
  const { layout, lines: _, tees: __, stations: ___, layers: ____, zones, ...shared } = laid;
  return {
    ...shared,
    zones: zones.filter(({ purpose }) => purpose === 'part').map(plainZone),
    layouts: [layoutOf(laid)],
    currentLayoutId: layout.id,
  };
}

const plainZone = ({ purpose: _, ...zone }: LaidZone): JobZone => zone;
