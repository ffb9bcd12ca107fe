import type { ContactGroup } from '@sieve/contract';
import { drawn, inDialog, webHarness } from '../../../../testing/web-harness';
import { GroupsDialog } from './groups-dialog';

const group = (value: string, count: number, more: Partial<ContactGroup> = {}): ContactGroup => ({
  value,
  count,
  aside: 0,
  fate: '',
  ...more,
});

async function open() {
  const { http } = webHarness(inDialog({ jobId: 2, step: 'screen' }));
  const dialog = await drawn(GroupsDialog);
  http
    .expectOne('/api/jobs/2/groups?step=screen&by=title')
    .flush([group('quality manager', 210), group('driver', 44, { aside: 44 }), group('owner', 9, { aside: 2 })]);
  await dialog.stable();
  const press = async (key: string) => {
    const event = new KeyboardEvent('keydown', { key, bubbles: true, cancelable: true });
    dialog.element.querySelector('ul')!.dispatchEvent(event);
    await dialog.stable();
    return event.defaultPrevented;
  };
  const decided = () => {
    const asked = http.expectOne('/api/jobs/2/decisions');
    asked.flush({ id: 1 });
    return (asked.request.body as { body: object }).body;
  };
  const chosen = () => dialog.element.querySelector('[aria-selected=true]')?.textContent;
  return { ...dialog, http, press, decided, chosen };
}

it('groups are counted, and what became of each is said', async () => {
  const { element } = await open();
  expect([...element.querySelectorAll('small')].map(({ textContent }) => textContent)).toEqual([
    'pass',
    'set aside',
    '2 set aside',
  ]);
});

it('arrows and J K move within the list, X sets a whole group aside, R keeps it', async () => {
  const { press, decided, chosen, stable, text } = await open();
  await press('ArrowUp');
  expect(chosen()).toContain('quality manager');
  await press('j');
  await press('ArrowDown');
  await press('j');
  expect(chosen()).toContain('owner');
  await press('k');
  await press('x');
  expect(decided()).toEqual({ kind: 'group', by: 'title', value: 'driver', fate: 'aside' });
  await stable();
  expect(text()).toContain('set aside by you');
  await press('r');
  expect(decided()).toEqual({ kind: 'group', by: 'title', value: 'driver', fate: 'keep' });
  await stable();
  expect(text()).toContain('kept by you');
  expect(await press('q')).toBe(false);
});

it('G groups by another field, and what is said is said of that field', async () => {
  const { press, http, decided, stable, text } = await open();
  await press('j');
  await press('g');
  http.expectOne('/api/jobs/2/groups?step=screen&by=level').flush([group('manager', 60)]);
  await stable();
  expect(text()).toContain('manager');
  await press('x');
  expect(decided()).toEqual({ kind: 'group', by: 'level', value: 'manager', fate: 'aside' });
});

it('a decision that fails leaves the group as it was', async () => {
  const { press, http, stable, text } = await open();
  await press('x');
  http.expectOne('/api/jobs/2/decisions').flush({ message: 'No.' }, { status: 500, statusText: 'Error' });
  await stable();
  expect(text()).not.toContain('by you');
});
