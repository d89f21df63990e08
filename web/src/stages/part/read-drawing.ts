import { MAX_DRAWING_BYTES, refuse, type Drawing } from '@wick/contract/drawings/drawing';
import { readDxf } from '@wick/contract/drawings/dxf-in';
import { readGeoJson } from '@wick/contract/drawings/geojson-in';
import { readSvg } from '@wick/contract/drawings/svg-in';
import type { Read } from '@wick/contract/job-file';

export { likelyRole, partOfDrawing } from '@wick/contract/drawings/drawing';

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
