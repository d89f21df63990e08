import type { Mesh } from '../geometry/mesh.ts';

/** A nodal quantity and its name as it is to stand in the file; NaN is written as nan. */
export interface NodalField {
  readonly name: string;
  readonly values: ArrayLike<number>;
}

/**
 * Mesh and nodal fields as a VTK unstructured grid (XML, ASCII), SI. Triangles are cell type 5.
 * Source: VTK file formats, XML section. Checked by results.test.ts.
 */
export function writeVtu(mesh: Mesh, fields: readonly NodalField[]): string {
  const { nodeCount, positions, triangles } = mesh;
  const cellCount = triangles.length / 3;
  const array = (attributes: string, values: ArrayLike<number>, perLine: number) => {
    const lines: string[] = [];
    for (let i = 0; i < values.length; i += perLine)
      lines.push(
        Array.from({ length: Math.min(perLine, values.length - i) }, (_, k) => text(values[i + k])).join(' '),
      );
    return `<DataArray ${attributes} format="ascii">\n${lines.join('\n')}\n</DataArray>`;
  };
  const floats = 'type="Float64"';
  return [
    '<?xml version="1.0"?>',
    '<VTKFile type="UnstructuredGrid" version="1.0" byte_order="LittleEndian">',
    '<UnstructuredGrid>',
    `<Piece NumberOfPoints="${nodeCount}" NumberOfCells="${cellCount}">`,
    '<Points>',
    array(`${floats} NumberOfComponents="3"`, positions, 3),
    '</Points>',
    '<Cells>',
    array('type="Int32" Name="connectivity"', triangles, 3),
    array(
      'type="Int32" Name="offsets"',
      Array.from({ length: cellCount }, (_, t) => 3 * (t + 1)),
      20,
    ),
    array('type="UInt8" Name="types"', new Array<number>(cellCount).fill(5), 40),
    '</Cells>',
    '<PointData>',
    ...fields.map(({ name, values }) => array(`${floats} Name="${escaped(name)}"`, values, 6)),
    '</PointData>',
    '</Piece>',
    '</UnstructuredGrid>',
    '</VTKFile>',
    '',
  ].join('\n');
}

const text = (value: number) =>
  Number.isNaN(value) ? 'nan' : Number.isFinite(value) ? String(value) : 'inf';
const escaped = (name: string) =>
  name.replaceAll('&', '&amp;').replaceAll('<', '&lt;').replaceAll('"', '&quot;');
