import type { Shop } from '@wick/contract/shop';
import { formatQuantity } from '@wick/core/units/format';
import { quantityOf, type QuantityName } from '@wick/core/units/quantities';

/** In which a workshop reads a quantity: as it chose, else as is usual. */
export const unitOf = ({ units }: Pick<Shop, 'units'>, name: QuantityName): string =>
  units[name] ?? quantityOf(name).usual;

/** Shown as a workshop reads it. */
export const shownIn =
  (shop: Pick<Shop, 'units'>) =>
  (value: number | null | undefined, name: QuantityName): string =>
    formatQuantity(value, name, unitOf(shop, name));
