import type { Read } from '../read.ts';
import { describe, expect, test } from '@jest/globals';
import { arcOf, ringArea, ringBounds, ringLength, type Corner } from '@wick/core/geometry/arcs';
import { distance } from '@wick/core/geometry/polygon';
import { laidDemos } from '../../test/laid-demos.ts';
import { flattenCubic, flattenSpline } from './curves.ts';
import { likelyRole, partOfDrawing, type Drawing, type DrawingChoice, type DrawnPart } from './drawing.ts';
import { readDxf } from './dxf-in.ts';
import { readGeoJson } from './geojson-in.ts';
import { layoutDxf, layoutGeoJson, layoutSvg } from './layout-out.ts';
import { readSvg } from './svg-in.ts';

function value<T>(read: Read<T>): T {
  if (!read.ok) throw new Error(read.message);
  return read.value;
}
function partOf(drawing: Drawing, changes: Partial<DrawingChoice> = {}): DrawnPart {
  const roles = drawing.layers.map(({ name }) => likelyRole(name));
  return value(
    partOfDrawing(drawing, {
      roles,
      unitLength: drawing.unitLength ?? 1e-3,
      tolerance: 5e-4,
      closeGaps: false,
      ...changes,
    }),
  );
}

/** Farthest that any corner of one ring lies from the nearest of the other, m. */
const apart = (ring: readonly Corner[], other: readonly Corner[]) =>
  Math.max(...ring.map((p) => Math.min(...other.map((q) => distance(p, q)))));

describe('out and in again', () => {
  const home = (ring: readonly Corner[], from: readonly Corner[]) => {
    const { minX: x, minY: y } = ringBounds(from);
    return ring.map((p) => ({ ...p, x: p.x - x, y: p.y - y }));
  };
  const formats: [string, (job: (typeof laidDemos)[0]) => string, (text: string) => Read<Drawing>, number][] =
    [
      ['DXF', layoutDxf, readDxf, 1e-3],
      ['SVG', layoutSvg, readSvg, 1e-3],
      ['GeoJSON', layoutGeoJson, readGeoJson, 1],
    ];
  test.each(laidDemos.flatMap((job) => formats.map((format) => [job.name, format[0], job, format] as const)))(
    '%s as %s keeps every corner within 0.1 mm, and its arcs, holes and zones',
    (_, name, job, [, write, read, unit]) => {
      const drawing = value(read(write(job)));
      if (name !== 'GeoJSON') expect(drawing.unitLength).toBeCloseTo(1e-3, 9);
      const part = partOf(drawing, { unitLength: drawing.unitLength ?? unit });
      const wanted = job.part;
      expect(part.gaps).toEqual([]);
      expect(part.holes).toHaveLength(wanted.holes.length);
      expect(part.zones.map((zone) => zone.name)).toEqual(job.zones.map((zone) => zone.name));
      const outline = home(part.outline!, part.outline!);
      expect(apart(home(wanted.outline, wanted.outline), outline)).toBeLessThan(1e-4);
      expect(Math.abs(ringArea(part.outline!))).toBeCloseTo(
        Math.abs(ringArea(wanted.outline)),
        name === 'GeoJSON' ? 3 : 5,
      );
      if (name !== 'GeoJSON') {
        expect(part.outline).toHaveLength(wanted.outline.length);
        expect(ringLength(part.outline!)).toBeCloseTo(ringLength(wanted.outline), 4);
      }
      job.zones.forEach((zone, i) =>
        expect(
          apart(home(zone.outline, wanted.outline), home(part.zones[i]!.outline, part.outline!)),
        ).toBeLessThan(1e-4),
      );
    },
  );
});

/** Smallest DXF that holds the given entities; group codes of the DXF reference. */
const dxf = (entities: string, units = '4') =>
  `0\nSECTION\n2\nHEADER\n9\n$INSUNITS\n70\n${units}\n0\nENDSEC\n0\nSECTION\n2\nENTITIES\n${entities}0\nENDSEC\n0\nEOF\n`;
