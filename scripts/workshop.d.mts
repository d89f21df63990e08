export function workshopFolder(): Promise<string>;
