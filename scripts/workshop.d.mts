export const QUICK_TO_START: readonly string[];
export function workshopFolder(): Promise<string>;
