/** How layers are usually laid, m. Common practice, no source. */

/** Of sealant tape past the part's edge. */
export const TAPE = { from: 0.03, to: 0.042 } as const;
/** Cloth ends so far short of the tape. */
export const OFF_TAPE = 0.005;
/** A strip at a line, and a patch where a hose comes through. */
export const STRIP = 0.06;
export const PATCH = 0.1;
/** Perforated films lap. */
export const FILM_LAP = 0.01;
