import type { Shop } from '@wick/contract/shop';
import { ambientAtAltitude } from '@wick/core/vacuum/atmosphere';

/** Pa, absolute: as measured, else the standard atmosphere at the shop's altitude. */
export function ambientOf(shop: Shop): number {
  return shop.ambientPressure ?? ambientAtAltitude(shop.altitude);
}
