/**
 * The same function with its latest answers kept, for values that come again and again. Answers are shared, so the caller
 * must not change them.
 *
 * @param most how many answers are kept
 */
export function remembered<T extends object | string | null>(compute: (input: string) => T, most = 50_000) {
  const known = new Map<string, T>();
  return (input: string): T => {
    let answer = known.get(input);
    if (answer === undefined) {
      if (known.size >= most) known.clear();
      answer = compute(input);
      known.set(input, answer);
    }
    return answer;
  };
}
