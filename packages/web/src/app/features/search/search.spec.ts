import { TestBed } from '@angular/core/testing';
import { Router } from '@angular/router';
import { parseSearch } from '@sieve/core/search/parse';
import { printSearch } from '@sieve/core/search/print';
import { drawn, webHarness } from '../../testing/web-harness';
import { SearchScreen } from './search';
import { SearchStore } from './search-store';

it('the address follows what is said, and never takes back what was said since it was written', async () => {
  webHarness();
  const written: unknown[] = [];
  jest.spyOn(TestBed.inject(Router), 'navigate').mockImplementation((_, extras) => {
    written.push(extras!.queryParams!['q']);
    return Promise.resolve(true);
  });
  const { fixture, stable } = await drawn(SearchScreen);
  const store = fixture.debugElement.injector.get(SearchStore);
  const say = (text: string) => store.set(parseSearch(text).search!);

  const [both, one] = ['title: technical, sales', 'title: technical'].map((text) =>
    printSearch(parseSearch(text).search!),
  );
  say('title: technical, sales');
  await stable();
  // A value is taken out; the address of the search before arrives only now.
  say('title: technical');
  fixture.componentRef.setInput('q', both!);
  await stable();
  expect(store.text()).toBe(one!);
  expect(written).toEqual([both!, one!]);

  // An address that somebody follows is shown, also one that was written before.
  fixture.componentRef.setInput('q', one!);
  await stable();
  fixture.componentRef.setInput('q', both!);
  await stable();
  expect(store.text()).toBe(both!);
});
