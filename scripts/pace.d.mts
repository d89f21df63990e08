export function paceHere(): number;
