import { errorCurve } from './error-curve';

test('each line says how many pairs it merges and how many of them wrongly', () => {
  const chances = [1, 0.999, 0.9, 0.8, 0.6, 0.3];
  const curve = errorCurve(
    chances.map((chance) => ({ chance })),
    0.25,
    (chance) => 1 - chance,
  );
  expect(curve[0]).toMatchObject({ line: 0.25, pairs: chances.length });
  expect(curve[1]!.line).toBeGreaterThan(0.25);
  for (const { line, pairs, wrong } of curve) {
    // Floating point may put a pair that stands on a line to either side of it; none does here.
    const over = chances.filter((chance) => chance >= line);
    expect(pairs).toBe(over.length);
    expect(wrong).toBeCloseTo(
      over.reduce((sum, chance) => sum + 1 - chance, 0),
      9,
    );
  }
  expect(curve.map(({ pairs }) => pairs)).toEqual([...curve.map(({ pairs }) => pairs)].sort((a, b) => b - a));
  expect(errorCurve([], 0.5, () => 1).every(({ pairs, wrong }) => pairs === 0 && wrong === 0)).toBe(true);
});