const line = (x1: number, y1: number, x2: number, y2: number, layer = 'Cut') =>
  `0\nLINE\n8\n${layer}\n10\n${x1}\n20\n${y1}\n11\n${x2}\n21\n${y2}\n`;

describe('DXF', () => {
  const open = dxf(
    line(0, 0, 1000, 0) + line(1000, 600, 1000, 0.2) + line(1000, 600, 0, 600) + line(0, 600, 0, 3),
  );

  test('lines drawn in any order and direction are joined; a gap is reported and can be closed', () => {
    const drawing = value(readDxf(open));
    const part = partOf(drawing);
    expect(part.outline).toBeNull();
    expect(part.gaps).toHaveLength(1);
    expect(part.gaps[0]!.width).toBeCloseTo(0.003, 9);
    expect(part.open[0]).toHaveLength(5);
    const closed = partOf(drawing, { closeGaps: true });
    expect(closed.gaps).toEqual([]);
    expect(closed.open).toEqual([]);
    expect(Math.abs(ringArea(closed.outline!))).toBeCloseTo(0.6, 3);
    // A wider tolerance closes it as well.
    expect(partOf(drawing, { tolerance: 0.004 }).outline).not.toBeNull();
  });

  test('units: the same numbers in inches are 25.4 times as large', () => {
    const drawing = value(readDxf(dxf(line(0, 0, 40, 0) + line(40, 0, 40, 20) + line(40, 20, 0, 0), '1')));
    expect(Math.abs(ringArea(partOf(drawing).outline!))).toBeCloseTo(400 * 0.0254 ** 2, 9);
  });

  test('a slot of two lines and two arcs has the area 2 r l + pi r^2', () => {
    const arc = (x: number, from: number, to: number) =>
      `0\nARC\n8\nCut\n10\n${x}\n20\n50\n40\n50\n50\n${from}\n51\n${to}\n`;
    const slot = dxf(line(0, 0, 300, 0) + arc(300, 270, 90) + line(300, 100, 0, 100) + arc(0, 90, 270));
    const part = partOf(value(readDxf(slot)));
    expect(Math.abs(ringArea(part.outline!))).toBeCloseTo(0.1 * 0.3 + Math.PI * 0.05 ** 2, 9);
    expect(
      arcOf(
        part.outline!.find((p) => p.bulge)!,
        { x: 0, y: 0 },
      ),
    ).not.toBeNull();
  });

  test('circle in a polyline is a hole; text is left out and named', () => {
    const text = '0\nTEXT\n8\nNotes\n10\n0\n20\n0\n40\n5\n1\nHello\n';
    const square =
      '0\nLWPOLYLINE\n8\nCut\n90\n4\n70\n1\n10\n0\n20\n0\n10\n500\n20\n0\n10\n500\n20\n500\n10\n0\n20\n500\n';
    const circle = '0\nCIRCLE\n8\nCut\n10\n250\n20\n250\n40\n60\n';
    const drawing = value(readDxf(dxf(square + circle + text)));
    expect(drawing.skipped).toEqual(['1 TEXT']);
    const part = partOf(drawing);
    expect(part.holes).toHaveLength(1);
    expect(Math.abs(ringArea(part.holes[0]!))).toBeCloseTo(Math.PI * 0.06 ** 2, 9);
  });

  test('an ellipse has the area pi a b', () => {
    const ellipse =
      '0\nELLIPSE\n8\nCut\n10\n0\n20\n0\n11\n400\n21\n0\n40\n0.5\n41\n0\n42\n6.283185307179586\n';
    expect(Math.abs(ringArea(partOf(value(readDxf(dxf(ellipse)))).outline!))).toBeCloseTo(
      Math.PI * 0.4 * 0.2,
      3,
    );
  });
});

