import { computed, inject } from '@angular/core';
import type { Condition, Search, Subject } from '@sieve/core';
import { withCondition } from '@sieve/core/model/search';
import { proposeName } from '@sieve/core/search/describe';
import { parseSearch } from '@sieve/core/search/parse';
import { printSearch } from '@sieve/core/search/print';
import type { SearchBatchesBody, PageView, SampleView, SearchPatch, SearchView } from '@sieve/contract';
import { patchState, signalStore, withComputed, withMethods, withState } from '@ngrx/signals';
import { rxMethod } from '@ngrx/signals/rxjs-interop';
import { catchError, debounceTime, EMPTY, pipe, switchMap, tap, throttleTime, type Observable } from 'rxjs';
import { Api, wordsOf } from '../../api/api';
import { Doing } from '../../state/doing';
import { Notices } from '../../ui/notices';

interface SearchState {
  search: Search;
  /** The saved search; null while it has no name. */
  saved: SearchView | null;
  count: number | null;
  cap: number;
  counting: boolean;
  problem: string;
  sample: SampleView | null;
  sampling: boolean;
  page: PageView | null;
  pageAt: number;
  splitting: boolean;
  saving: boolean;
}

const NONE: SearchState = {
  search: { about: 'people', conditions: [] },
  saved: null,
  count: null,
  cap: 2500,
  counting: false,
  problem: '',
  sample: null,
  sampling: false,
  page: null,
  pageAt: 1,
  splitting: false,
  saving: false,
};

