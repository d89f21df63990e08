import { unitOf, type QuantityName } from './quantities.ts';

/** SI value -> number in the named unit. */
export function toUnit(value: number, name: QuantityName, symbol?: string): number {
  const unit = unitOf(name, symbol);
  return (value - (unit.offset ?? 0)) / unit.factor;
}

/** Number in the named unit -> SI value. */
export function fromUnit(value: number, name: QuantityName, symbol?: string): number {
  const unit = unitOf(name, symbol);
  return value * unit.factor + (unit.offset ?? 0);
}

/** Shown text of an SI value in a unit, trailing zeros dropped: "1200 mm". A dash stands for a missing or non-finite value. */
export function formatQuantity(
  value: number | null | undefined,
  name: QuantityName,
  symbol?: string,
): string {
  if (value == null || !Number.isFinite(value)) return '–';
  const unit = unitOf(name, symbol);
  const number = toUnit(value, name, symbol);
  const text =
    name === 'permeability' && unit.symbol === 'm²'
      ? number.toExponential(1)
      : String(Number(number.toFixed(unit.decimals)));
  return unit.symbol === '' ? text : unit.symbol === '°' ? `${text}°` : `${text} ${unit.symbol}`;
}

/** Clock reading of a duration counted from first mix: "38:00", "1:02:05". */
export function formatClock(duration: number): string {
  if (!Number.isFinite(duration)) return '–';
  const seconds = Math.round(duration);
  const two = (n: number) => String(n).padStart(2, '0');
  const minutes = Math.floor(seconds / 60);
  return minutes < 60
    ? `${minutes}:${two(seconds % 60)}`
    : `${Math.floor(minutes / 60)}:${two(minutes % 60)}:${two(seconds % 60)}`;
}
