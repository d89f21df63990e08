import { ModelError } from '../model-error.ts';

/** Triangles as they stand in a file: nine numbers each, the file's own unit. */
export type TriangleSoup = Float64Array;

const MOST_TRIANGLES = 400_000;

/**
 * Reads an STL file, binary or text.
 * @throws ModelError SURFACE_FILE when it is cut off, holds no triangle, or a number that is none
 */
export function readStl(bytes: Uint8Array): TriangleSoup {
  const view = new DataView(bytes.buffer, bytes.byteOffset, bytes.byteLength);
  const count = bytes.byteLength >= 84 ? view.getUint32(80, true) : 0;
  const isBinary = count > 0 && bytes.byteLength === 84 + 50 * count;
  if (isBinary) {
    requireCount(count);
    const soup = new Float64Array(9 * count);
    for (let t = 0; t < count; t++)
      for (let k = 0; k < 9; k++) soup[9 * t + k] = view.getFloat32(84 + 50 * t + 12 + 4 * k, true);
    return requireNumbers(soup);
  }
  if (!/^\s*solid/.test(asText(bytes.subarray(0, 200))))
    throw fileError(
      'The file is neither a text STL nor a complete binary one. It may have been cut off; export it again.',
    );
  const numbers: number[] = [];
  for (const [, x, y, z] of asText(bytes).matchAll(/vertex\s+(\S+)\s+(\S+)\s+(\S+)/g))
    numbers.push(Number(x), Number(y), Number(z));
  if (numbers.length % 9 !== 0)
    throw fileError('The last facet of the STL is not complete. Export it again.');
  requireCount(numbers.length / 9);
  return requireNumbers(Float64Array.from(numbers));
}

/** Only keywords and numbers are read, so plain bytes will do. */
function asText(bytes: Uint8Array): string {
  const parts: string[] = [];
  for (let i = 0; i < bytes.length; i += 8192)
    parts.push(String.fromCharCode(...bytes.subarray(i, i + 8192)));
  return parts.join('');
}

/** Reads the vertices and faces of an OBJ file; faces of more corners are split as fans. Errors as readStl. */
export function readObj(text: string): TriangleSoup {
  const vertices: number[][] = [];
  const numbers: number[] = [];
  text.split(/\r?\n/).forEach((line, n) => {
    const [word, ...rest] = line.trim().split(/\s+/);
    if (word === 'v') vertices.push(rest.slice(0, 3).map(Number));
    else if (word === 'f') {
      const corners = rest.map((item) => {
        const index = Number(item.split('/')[0]);
        const corner = vertices[index < 0 ? vertices.length + index : index - 1];
        if (!corner)
          throw fileError(
            `Line ${n + 1} of the OBJ names vertex ${item}, which is not there. Export it again.`,
          );
        return corner;
      });
      for (let k = 1; k + 1 < corners.length; k++)
        numbers.push(...corners[0], ...corners[k], ...corners[k + 1]);
    }
  });
  requireCount(numbers.length / 9);
  return requireNumbers(Float64Array.from(numbers));
}

function requireCount(count: number) {
  if (count === 0) throw fileError('The file holds no triangle. Export the surface, not only its outline.');
  if (count > MOST_TRIANGLES)
    throw fileError(
      `The surface has ${count} triangles; ${MOST_TRIANGLES} can be read. Export it with a coarser tolerance.`,
    );
}

function requireNumbers(soup: Float64Array): Float64Array {
  const bad = soup.findIndex((value) => !Number.isFinite(value));
  if (bad >= 0)
    throw fileError(
      `Triangle ${Math.floor(bad / 9) + 1} has a corner that is not a number. Export the surface again.`,
    );
  return soup;
}

const fileError = (message: string) => new ModelError('SURFACE_FILE', message);
