/** Parts of a document are never mutated: what one reads as stays true. */
const texts = new WeakMap<object, string>();

function textOf(thing: object): string {
  const known = texts.get(thing);
  if (known !== undefined) return known;
  const text = JSON.stringify(thing);
  texts.set(thing, text);
  return text;
}

/**
 * What the last few answers hung on, by what it says and not by what it is: many jobs in a row differ elsewhere, as the hand
 * drags a line, or from one save to the next.
 */
export function remembering<T>(most = 40) {
  const recent = new Map<string, T>();
  return (on: readonly object[], make: () => T): T => {
    const key = on.map(textOf).join('\n');
    const made = recent.has(key) ? recent.get(key)! : make();
    recent.delete(key);
    recent.set(key, made);
    if (recent.size > most) recent.delete(recent.keys().next().value!);
    return made;
  };
}
