export function browserPath(): string;
