import { claims, idsIn, type Claims } from './claims.ts';
import { each, isRecord, records, type Raw } from './raw.ts';

/**
 * Version 7 has one list of what lies on the plies, in each layout: the flow mesh, peel ply and perforated film that each
 * laminate named, and the areas that mesh was held to, became layers of it. A layer is left off where a laminate did not name
 * it, so that the forecast stays the same. Lines, sealant tape and bag were understood; they stand in the list now.
 */
export function fromVersion6(raw: Raw): Raw {
  const claim = claims();
  for (const id of idsIn(raw)) claim.take(id);
  const { part, laminate, zones, layouts, resin } = raw;
  return {
    ...raw,
    version: 7,
    bondFace: null,
    part: isRecord(part)
      ? { ...part, sections: [], features: each(part.features, (own) => ({ ...own, angle: null })) }
      : part,
    resin: isRecord(resin) ? { cureTemperature: null, ...resin } : resin,
    laminate: plain(laminate),
    zones: each(zones, plainZone),
    layouts: each(layouts, (layout) => {
      const { meshAreas, ...rest } = layout;
      const books = booksOf({ laminate, zones }, layout);
      return {
        ...rest,
        brakes: each(layout.brakes, plainZone),
        layers: layersOf({ process: raw.process, books, meshAreas: records(meshAreas) }, claim),
      };
    }),
  };
}

interface Book {
  readonly id: string;
  readonly laminate: Raw;
}

const booksOf = ({ laminate, zones }: Raw, { brakes }: Raw): Book[] => [
  { id: 'base', laminate: isRecord(laminate) ? laminate : {} },
  ...[...records(zones), ...records(brakes)].map(({ id, laminate: own }) => ({
    id: String(id),
    laminate: isRecord(own) ? own : {},
  })),
];

const FROM = [
  ['peelPly', 'peelPlyId'],
  ['perforatedFilm', 'filmId'],
  ['flowMesh', 'flowMeshId'],
] as const;

const OVER_ALL = { kind: 'part', edge: 0, feed: null, vent: null };
const ROUND = { kind: 'rim', from: 0.03, to: 0.042 };
const layerOf = (
  id: string,
  kind: string,
  covers: unknown,
  materialId: string | null = null,
  except: readonly string[] = [],
) => ({ id, kind, materialId, covers, except, lap: 0, side: 'bag', uses: null });

function layersOf(
  { process, books, meshAreas }: { process: unknown; books: readonly Book[]; meshAreas: Raw[] },
  claim: Claims,
): unknown[] {
  const layers = FROM.flatMap(([kind, key]) => {
    const named = new Set(books.map(({ laminate }) => laminate[key]).filter((id) => typeof id === 'string'));
    return [...named].map((materialId, n) => {
      const covers = kind === 'flowMesh' && meshAreas.length > 0 ? areasIn(meshAreas, n, claim) : OVER_ALL;
      const except = books.filter(({ laminate }) => laminate[key] !== materialId).map(({ id }) => id);
      return layerOf(claim.next(kind), kind, covers, materialId, except);
    });
  });
  // Areas that were drawn before a mesh was chosen are kept for it.
  const hasMesh = layers.some(({ kind }) => kind === 'flowMesh');
  if (meshAreas.length > 0 && !hasMesh)
    layers.push(layerOf(claim.next('flowMesh'), 'flowMesh', areasIn(meshAreas, 0, claim)));
  if (process === 'closedMould') return layers;
  const isDrawn = process === 'infusion';
  return [
    ...layers,
    ...(isDrawn ? [layerOf(claim.next('lines'), 'lines', { kind: 'lines', of: 'both', width: 0.02 })] : []),
    layerOf(claim.next('sealantTape'), 'sealantTape', ROUND),
    layerOf(claim.next('bag'), 'bag', { ...OVER_ALL, edge: ROUND.to }),
  ];
}

/** The first layer takes the areas as they are, any further one copies of its own. */
const areasIn = (areas: readonly Raw[], n: number, claim: Claims) => ({
  kind: 'areas',
  areas: n === 0 ? areas : areas.map((area) => ({ ...area, id: claim.next(String(area.id)) })),
});

function plain(laminate: unknown): unknown {
  if (!isRecord(laminate)) return laminate;
  const { flowMeshId: _, peelPlyId: __, filmId: ___, ...rest } = laminate;
  return rest;
}

const plainZone = (zone: Raw): Raw => ({ ...zone, laminate: plain(zone.laminate) });
