import type { Mesh } from '../geometry/mesh.ts';
import type { NodalField } from './vtu.ts';

/** One row a mesh node: place in m, then the fields; empty where there is no value. Checked by results.test.ts. */
export function writeNodesCsv({ nodeCount, positions }: Mesh, fields: readonly NodalField[]): string {
  const head = ['x_m', 'y_m', 'z_m', ...fields.map(({ name }) => name)].map(quoted).join(',');
  const cell = (value: number) => (Number.isFinite(value) ? String(value) : '');
  const rows = Array.from({ length: nodeCount }, (_, i) =>
    [...positions.subarray(3 * i, 3 * i + 3), ...fields.map(({ values }) => values[i])].map(cell).join(','),
  );
  return [head, ...rows, ''].join('\n');
}

const quoted = (name: string) => (/[",\n]/.test(name) ? `"${name.replaceAll('"', '""')}"` : name);
