import { expect, test } from '@jest/globals';
import { meshPart } from '../geometry/mesh.ts';
import { rectangle } from '../geometry/shapes.ts';
import { writeNodesCsv } from './nodes-csv.ts';
import { writeVtu } from './vtu.ts';

const mesh = meshPart({ outline: rectangle({ length: 1, width: 0.5 }), nodeCount: 60 });
const values = Float64Array.from({ length: mesh.nodeCount }, (_, i) => (i === 3 ? NaN : i / 7));
const fields = [{ name: 'arrival_s', values }];

test('a VTK grid holds every point, triangle and value, and reads back exactly', () => {
  const text = writeVtu(mesh, [...fields, { name: 'a "quoted" <name>', values }]);
  const arrays = [...text.matchAll(/<DataArray ([^>]*)>\n([\s\S]*?)\n<\/DataArray>/g)].map(
    ([, head, body]) => ({
      head: head!,
      numbers: body!.split(/\s+/).map((word) => (word === 'nan' ? NaN : Number(word))),
    }),
  );
  const find = (name: string) => arrays.find(({ head }) => head.includes(`Name="${name}"`))!.numbers;
  expect(text).toContain(`NumberOfPoints="${mesh.nodeCount}" NumberOfCells="${mesh.triangles.length / 3}"`);
  expect(arrays[0]!.numbers).toEqual(Array.from(mesh.positions));
  expect(find('connectivity')).toEqual(Array.from(mesh.triangles));
  expect(find('offsets').at(-1)).toBe(mesh.triangles.length);
  expect(new Set(find('types'))).toEqual(new Set([5]));
  expect(find('arrival_s')).toEqual(Array.from(values));
  expect(text).toContain('a &quot;quoted&quot; &lt;name>');
});

test('a CSV has one row a node, empty where the front never came', () => {
  const [head, ...rows] = writeNodesCsv(mesh, [...fields, { name: 'a,b', values }])
    .trimEnd()
    .split('\n');
  expect(head).toBe('x_m,y_m,z_m,arrival_s,"a,b"');
  expect(rows).toHaveLength(mesh.nodeCount);
  expect(rows[3]).toMatch(/,,$/);
  expect(rows[10]!.split(',').map(Number)[3]).toBe(values[10]);
});
