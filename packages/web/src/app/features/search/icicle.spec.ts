import type { SplitPart, SplitView } from '@sieve/contract';
import { drawn, webHarness } from '../../testing/web-harness';
import { Icicle } from './icicle';

const part = (field: string, text: string, count: number, parts: SplitPart[], batch: number | null): SplitPart => ({
  by: field ? { field, not: text === 'rest', terms: [{ text, exact: true }] } : null,
  count,
  parts,
  batch,
});
const split: SplitView = {
  top: part(
    '',
    '',
    6214,
    [
      part('team', 'production', 1534, [], 0),
      part('team', 'quality', 4680, [part('level', 'manager', 2163, [], 1), part('level', 'rest', 2517, [], 2)], null),
    ],
    null,
  ),
  count: 6214,
  fewest: 3,
  outOfReach: 17,
  questions: 4,
  missing: 0,
  twice: 0,
  byHand: false,
};

it('a split is drawn as wide as it is large, and what is over the cap is marked', async () => {
  webHarness();
  const { element, text } = await drawn(Icicle, { split, cap: 2500 });
  const cells = [...element.querySelectorAll('g')].map((cell) => {
    const rect = cell.querySelector('rect')!;
    return {
      name: cell.querySelector('text')!.textContent,
      width: Number(rect.getAttribute('width')),
      y: Number(rect.getAttribute('y')),
      fill: rect.getAttribute('fill'),
    };
  });
  expect(cells.map(({ name }) => name)).toEqual(['All matches', 'production', 'quality', 'manager', 'every other']);
  expect(cells[1]!.width / cells[2]!.width).toBeCloseTo(1534 / 4680, 1);
  expect(cells[3]!.width + cells[4]!.width + 2).toBeCloseTo(cells[2]!.width, 0);
  expect(cells.map(({ y }) => y)).toEqual([0, 46, 46, 92, 92]);
  expect(cells.filter(({ fill }) => fill === 'url(#over-cap)').map(({ name }) => name)).toEqual(['every other']);
  expect(text()).toContain('Row 2 splits by team');
});
