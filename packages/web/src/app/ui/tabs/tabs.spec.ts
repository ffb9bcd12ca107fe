import { drawn, webHarness } from '../../testing/web-harness';
import { Tabs } from './tabs';

const tabs = [
  { id: 'pass', label: 'Pass', count: 1200 },
  { id: 'aside', label: 'Set aside', count: null },
  { id: 'look', label: 'Want a look', count: 3 },
] as const;

it('one tab is chosen and in the order of the keys; arrows go round, Home and End to the ends', async () => {
  webHarness();
  const { element, fixture, stable } = await drawn(Tabs, { tabs, chosen: 'pass', label: 'Fates', panel: 'rows' });
  const chosen: string[] = [];
  fixture.componentInstance.choose.subscribe((id) => {
    chosen.push(id);
    fixture.componentRef.setInput('chosen', id);
  });
  const buttons = [...element.querySelectorAll<HTMLButtonElement>('[role=tab]')];
  expect(buttons.map(({ textContent }) => textContent.replace(/\s+/g, ' ').trim())).toEqual([
    'Pass 1,200',
    'Set aside',
    'Want a look 3',
  ]);
  expect(buttons.map((button) => button.getAttribute('aria-controls'))).toEqual(['rows', 'rows', 'rows']);
  const press = async (key: string) => {
    element.querySelector('[aria-selected=true]')!.dispatchEvent(new KeyboardEvent('keydown', { key, bubbles: true }));
    await stable();
  };
  for (const key of ['ArrowLeft', 'ArrowRight', 'ArrowRight', 'End', 'Home']) await press(key);
  expect(chosen).toEqual(['look', 'pass', 'aside', 'look', 'pass']);
  expect(buttons.map(({ tabIndex }) => tabIndex)).toEqual([0, -1, -1]);
});
