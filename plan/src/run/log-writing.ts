import type { Entry, EntryBody } from '@wick/contract/run/run';
import type { QuantityName } from '@wick/core/units/quantities';

/** What the words of an entry are made with. */
export interface LogWriting {
  readonly show: (value: number | null, quantity: QuantityName) => string;
  readonly instrumentName: (id: string) => string;
  readonly lineName: (id: string) => string;
  /** Of every entry by its id: some are about others. */
  readonly find: (id: string) => Entry | undefined;
}

/** Words for some kinds of entry. */
export type WordsOf<Kinds extends EntryBody['kind']> = {
  [K in Kinds]: (body: Extract<EntryBody, { kind: K }>, writing: LogWriting) => string;
};
