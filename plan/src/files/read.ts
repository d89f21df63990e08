import type { ErrorCode } from '@wick/contract/errors';
import type { z } from 'zod';

/** What came of reading something: a value, or a refusal in one sentence that says what is wrong, where, and what to do. */
export type Read<T> =
  | { readonly ok: true; readonly value: T }
  | { readonly ok: false; readonly code: ErrorCode; readonly message: string };

export const refuse = (code: ErrorCode, message: string) => ({ ok: false, code, message }) as const;

/** What a file says, in a message: in quotes, and not all of it where it is long. */
export const quoted = (text: unknown): string => {
  const said = String(text);
  return `“${said.length > LONGEST_QUOTE ? `${said.slice(0, LONGEST_QUOTE)}…` : said}”`;
};
const LONGEST_QUOTE = 60;

/** First issue of a failed parse as a sentence with its place. */
export function sentenceOf(error: z.ZodError): string {
  const [issue] = error.issues;
  if (!issue) return 'Something in it is wrong.';
  const place = issue.path
    .map((part) => (typeof part === 'number' ? `${part + 1}` : String(part)))
    .join(' › ');
  const more = error.issues.length > 1 ? ` (and ${error.issues.length - 1} more)` : '';
  const keys =
    issue.code === 'unrecognized_keys' ? ` Remove ${issue.keys.map((key) => `"${key}"`).join(', ')}.` : '';
  return `${place === '' ? 'The document' : `At ${place}`}: ${lowerFirst(issue.message)}${more}.${keys}`;
}

const lowerFirst = (text: string) => text.charAt(0).toLowerCase() + text.slice(1);
