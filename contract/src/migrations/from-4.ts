import { claims, idsIn, type Claims } from './claims.ts';
import { each, isRecord, records, type Raw } from './raw.ts';

/**
 * Version 5 made a list of the layouts, gave each its own brakes, and everything an id of its own: two layouts no longer share
 * theirs. New ids follow from the old ones, so that a document comes out the same however often it is read. Results went out
 * of the document.
 */
export function fromVersion4(raw: Raw): Raw {
  const { part, resin, zones, layout, lines, tees, stations, meshAreas, variants, ...rest } = raw;
  const isBrake = (zone: Raw) => zone.purpose === 'brake';
  const claim = claims();
  const shared = records(zones).filter((zone) => !isBrake(zone));
  const current = isRecord(layout) ? layout : {};
  const own = { lines, tees, stations, meshAreas, brakes: records(zones).filter(isBrake) };
  for (const id of [...idsIn(rest), ...idsIn(part), ...idsIn(shared), ...idsIn(own)]) claim.take(id);
  const currentLayoutId = claim.next(`layout-${String(current.letter)}`);
  const layouts = [
    { id: currentLayoutId, letter: current.letter, name: current.name, ...layoutOf(own, claim) },
    ...records(variants).map(({ letter, name, outcome: _, ...laid }) => ({
      id: claim.next(`layout-${String(letter)}`),
      letter,
      name,
      ...layoutOf(renamed(laid, String(letter), claim), claim),
    })),
  ];
  return {
    ...rest,
    version: 5,
    part: isRecord(part)
      ? {
          ...part,
          holes: Array.isArray(part.holes)
            ? part.holes.map((outline: unknown, n) => ({ id: claim.next(`hole-${n + 1}`), outline }))
            : part.holes,
        }
      : part,
    zones: Array.isArray(zones) ? shared.map(withoutPurpose) : zones,
    layouts: layouts.sort((a, b) => (String(a.letter) < String(b.letter) ? -1 : 1)),
    currentLayoutId,
    resin: isRecord(resin)
      ? {
          ...resin,
          batches: each(resin.batches, (batch, n) => ({ id: claim.next(`batch-${n + 1}`), ...batch })),
        }
      : resin,
  };
}

const withoutPurpose = ({ purpose: _, ...zone }: Raw): Raw => zone;

/** Lines with an id for each action, brakes without a purpose. */
function layoutOf({ lines, tees, stations, meshAreas, brakes }: Raw, claim: Claims): Raw {
  return {
    lines: each(lines, (line) => ({
      ...line,
      actions: each(line.actions, (action, n) => ({
        id: claim.next(`${String(line.id)}-act-${n + 1}`),
        ...action,
      })),
    })),
    tees,
    stations,
    meshAreas,
    brakes: each(brakes, withoutPurpose),
  };
}

/** A layout whose ids are taken elsewhere under new ones, its own references with them. */
function renamed(layout: Raw, letter: string, claim: Claims): Raw {
  const now = new Map<unknown, string>();
  for (const id of idsIn(layout)) now.set(id, claim.next(`${letter}-${String(id)}`));
  const own = (id: unknown) => now.get(id) ?? id;
  const change = (value: unknown): unknown => {
    if (Array.isArray(value)) return value.map(change);
    if (!isRecord(value)) return value;
    return Object.fromEntries(
      Object.entries(value).map(([key, item]) => [key, REFERENCES.has(key) ? own(item) : change(item)]),
    );
  };
  return change(layout) as Raw;
}

/** Fields of a layout that hold the id of something. */
const REFERENCES = new Set(['id', 'tee', 'stationId', 'what', 'zone', 'through']);
