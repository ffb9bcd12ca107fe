import { parseSearch } from '@sieve/core/search/parse';
import { TestBed } from '@angular/core/testing';
import { drawn, webHarness } from '../../testing/web-harness';
import { Conditions } from './conditions';
import { SearchStore } from './search-store';

describe('conditions', () => {
  const open = async () => {
    webHarness([SearchStore]);
    const store = TestBed.inject(SearchStore);
    const conditions = await drawn(Conditions);
    const type = async (text: string) => {
      const box = conditions.element.querySelector('input')!;
      box.value = text;
      box.dispatchEvent(new KeyboardEvent('keydown', { key: 'Enter' }));
      await conditions.stable();
    };
    const chips = () => [...conditions.element.querySelectorAll('.value')].map((chip) => chip.textContent.trim());
    return { ...conditions, store, type, chips };
  };

  it('are typed in, field by field, and shown as chips', async () => {
    const { store, button, stable, type, chips, element } = await open();
    button('Add to Title').click();
    await stable();
    await type('"quality manager", technical');
    await type('not assistant');
    button('Add to Years in role').click();
    await stable();
    await type('..3');
    expect(chips()).toEqual(['“quality manager”', 'technical', 'not assistant', 'up to 3']);
    expect(element.querySelectorAll('.value.not')).toHaveLength(1);
    expect(store.text()).toBe('people where title: "quality manager" or technical; not title: assistant; years: ..3');
  });

  it('a value that cannot be is kept in the field with what would be right', async () => {
    const { button, stable, type, text, element, chips } = await open();
    button('Add to Headcount').click();
    await stable();
    await type('many');
    expect(text()).toContain('One of: 1-4, 5-10');
    expect(element.querySelector('input')!.value).toBe('many');
    await type('11-50');
    expect([chips(), text().includes('One of:')]).toEqual([['11-50'], false]);
  });

  it('a long list is shown in part, and a chip goes with the Delete key', async () => {
    const { store, chips, text, stable, element } = await open();
    store.set(parseSearch(`company: ${Array.from({ length: 300 }, (_, i) => `"Firm ${i}"`).join(' or ')}`).search!);
    await stable();
    expect(chips()).toHaveLength(12);
    expect(text()).toContain('and 288 more');
    element.querySelector('.value')!.dispatchEvent(new KeyboardEvent('keydown', { key: 'Delete' }));
    await stable();
    expect(chips()[0]).toBe('“Firm 1”');
  });
});
