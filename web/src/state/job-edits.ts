import type { Point } from '@wick/core/geometry/polygon';
import type { Job, JobAction, JobLine, JobVariant } from '@wick/contract/job';
import type { Material } from '@wick/contract/materials';

/** Pure edits of a job document; each returns a new one and keeps the materials list to what is used. */
export type Edit = (job: Job) => Job;

export const withPart =
  (part: Partial<Job['part']>): Edit =>
  (job) => ({ ...job, part: { ...job.part, ...part } });

export const withResin =
  (resin: Partial<Job['resin']>): Edit =>
  (job) => ({ ...job, resin: { ...job.resin, ...resin } });

export const updateLine =
  (id: string, changes: Partial<JobLine>): Edit =>
  (job) => ({ ...job, lines: job.lines.map((line) => (line.id === id ? { ...line, ...changes } : line)) });

export const moveLine =
  (id: string, by: Point): Edit =>
  (job) => ({
    ...job,
    lines: job.lines.map((line) =>
      line.id === id ? { ...line, points: line.points.map((p) => shift(p, by)) } : line,
    ),
  });

export const moveLinePoint =
  (id: string, index: number, to: Point): Edit =>
  (job) => ({
    ...job,
    lines: job.lines.map((line) =>
      line.id === id
        ? { ...line, points: line.points.map((p, i) => (i === index ? roundPoint(to) : p)) }
        : line,
    ),
  });

/** A line goes with every action that waits for it. */
export const removeLine =
  (id: string): Edit =>
  (job) =>
    withoutTriggersOn(id, { ...job, lines: job.lines.filter((line) => line.id !== id) });

/** Actions that wait for a line, mark or zone that goes, go with it. */
export function withoutTriggersOn(id: string, job: Job): Job {
  const stays = ({ when }: JobAction) =>
    (!('what' in when) || when.what !== id) && (when.kind !== 'zoneFull' || when.zone !== id);
  const cleaned = (lines: Job['lines']) =>
    lines.map((line) => ({ ...line, actions: line.actions.filter(stays) }));
  const isOwn = ({ lines, brakes }: JobVariant) => [...lines, ...brakes].some((item) => item.id === id);
  return {
    ...job,
    lines: cleaned(job.lines),
    // A layout that waits and has a line of that name itself goes on waiting for that one.
    variants: job.variants.map((variant) =>
      isOwn(variant) ? variant : { ...variant, lines: cleaned(variant.lines) },
    ),
  };
}

const words = { feed: 'Feed', vent: 'Vent', race: 'Race edge' };

/** A new line named after its kind and number: "Feed 2". The first feed opens at the start, further ones when the front has passed them. */
export function newLine(job: Job, kind: JobLine['kind'], points: readonly Point[]): JobLine {
  const word = words[kind];
  let number = 1;
  while (job.lines.some((line) => line.id === `${kind}-${number}` || line.name === `${word} ${number}`))
    number += 1;
  const id = `${kind}-${number}`;
  const waits = kind === 'feed' && job.lines.some((line) => line.kind === 'feed');
  return {
    id,
    kind,
    name: `${word} ${number}`,
    points: points.map(roundPoint),
    bore: kind === 'race' ? 0.001 : 0.012,
    hoseLength: null,
    hoseBore: null,
    stockId: null,
    hoseId: null,
    tee: null,
    stationId: null,
    inlet: 0.5,
    potLevel: null,
    startsOpen: !waits,
    actions: waits ? [{ opening: 1, when: { kind: 'passed', what: id, distance: 0, delay: 0 } }] : [],
    pinned: false,
  };
}

export const addMark =
  (at: Point): Edit =>
  (job) => {
    let number = 1;
    while (job.marks.some((mark) => mark.id === `mark-${number}`)) number += 1;
    return {
      ...job,
      marks: [...job.marks, { id: `mark-${number}`, name: `Mark ${number}`, ...roundPoint(at) }],
    };
  };

export const removeMark =
  (id: string): Edit =>
  (job) =>
    withoutTriggersOn(id, { ...job, marks: job.marks.filter((mark) => mark.id !== id) });

export const moveMark =
  (id: string, by: Point): Edit =>
  (job) => ({
    ...job,
    marks: job.marks.map((mark) => (mark.id === id ? { ...mark, ...shift(mark, by) } : mark)),
  });

export const withForecast =
  (forecast: Partial<Job['forecast']>): Edit =>
  (job) => ({ ...job, forecast: { ...job.forecast, ...forecast } });

/** Changes the job's own copy of a material. */
export const editMaterial =
  (material: Material): Edit =>
  (job) => ({ ...job, materials: job.materials.map((old) => (old.id === material.id ? material : old)) });

export const withDoubt =
  (doubt: Partial<Job['doubt']>): Edit =>
  (job) => ({ ...job, doubt: { ...job.doubt, ...doubt } });

export const withResinSystem =
  (resin: Material): Edit =>
  (job) =>
    keepUsed({ ...job, resin: { ...job.resin, materialId: resin.id } }, [resin]);

/** The job's own copies come first: a job keeps the values it was computed with. */
export function keepUsed(job: Job, added: readonly Material[]): Job {
  const laminates = [job.laminate, ...job.zones.map((zone) => zone.laminate)];
  const used = new Set([
    ...laminates.flatMap(({ plies, coreId, flowMeshId, peelPlyId }) => [
      ...plies.map((ply) => ('through' in ply ? null : ply.materialId)),
      coreId,
      flowMeshId,
      peelPlyId,
    ]),
    job.resin.materialId,
    ...[job, ...job.variants].flatMap(({ lines }) =>
      lines.flatMap(({ stockId, hoseId }) => [stockId, hoseId]),
    ),
    ...job.variants.flatMap(({ brakes }) =>
      brakes.flatMap(({ laminate: { plies, coreId, flowMeshId, peelPlyId } }) => [
        ...plies.map((ply) => ('through' in ply ? null : ply.materialId)),
        coreId,
        flowMeshId,
        peelPlyId,
      ]),
    ),
  ]);
  const own = job.materials.filter((material) => used.has(material.id));
  const fresh = added.filter(
    (material) => used.has(material.id) && !own.some((known) => known.id === material.id),
  );
  return { ...job, materials: [...own, ...fresh] };
}

/** Positions are kept to a tenth of a millimetre. */
export const roundPoint = ({ x, y }: Point): Point => ({
  x: Math.round(x * 1e4) / 1e4,
  y: Math.round(y * 1e4) / 1e4,
});
export const shift = (p: Point, by: Point): Point => roundPoint({ x: p.x + by.x, y: p.y + by.y });

/** An id that nothing on the plan or in the plies has yet: "zone-3". */
export function freshId(job: Job, word: string): string {
  const taken = new Set([
    ...[
      ...job.lines,
      ...job.marks,
      ...job.tees,
      ...job.stations,
      ...job.meshAreas,
      ...job.zones,
      ...job.part.features,
      ...job.laminate.plies,
    ].map(({ id }) => id),
    ...[...job.zones, ...job.variants.flatMap(({ brakes }) => brakes)].flatMap(({ id, laminate }) => [
      id,
      ...laminate.plies.map((ply) => ('through' in ply ? '' : ply.id)),
    ]),
  ]);
  let number = 1;
  while (taken.has(`${word}-${number}`)) number += 1;
  return `${word}-${number}`;
}
