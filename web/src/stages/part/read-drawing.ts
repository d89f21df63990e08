import type { Read } from '@wick/plan/files/read';
import { MAX_DRAWING_BYTES, refuse, type Drawing } from '@wick/plan/files/drawings/drawing';
import { readDxf } from '@wick/plan/files/drawings/dxf-in';
import { readGeoJson } from '@wick/plan/files/drawings/geojson-in';
import { readSvg } from '@wick/plan/files/drawings/svg-in';

export { likelyRole, partOfDrawing } from '@wick/plan/files/drawings/drawing';

/** Reads a drawing by the ending of its name. */
export async function readDrawing(file: File): Promise<Read<Drawing>> {
  if (file.size > MAX_DRAWING_BYTES)
    return refuse('It is larger than 8 MB. Save only the part’s outline and import that.');
  const text = await file.text();
  const ending = file.name.toLowerCase().split('.').pop();
  if (ending === 'dxf') return readDxf(text);
  if (ending === 'svg') return readSvg(text);
  if (ending === 'geojson' || ending === 'json') return readGeoJson(text);
  return refuse('Drawings are read as DXF, SVG or GeoJSON. Save it as one of these.');
}