describe('SVG', () => {
  const svg = (body: string, head = 'width="500mm" viewBox="0 0 500 500"') =>
    `<svg xmlns="http://www.w3.org/2000/svg" ${head}>${body}</svg>`;
  const areaOf = (body: string, head?: string) =>
    Math.abs(ringArea(partOf(value(readSvg(svg(body, head)))).outline!));

  test('shapes have their textbook areas', () => {
    expect(areaOf('<rect width="300" height="200"/>')).toBeCloseTo(0.06, 9);
    expect(areaOf('<circle cx="9" cy="9" r="100"/>')).toBeCloseTo(Math.PI * 0.01, 9);
    expect(areaOf('<rect width="300" height="200" rx="20"/>')).toBeCloseTo(0.06 - (4 - Math.PI) * 4e-4, 9);
    expect(areaOf('<ellipse rx="200" ry="100"/>')).toBeCloseTo(Math.PI * 0.02, 4);
    expect(areaOf('<polygon points="0,0 300,0 0,200"/>')).toBeCloseTo(0.03, 9);
    expect(areaOf('<path d="M0 0H100V100h-100z"/>')).toBeCloseTo(0.01, 9);
  });

  test('transforms of groups add up; pixels are 1/96 inch', () => {
    expect(
      areaOf(
        '<g transform="scale(2)"><g transform="rotate(30) translate(7 9)"><rect width="50" height="40"/></g></g>',
      ),
    ).toBeCloseTo(0.008, 9);
    expect(areaOf('<rect width="960" height="96"/>', '')).toBeCloseTo(10 * 0.0254 ** 2, 9);
  });

  test('groups are layers; what cannot be drawn is named', () => {
    const drawing = value(
      readSvg(
        svg('<g id="Zone A"><rect width="9" height="9"/></g><rect width="50" height="50"/><text>Hi</text>'),
      ),
    );
    expect(drawing.layers.map((layer) => layer.name).sort()).toEqual(['Zone A', 'drawing']);
    expect(drawing.skipped).toEqual(['1 text']);
  });
});

describe('curves', () => {
  test('a quarter circle by the usual cubic is round to 3 in 10 000 (constant 0.5523, from memory)', () => {
    const k = 0.5522847498;
    const points = flattenCubic({ x: 1, y: 0 }, { x: 1, y: k }, { x: k, y: 1 }, { x: 0, y: 1 });
    for (const { x, y } of points) expect(Math.abs(Math.hypot(x, y) - 1)).toBeLessThan(3e-4);
  });

  test('a clamped cubic B-spline of four controls is the Bezier curve', () => {
    const control = [
      { x: 0, y: 0 },
      { x: 1, y: 2 },
      { x: 3, y: 2 },
      { x: 4, y: 0 },
    ];
    const points = flattenSpline(control, [0, 0, 0, 0, 1, 1, 1, 1], 3);
    const middle = points[points.length >> 1]!;
    expect(middle.x).toBeCloseTo(2, 9);
    expect(middle.y).toBeCloseTo(1.5, 9);
    expect(points[0]).toEqual({ x: 0, y: 0 });
    expect(points.at(-1)!.x).toBeCloseTo(4, 9);
  });
});

