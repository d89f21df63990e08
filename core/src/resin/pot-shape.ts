/** Diameter of a pot or bucket as tall as it is wide, m. @param volume m3 */
export const diameterOf = (volume: number): number => Math.cbrt((4 * volume) / Math.PI);

/** Of its bottom, m2. */
export const bottomArea = (volume: number): number => (Math.PI / 4) * diameterOf(volume) ** 2;
