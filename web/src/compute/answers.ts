/** The latest answers by key. @param most so many are kept; the one unused longest goes first */
export function createAnswers(most: number) {
  const answers = new Map<string, unknown>();

  function remember(key: string, answer: unknown) {
    answers.delete(key);
    answers.set(key, answer);
    if (answers.size > most) answers.delete(answers.keys().next().value!);
  }

  return {
    has: (key: string) => answers.has(key),
    look: (key: string) => answers.get(key),
    /** The answer, which counts as used now. */
    take(key: string) {
      const answer = answers.get(key);
      remember(key, answer);
      return answer;
    },
    remember,
  };
}
