import { filmRadius, lockedRadius, pocketArea } from '../src/bag/bridging.ts';
import { filletSaving, slopeExcess } from '../src/bag/section.ts';
import { rectangularDuct } from '../src/flow/channels.ts';
import { filmThrough, slitFlow } from '../src/laminate/materials.ts';
import { stationPressure } from '../src/vacuum/atmosphere.ts';
import { styreneVapourPressure } from '../src/vacuum/styrene.ts';
import type { Row } from './row.ts';

/** The rows of ducts, slits, films and vacuum: worked by hand from the formulas named. */
export function partChecks(row: Row): void {
  const duct = 'White, Viscous Fluid Flow, from memory';
  row('Race of 1 x 1 mm, m4', duct, 3.51e-14, rectangularDuct(1e-3, 1e-3).conductance);
  row(
    'The slot formula over a race of 5 x 1 mm',
    duct,
    28.6,
    (5e-3 ** 3 * 1e-3) / 12 / rectangularDuct(5e-3, 1e-3).conductance,
  );
  const slits = { width: 1e-3, spacing: 0.03, depth: 0.8 };
  row(
    'Slits of 1 x 8 mm every 30 mm, a face, m3',
    duct,
    2.05e-11,
    slitFlow({ kind: 'core', name: '', thickness: 0.01, density: 80, resinUptake: null, slits }),
  );
  row(
    'Film, 1 600 holes/m2 of 0.5 mm in 25 um, m',
    'Hagen-Poiseuille, orifice and disc',
    7.15e-12,
    filmThrough(
      { kind: 'film', name: '', thickness: 25e-6, holes: { diameter: 5e-4, spacing: 0.025 } },
      { inPlane: 2e-11, through: 1e-12 },
    ),
  );
  row('1030 hPa at sea level, at 1500 m, Pa', 'ISO 2533', 85_950, stationPressure(103_000, 1500));
  const plane = 'plane geometry';
  row(
    'Film over a slope of 40 mm at 45°, m',
    plane,
    0.0166,
    slopeExcess({ height: 0.04, angle: Math.PI / 4 }),
  );
  row('A fillet of 10 mm at 90° gives back, m', plane, 0.0043, filletSaving(0.01, Math.PI / 2));
  row(
    'Film of 50 um, 35 MPa, under 95 kPa spans on, m',
    'membrane equilibrium',
    0.0184,
    filmRadius({ thickness: 50e-6, strength: 35e6, elongation: 1 }, 95e3),
  );
  row(
    'Plies on a leg of 100 mm, friction 0.3, lock below, m',
    'Coulomb friction',
    0.03,
    lockedRadius(0.3, 0.1),
  );
  row(
    'Pocket from R 10 to r 3 mm at 90°, m2',
    plane,
    19.5e-6,
    pocketArea({ radius: 0.003, turn: Math.PI / 2 }, 0.01),
  );
  row('Styrene at 30 °C, Pa', 'Antoine, from memory', 1171, styreneVapourPressure(303.15));
}
