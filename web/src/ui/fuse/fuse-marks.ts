export interface FuseMark {
  readonly label: string;
  readonly time: number;
  readonly kind: 'step' | 'fill' | 'gel';
}

export interface PlacedMark extends FuseMark {
  readonly x: number;
  readonly anchor: 'start' | 'middle' | 'end';
}

/** What happens from first mix to gel, in order; steps that take no time are left out. */
export function fuseMarks(facts: {
  before: { mixed: number; degassed: number; open: number };
  events: readonly { name: string; kind: string; time: number }[];
  /** When further batches are mixed; none where there is one. */
  batches?: readonly number[];
  fill: number | null;
  /** To when the resin is thin enough to run by, as the workshop judges it; null where that is not known. */
  usable: number | null;
  gel: number;
  /** What ends it there, gel unless told. */
  endName?: string;
}): FuseMark[] {
  const { before, events, batches = [], fill, usable, gel, endName = 'gel' } = facts;
  const marks: FuseMark[] = [{ label: 'first mix', time: 0, kind: 'step' }];
  if (before.degassed > before.mixed) marks.push({ label: 'mixed', time: before.mixed, kind: 'step' });
  if (before.open > before.degassed && before.degassed > 0)
    marks.push({ label: 'fill hose', time: before.degassed, kind: 'step' });
  batches.forEach((time, n) => {
    if (time > 0 && time < gel) marks.push({ label: `mix batch ${n + 1}`, time, kind: 'step' });
  });
  for (const { name, kind, time } of events)
    if (kind === 'opens' && time < gel) marks.push({ label: `open ${name}`, time, kind: 'step' });
  if (usable !== null && usable < gel) marks.push({ label: 'usable to', time: usable, kind: 'step' });
  if (fill !== null) marks.push({ label: 'last corner', time: fill, kind: 'fill' });
  marks.push({ label: endName, time: gel, kind: 'gel' });
  return marks.sort((a, b) => a.time - b.time);
}

const LETTER = 6.2;

/** Gives each label its place so that none overlaps its neighbour; a label with no room is dropped, never the fill or gel. */
export function placeLabels(marks: readonly FuseMark[], xOf: (time: number) => number): PlacedMark[] {
  const placed: (PlacedMark & { from: number; to: number })[] = [];
  const important = marks.filter((mark) => mark.kind !== 'step').reverse();
  const steps = [
    ...marks.filter((mark) => mark.label.startsWith('open ')),
    ...marks.filter((mark) => mark.kind === 'step' && !mark.label.startsWith('open ')),
  ];
  for (const mark of [...important, ...steps]) {
    const width = Math.max(30, mark.label.length * LETTER);
    const x = xOf(mark.time);
    const options = [
      { anchor: 'start' as const, x: x + 3, from: x, to: x + width + 6 },
      { anchor: 'end' as const, x: x - 3, from: x - width - 6, to: x },
    ];
    const free = options.find(
      ({ from, to }) => from >= 0 && placed.every((other) => to <= other.from || from >= other.to),
    );
    if (free) placed.push({ ...mark, ...free });
    else if (mark.kind !== 'step') placed.push({ ...mark, ...options[1]! });
  }
  return placed;
}
