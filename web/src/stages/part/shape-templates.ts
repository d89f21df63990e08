import type { Patch } from '@wick/core/geometry/overlay';
import {
  angleShape,
  circle,
  coneLaidFlat,
  gore,
  rectangle,
  ring,
  trapezoid,
} from '@wick/core/geometry/shapes';

/** Sizes of parts, m: from a finger's breadth to a hull. */
export const sizeLimits = { atLeast: 0.01, atMost: 100 };

/** Numbers that shapes are made of, m; each shape uses some. */
export const usualSize = {
  length: 1.2,
  width: 0.8,
  endWidth: 0.4,
  diameter: 0.8,
  holeDiameter: 0.3,
  height: 0.5,
  legWidth: 0.25,
  footWidth: 0.3,
};
export type ShapeSize = typeof usualSize;

/** An outline by a few numbers. */
export interface ShapeTemplate {
  readonly name: string;
  readonly fields: readonly (readonly [keyof ShapeSize, string])[];
  readonly fault?: (size: ShapeSize) => string | null;
  readonly make: (size: ShapeSize) => Patch;
}
const plain = (outline: Patch['outline']): Patch => ({ outline, holes: [] });

export const shapeTemplates: readonly ShapeTemplate[] = [
  {
    name: 'Rectangle',
    fields: [
      ['length', 'Length'],
      ['width', 'Width'],
    ],
    make: (size) => plain(rectangle(size)),
  },
  {
    name: 'Trapezoid',
    fields: [
      ['length', 'Length'],
      ['width', 'Width at the start'],
      ['endWidth', 'Width at the end'],
    ],
    make: (size) =>
      plain(trapezoid({ length: size.length, startWidth: size.width, endWidth: size.endWidth })),
  },
  {
    name: 'Gore',
    fields: [
      ['length', 'Length'],
      ['width', 'Width at the foot'],
      ['endWidth', 'Width at the top'],
    ],
    fault: (size) => (size.endWidth < size.width ? null : 'A gore is narrower at the top than at the foot.'),
    make: (size) => plain(gore({ length: size.length, startWidth: size.width, endWidth: size.endWidth })),
  },
  { name: 'Disc', fields: [['diameter', 'Diameter']], make: (size) => plain(circle(size)) },
  {
    name: 'Ring',
    fields: [
      ['diameter', 'Diameter'],
      ['holeDiameter', 'Diameter of the hole'],
    ],
    fault: (size) => (size.holeDiameter < size.diameter ? null : 'The hole has to be smaller than the ring.'),
    make: (size) => ring(size),
  },
  {
    name: 'Cone laid flat',
    fields: [
      ['diameter', 'Diameter, wide end'],
      ['holeDiameter', 'Diameter, narrow end'],
      ['height', 'Height'],
    ],
    fault: (size) =>
      size.holeDiameter < size.diameter ? null : 'The narrow end has to be narrower than the wide one.',
    make: (size) =>
      plain(
        coneLaidFlat({ wideDiameter: size.diameter, narrowDiameter: size.holeDiameter, height: size.height }),
      ),
  },
  {
    name: 'L shape',
    fields: [
      ['length', 'Length'],
      ['width', 'Width'],
      ['legWidth', 'Width of the leg'],
      ['footWidth', 'Width of the foot'],
    ],
    fault: (size) =>
      size.legWidth < size.length && size.footWidth < size.width
        ? null
        : 'Leg and foot have to be narrower than the whole.',
    make: (size) => plain(angleShape(size)),
  },
];
