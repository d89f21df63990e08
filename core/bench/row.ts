/** Prints one line of the table of checks. */
export type Row = (name: string, source: string, expected: number, ours: number) => void;
