import { each, isRecord, type Raw } from './raw.ts';

/**
 * Version 6 runs layers where they matter unless somebody chose otherwise: "averaged" was what every new job stood at. It has
 * room for a film under the mesh, a heel, a reserve and a pump.
 */
export function fromVersion5(raw: Raw): Raw {
  const { laminate, zones, layouts, forecast, resin, vacuum } = raw;
  const withFilm = (own: unknown) => (isRecord(own) ? { filmId: null, ...own } : own);
  const zone = (own: Raw) => ({ ...own, laminate: withFilm(own.laminate) });
  return {
    ...raw,
    version: 6,
    laminate: withFilm(laminate),
    zones: each(zones, zone),
    layouts: each(layouts, (layout) => ({ ...layout, brakes: each(layout.brakes, zone) })),
    forecast: isRecord(forecast) && forecast.layers === false ? { ...forecast, layers: null } : forecast,
    resin: isRecord(resin) ? { heel: null, reserve: null, ...resin } : resin,
    vacuum: isRecord(vacuum) ? { pumpId: null, ...vacuum } : vacuum,
  };
}
