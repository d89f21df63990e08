import { shallowRef } from 'vue';

/** A file that was dropped and waits for the screen that can take it. */
export const incomingDrawing = shallowRef<File | null>(null);
export const incomingLibrary = shallowRef<File | null>(null);

export type FileKind = 'job' | 'drawing' | 'library' | 'unknown';

/** What a dropped file is, by its name. */
export function kindOfFile(name: string): FileKind {
  const extension = name.toLowerCase().split('.').pop();
  if (extension === 'json') return 'job';
  if (['dxf', 'svg', 'geojson'].includes(extension ?? '')) return 'drawing';
  return ['csv', 'xlsx'].includes(extension ?? '') ? 'library' : 'unknown';
}