/** The working state of the search screen: conditions, and what the directory answers to them. */
export const SearchStore = signalStore(
  withState(NONE),
  withComputed(({ search, saved }) => ({
    text: computed(() => printSearch(search())),
    /** The job that the rows go to. */
    jobId: computed(() => saved()?.jobId ?? null),
    /** The conditions differ from those that are saved. */
    changed: computed(() => saved() !== null && printSearch(saved()!.search) !== printSearch(search())),
  })),
  withMethods((store, api = inject(Api), notices = inject(Notices), doing = inject(Doing)) => {
    const tell = (error: unknown) => {
      patchState(store, { problem: wordsOf(error), counting: false, sampling: false });
      return EMPTY;
    };
    const ask = rxMethod<Search>(
      pipe(
        tap(() => patchState(store, { counting: true })),
        debounceTime(250),
        switchMap((search) =>
          api.countSearch(search).pipe(
            tap(({ count, cap }) => patchState(store, { count, cap, counting: false, problem: '' })),
            catchError(tell),
          ),
        ),
      ),
    );
    const askPage = rxMethod<number>(
      pipe(
        switchMap((pageAt) =>
          api.directoryPage(store.search(), pageAt).pipe(
            tap((page) => patchState(store, { page, pageAt, problem: '' })),
            catchError(tell),
          ),
        ),
      ),
    );
    const askSample = rxMethod<number | null>(
      pipe(
        tap(() => patchState(store, { sampling: true })),
        switchMap((jobId) =>
          api.sample(store.search(), 20, jobId).pipe(
            tap((sample) => patchState(store, { sample, sampling: false, problem: '' })),
            catchError(tell),
          ),
        ),
      ),
    );
    /** Has the server do something, and shows the search as it is then. */
    const send = (request: Observable<SearchView>, then: () => void = () => undefined) =>
      doing.run(
        request,
        (saved) => {
          patchState(store, { saved, splitting: false, saving: false });
          then();
        },
        (words) => {
          waiting = [];
          patchState(store, { splitting: false, saving: false });
          notices.bad(words);
        },
      );
    /** What goes on once it is saved. */
    let waiting: (() => void)[] = [];
    /** Saves what is not saved yet, under a name made from the conditions, and goes on. */
    function save(then: () => void) {
      const { saved, search, changed, saving } = store;
      const before = saved();
      if (!saving() && before && !changed()) return then();
      waiting.push(then);
      // Pressed twice, it is saved once, and both go on.
      if (saving()) return;
      patchState(store, { saving: true });
      send(
        before
          ? api.patchSearch(before.id, { search: search() })
          : api.createSearch({ name: proposeName(search()), folder: '', jobId: null, search: search() }),
        () => {
          if (before && before.batches > 0)
            notices.say(
              `The ${before.batches === 1 ? 'batch' : `${before.batches} batches`} of the conditions before went with them. Ctrl Z brings both back.`,
            );
          const next = waiting;
          waiting = [];
          for (const go of next) go();
        },
      );
    }
    /** Changes what is not a condition; conditions that are not saved yet stay so, and the batches with those that are. */
    function patch(changes: SearchPatch) {
      const change = () => send(api.patchSearch(store.saved()!.id, changes));
      if (store.saved()) change();
      else save(change);
    }
    const reload = rxMethod<void>(
      pipe(
        throttleTime(500, undefined, { leading: true, trailing: true }),
        switchMap(() => {
          const id = store.saved()?.id;
          return id === undefined
            ? EMPTY
            : api.search(id).pipe(
                tap((saved) => patchState(store, { saved })),
                catchError(() => EMPTY),
              );
        }),
      ),
    );
    function set(search: Search) {
      patchState(store, { search, sample: null, page: null, pageAt: 1 });
      ask(search);
    }
    function remove(condition: number, at: number) {
      const conditions = store.search().conditions.flatMap((given, i): Condition[] => {
        if (i !== condition) return [given];
        if ('terms' in given)
          return given.terms.length > 1 ? [{ ...given, terms: given.terms.filter((_, k) => k !== at) }] : [];
        return given.ranges.length > 1 ? [{ ...given, ranges: given.ranges.filter((_, k) => k !== at) }] : [];
      });
      set({ ...store.search(), conditions });
    }
    return {
      set,
      load(id: number) {
        doing.run(api.search(id), (saved) => {
          patchState(store, { ...NONE, saved, search: saved.search });
          ask(saved.search);
        });
      },
      save,
      patch,
      /** The saved search as the server has it; at most twice a second, however fast the news come. */
      reload,
      split(then: () => void = () => undefined) {
        patchState(store, { splitting: true });
        save(() => send(api.splitSearch(store.saved()!.id), then));
      },
      setBatches(batches: SearchBatchesBody['batches'], then: () => void) {
        save(() => send(api.setBatches(store.saved()!.id, batches), then));
      },
      splitBatch: (position: number, field: string) => send(api.splitBatch(store.saved()!.id, position, field)),
      joinBatches: (a: number, b: number) => send(api.joinBatches(store.saved()!.id, a, b)),
      askNow: () => doing.run(api.askNow(store.saved()!.id), () => reload()),
      clear(about: Subject) {
        patchState(store, { ...NONE, search: { about, conditions: [] } });
        ask(store.search());
      },
      askPage,
      askSample,
      retry: () => ask(store.search()),
      /** Reads a value typed beside a field; true when it was understood. */
      add(field: string, typed: string): boolean {
        const not = /^not\s+/i.test(typed.trim());
        const { search: read, error } = parseSearch(
          `${not ? 'not ' : ''}${field}: ${typed.trim().replace(/^not\s+/i, '')}`,
          store.search().about,
        );
        if (error) return false;
        set(read.conditions.reduce(joined, store.search()));
        return true;
      },
      addCondition: (condition: Condition) => set(joined(store.search(), condition)),
      remove,
      /** Puts a term in quotation marks, or takes them away. */
      quote(condition: number, at: number) {
        set({
          ...store.search(),
          conditions: store
            .search()
            .conditions.map((given, i) =>
              i === condition && 'terms' in given
                ? { ...given, terms: given.terms.map((term, k) => (k === at ? { ...term, exact: !term.exact } : term)) }
                : given,
            ),
        });
      },
      /** Turns one value from wanted to unwanted, or back. */
      turn(condition: number, at: number) {
        const given = store.search().conditions[condition]!;
        const one: Condition =
          'terms' in given
            ? { ...given, not: !given.not, terms: [given.terms[at]!] }
            : { ...given, not: !given.not, ranges: [given.ranges[at]!] };
        remove(condition, at);
        set(joined(store.search(), one));
      },
    };
  }),
);

/** A search with one condition more; values of a field that is there already become alternatives. */
function joined(search: Search, more: Condition): Search {
  const at = search.conditions.findIndex(
    (given) => given.field === more.field && given.not === more.not && 'terms' in given === 'terms' in more,
  );
  if (at < 0) return withCondition(search, more);
  return {
    ...search,
    conditions: search.conditions.map((given, i) => {
      if (i !== at) return given;
      if ('terms' in given && 'terms' in more) {
        const known = new Set(given.terms.map(({ text, exact }) => `${exact} ${text.toLowerCase()}`));
        return {
          ...given,
          terms: [
            ...given.terms,
            ...more.terms.filter(({ text, exact }) => !known.has(`${exact} ${text.toLowerCase()}`)),
          ].slice(0, 500),
        };
      }
      return 'ranges' in given && 'ranges' in more ? { ...given, ranges: [...given.ranges, ...more.ranges] } : given;
    }),
  };
}
