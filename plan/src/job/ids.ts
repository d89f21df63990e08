import { nanoid } from 'nanoid';

/** An id that nothing has had before. */
export const newId = (): string => nanoid();

/** Further ids for what is made together with the thing of an id: the same ones every time. */
export function idsFrom(seed: string): () => string {
  let number = 0;
  return () => `${seed}-${++number}`;
}

/** The first of "Feed 1", "Feed 2" … that no name here has. */
export function nextName(word: string, taken: Iterable<{ readonly name: string }>): string {
  const names = new Set(Array.from(taken, ({ name }) => name));
  let number = 1;
  while (names.has(`${word} ${number}`)) number += 1;
  return `${word} ${number}`;
}
