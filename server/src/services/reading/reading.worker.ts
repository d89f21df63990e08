import { readings, type Readings } from './readings.ts';

/** A reading to be done aside: which, and what it is given. */
export type Asked = {
  readonly [K in keyof Readings]: { readonly name: K; readonly given: Parameters<Readings[K]> };
}[keyof Readings];

export default ({ name, given }: Asked): unknown =>
  (readings[name] as (...given: unknown[]) => unknown)(...given);
