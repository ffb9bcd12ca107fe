import { drawn, webHarness } from '../../../../testing/web-harness';
import { lineFor, LinesChart } from './lines-chart';

const points = [
  { line: 0.3, pairs: 1000, wrong: 90 },
  { line: 0.5, pairs: 900, wrong: 40 },
  { line: 0.8, pairs: 800, wrong: 4 },
  { line: 0.95, pairs: 700, wrong: 0.7 },
];

async function open() {
  webHarness();
  const chart = await drawn(LinesChart, { points, mergeFrom: 0.8, judgeFrom: 0.3 });
  const moved: [string, number][] = [];
  chart.fixture.componentInstance.merge.subscribe((line) => moved.push(['merge', line]));
  chart.fixture.componentInstance.judge.subscribe((line) => moved.push(['judge', line]));
  const handle = (name: string) => chart.element.querySelector(`[aria-label="${name}"]`)!;
  const press = (name: string, key: string) =>
    handle(name).dispatchEvent(new KeyboardEvent('keydown', { key, bubbles: true, cancelable: true }));
  return { ...chart, moved, handle, press };
}

it('says what the lines merge, how many of it wrongly, and what is left to judge', async () => {
  const { text } = await open();
  expect(text()).toContain('From 0.80: 800 pairs are merged, about 5.0 in 1,000 wrongly.');
  expect(text()).toContain('Between the lines about 200 to judge, 114 of them the same person.');
});

it('a line below what was counted is said to be unknown', async () => {
  const { fixture, text, stable } = await open();
  fixture.componentRef.setInput('judgeFrom', 0.2);
  await stable();
  expect(text()).toContain('how many below 0.30 is known once it is used');
});

it('lines move by keys, within their bounds', async () => {
  const { press, moved, handle, fixture, stable } = await open();
  press('Merge from', 'ArrowRight');
  press('Judge from', 'ArrowLeft');
  press('Merge from', 'Tab');
  // By a sixth of log-odds: 1 / (1 + e^-(ln 4 + 1/6)), 1 / (1 + e^-(ln(3/7) - 1/6)).
  expect(moved).toEqual([
    ['merge', 0.83],
    ['judge', 0.27],
  ]);
  fixture.componentRef.setInput('mergeFrom', 0.52);
  await stable();
  press('Merge from', 'PageDown');
  expect(moved.at(-1)).toEqual(['merge', 0.5]);
  expect(handle('Merge from').getAttribute('aria-valuemin')).toBe('0.5');
});

it('the lowest line that keeps to an accepted error', () => {
  expect(lineFor(points, 0.005)).toBe(0.8);
  expect(lineFor(points, 0.1)).toBe(0.5);
  expect(lineFor(points, 0.0001)).toBe(1);
});