describe('files that cannot be used', () => {
  const many = Array.from({ length: 3100 }, (_, i) => line(i, 0, i, 1)).join('');
  const deep = `${'<g>'.repeat(80)}<rect width="9" height="9"/>${'</g>'.repeat(80)}`;
  const svg = (body: string) => `<svg xmlns="http://www.w3.org/2000/svg">${body}</svg>`;
  const square = '[[0,0],[1,0],[1,1],[0,1],[0,0]]';

  test.each<[string, (text: string) => Read<Drawing>, string, string]>([
    ['empty DXF', readDxf, '', 'does not read as DXF'],
    ['DXF cut off', readDxf, dxf(line(0, 0, 1, 1)).slice(0, 90), 'DXF'],
    ['a picture named DXF', readDxf, '\u0089PNG\r\n\u001a\n\0\0\0', 'binary'],
    ['a text named DXF', readDxf, 'dear reader', 'does not read as DXF'],
    ['DXF without entities', readDxf, dxf(''), 'no outline'],
    ['DXF with text only', readDxf, dxf('0\nTEXT\n8\n0\n10\n0\n20\n0\n40\n5\n1\nHi\n'), '1 TEXT'],
    ['DXF of 3100 lines', readDxf, dxf(many), 'more than 3000 paths'],
    [
      'DXF with no number',
      readDxf,
      dxf('0\nLINE\n8\nCut\n10\nabc\n20\n0\n11\n5\n21\n5\n'),
      'no usable number',
    ],
    ['DXF out of this world', readDxf, dxf(line(0, 0, 1e300, 5)), 'no usable number'],
    [
      'DXF with an endless circle',
      readDxf,
      dxf('0\nCIRCLE\n8\nCut\n10\n0\n20\n0\n40\nInfinity\n'),
      'no usable number',
    ],
    ['empty SVG', readSvg, '', 'does not read as SVG'],
    ['SVG cut off', readSvg, '<svg><g id="a"><rect width="1"', 'does not read as SVG'],
    ['a web page named SVG', readSvg, '<html><body/></html>', 'does not read as SVG'],
    [
      'SVG that explodes',
      readSvg,
      '<!DOCTYPE svg [<!ENTITY a "ha"><!ENTITY b "&a;&a;&a;">]><svg><path d="&b;"/></svg>',
      'entities',
    ],
    [
      'SVG reaching outside',
      readSvg,
      '<!DOCTYPE svg [<!ENTITY x SYSTEM "file:///etc/passwd">]><svg>&x;</svg>',
      'entities',
    ],
    ['SVG 80 groups deep', readSvg, svg(deep), 'nests'],
    ['SVG with a picture only', readSvg, svg('<image width="5" height="5"/>'), '1 image'],
    ['SVG with a broken path', readSvg, svg('<path d="M0 0 L garbage"/>'), 'no outline'],
    ['SVG with no number', readSvg, svg('<rect x="NaN" y="0" width="5" height="5"/>'), 'outline'],
    ['SVG with a script only', readSvg, svg('<script>alert(1)</script>'), '1 script'],
    ['empty GeoJSON', readGeoJson, '', 'is empty'],
    ['GeoJSON cut off', readGeoJson, '{"type":"Polygon","coord', 'not complete JSON'],
    ['a job named GeoJSON', readGeoJson, JSON.stringify(laidDemos[0]), 'no GeoJSON'],
    ['a list', readGeoJson, '[]', 'no GeoJSON'],
    ['GeoJSON of unknown shape', readGeoJson, '{"type":"Blob","coordinates":[]}', 'no GeoJSON'],
    [
      'GeoJSON with words for numbers',
      readGeoJson,
      '{"type":"Polygon","coordinates":[[["a","b"]]]}',
      'no GeoJSON',
    ],
    ['GeoJSON of points', readGeoJson, '{"type":"Point","coordinates":[1,2]}', '1 points'],
    ['GeoJSON without features', readGeoJson, '{"type":"FeatureCollection","features":[]}', 'no outline'],
    [
      'GeoJSON with an absurd position',
      readGeoJson,
      `{"type":"Polygon","coordinates":[${square.replace('1,1', '1e99,1')}]}`,
      'no usable number',
    ],
    ['GeoJSON with nothing', readGeoJson, 'null', 'no GeoJSON'],
  ])('%s', (_, read, text, says) => {
    const answer = read(text);
    expect(answer.ok).toBe(false);
    expect(!answer.ok && answer.message).toContain(says);
  });

  test('an outline that crosses itself, or is far too large, is refused in the words of the part', () => {
    const choose = (text: string, unitLength: number) => {
      const drawing = value(readGeoJson(text));
      const answer = partOfDrawing(drawing, {
        roles: ['part'],
        unitLength,
        tolerance: 1e-3,
        closeGaps: false,
      });
      return answer.ok ? '' : answer.message;
    };
    const bow = '{"type":"Polygon","coordinates":[[[0,0],[1,1],[1,0],[0,1],[0,0]]]}';
    expect(choose(bow, 1)).toContain('crosses itself');
    expect(choose(`{"type":"Polygon","coordinates":[${square}]}`, 3000)).toContain('3000 m across');
  });
});
