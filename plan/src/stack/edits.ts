import {
  BASE,
  type JobArea,
  type JobLayer,
  type LayerCovers,
  type LayerKind,
} from '@wick/contract/job/stack';
import type { Material } from '@wick/contract/materials';
import type { Edit } from '../job/edits.ts';
import { newId } from '../job/ids.ts';
import { keepUsed } from '../job/materials.ts';
import { onLayout } from '../layout/edits.ts';
import { inOrder, rankOf } from './order.ts';
import { FILM_LAP, PATCH, STRIP, TAPE } from './usual.ts';

/** Edits of what lies on the plies in the layout that is worked on. */

/** Where a layer lies unless told. */
const OVER_ALL: LayerCovers & { kind: 'part' } = { kind: 'part', edge: 0, feed: null, vent: null };

/** As a kind is usually laid. */
export function newLayer(kind: LayerKind, materialId: string | null = null, id: string = newId()): JobLayer {
  return {
    ...{ id, kind, materialId, covers: usualCovers(kind), except: [] },
    ...{ lap: kind === 'perforatedFilm' ? FILM_LAP : 0, side: 'bag', uses: null },
  };
}

/** A kind of cover as it is usual for a kind of layer, or else at all. */
export function usualCoversFor(covers: LayerCovers['kind'], kind: LayerKind): LayerCovers {
  const own = usualCovers(kind);
  return own.kind === covers ? own : PLAIN_COVERS[covers];
}

const PLAIN_COVERS: Readonly<Record<LayerCovers['kind'], LayerCovers>> = {
  part: OVER_ALL,
  areas: { kind: 'areas', areas: [] },
  lines: { kind: 'lines', of: 'both', width: STRIP },
  ports: { kind: 'ports', width: PATCH },
  rim: { kind: 'rim', ...TAPE },
};

function usualCovers(kind: LayerKind): LayerCovers {
  switch (kind) {
    case 'lines':
      return { kind: 'lines', of: 'both', width: 0.02 };
    case 'doubleTape':
    case 'flashTape':
    case 'sealantTape':
      return { kind: 'rim', ...TAPE };
    case 'bag':
      return { ...OVER_ALL, edge: TAPE.to };
    case 'peelPly':
      return { ...OVER_ALL, edge: 0.01 };
    case 'releaseFilm':
      return { kind: 'lines', of: 'feed', width: STRIP };
    default:
      return OVER_ALL;
  }
}

/** Where it usually lies in the order. */
export const addLayer =
  (layer: JobLayer, material: Material | null = null): Edit =>
  (job) => {
    const rank = ({ kind }: JobLayer) => rankOf(kind, job.process);
    const laid = onLayout(({ layers }) => {
      const at = layers.findIndex((other) => rank(other) > rank(layer));
      const after = [...layers];
      after.splice(at < 0 ? layers.length : at, 0, layer);
      return { layers: after };
    });
    return withMaterial(material, laid)(job);
  };

const withMaterial =
  (material: Material | null, edit: Edit): Edit =>
  (job) =>
    keepUsed(edit(job), material ? [material] : []);

export const updateLayer = (
  id: string,
  changes: Partial<Omit<JobLayer, 'id'>>,
  material: Material | null = null,
): Edit =>
  withMaterial(
    material,
    onLayout(({ layers }) => ({
      layers: layers.map((layer) => (layer.id === id ? { ...layer, ...changes } : layer)),
    })),
  );

/** Changes where a layer lies, whatever kind of cover it has. */
export const withCovers = (id: string, change: (covers: LayerCovers) => LayerCovers): Edit =>
  onLayout(({ layers }) => ({
    layers: layers.map((layer) => (layer.id === id ? { ...layer, covers: change(layer.covers) } : layer)),
  }));

export const putInOrder: Edit = (job) =>
  onLayout(({ layers }) => ({ layers: inOrder(layers, job.process) }))(job);

/** One place up or down in the order of laying. */
export const moveLayer = (id: string, by: 1 | -1): Edit =>
  onLayout(({ layers }) => {
    const from = layers.findIndex((layer) => layer.id === id);
    const after = [...layers];
    const [layer] = after.splice(from, 1);
    after.splice(Math.max(0, Math.min(after.length, from + by)), 0, layer!);
    return { layers: after };
  });

export const removeLayer = (id: string): Edit =>
  withMaterial(
    null,
    onLayout(({ layers }) => ({ layers: layers.filter((layer) => layer.id !== id) })),
  );

/** Some layers of the layout worked on are left off on a zone or brake. */
export const leaveOff = (zoneId: string | null, isMeant: (layer: JobLayer) => boolean): Edit =>
  onLayout(({ layers }) => ({
    layers: layers.map((layer) =>
      isMeant(layer) && !layer.except.includes(zoneId ?? BASE)
        ? { ...layer, except: [...layer.except, zoneId ?? BASE] }
        : layer,
    ),
  }));

/** A zone that goes is named by no layer of any layout. */
export const forget =
  (zoneId: string): Edit =>
  (job) => ({
    ...job,
    layouts: job.layouts.map((layout) => ({
      ...layout,
      layers: layout.layers.map((layer) =>
        layer.except.includes(zoneId)
          ? { ...layer, except: layer.except.filter((id) => id !== zoneId) }
          : layer,
      ),
    })),
  });

/** Changes the drawn areas of every layer that has some. */
export const onAreas = (change: (area: JobArea) => JobArea | null): Edit =>
  onLayout(({ layers }) => ({
    layers: layers.map((layer) =>
      layer.covers.kind === 'areas'
        ? {
            ...layer,
            covers: {
              kind: 'areas',
              areas: layer.covers.areas.map(change).filter((area) => area !== null),
            },
          }
        : layer,
    ),
  }));
