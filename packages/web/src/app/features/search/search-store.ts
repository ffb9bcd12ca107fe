import { computed, inject } from '@angular/core';
import type { Condition, Search, Subject } from '@sieve/core';
import { changeSearch, joined, type SearchChange } from '@sieve/core/search/change';
import { holds } from '@sieve/core/search/evaluate';
import { proposeName } from '@sieve/core/search/describe';
import { printSearch } from '@sieve/core/search/print';
import type { SearchError } from '@sieve/core/search/parse';
import {
  SEARCH_ERROR_WORDS,
  type PageView,
  type SampleView,
  type SearchBatchesBody,
  type SearchPatch,
  type SearchView,
} from '@sieve/contract';
import { patchState, signalStore, withComputed, withMethods, withState } from '@ngrx/signals';
import { rxMethod } from '@ngrx/signals/rxjs-interop';
import {
  catchError,
  concatMap,
  debounceTime,
  EMPTY,
  filter,
  from,
  map,
  of,
  pipe,
  switchMap,
  tap,
  throttleTime,
  type Observable,
} from 'rxjs';
import { Api, wordsOf } from '../../api/api';
import { Doing } from '../../state/doing';
import { Notices } from '../../ui/notices';
import type { HeldValue } from '../../ui/sentence/sentence-model';
import { beginning, clausesOf, type TermAlone } from './search-sentence';

/** Values that are listed under one of the sentence. */
const MOST_HELD = 6;

interface SearchState {
  search: Search;
  /** The saved search; null while it has no name. */
  saved: SearchView | null;
  count: number | null;
  cap: number;
  counting: boolean;
  problem: string;
  /** Counts of the beginnings of the sentence, by their text. */
  counts: Record<string, number>;
  sample: SampleView | null;
  sampling: boolean;
  page: PageView | null;
  pageAt: number;
  /** Was asked to be split; the server has not said yet that it is. */
  splitAsked: boolean;
  saving: boolean;
}

const NONE: SearchState = {
  search: { about: 'people', conditions: [] },
  saved: null,
  count: null,
  cap: 2500,
  counting: false,
  problem: '',
  counts: {},
  sample: null,
  sampling: false,
  page: null,
  pageAt: 1,
  splitAsked: false,
  saving: false,
};

/** What the sentence says so far, from nothing to all but its last clause. */
const beginnings = (search: Search) => search.conditions.map((_, i) => beginning(search, i));

export const searchErrorWords = ({ code, input, at, oneOf }: SearchError): string =>
  `${SEARCH_ERROR_WORDS[code].replace('{x}', input)} (character ${at + 1}).${oneOf ? ` One of: ${oneOf.join(', ')}.` : ''}`;

/** The working state of the search screen: conditions, and what the directory answers to them. */
export const SearchStore = signalStore(
  withState(NONE),
  withComputed(({ search, saved, counts, count, counting, splitAsked }) => ({
    splitting: computed(() => splitAsked() || (saved()?.splitting ?? null) !== null),
    /** The conditions as a sentence, each with what it takes away of what those before it leave. */
    clauses: computed(() => {
      const left = beginnings(search()).map((one) => counts()[printSearch(one)] ?? null);
      return clausesOf(search(), [...left, counting() ? null : count()]);
    }),
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
            tap(({ count, cap }) => {
              patchState(store, { count, cap, counting: false, problem: '' });
              askBeginnings(search);
            }),
            catchError(tell),
          ),
        ),
      ),
    );
    /** One question after the other, as many as are not known yet; given up where the directory does not answer. */
    const askBeginnings = rxMethod<Search>(
      pipe(
        switchMap((search) =>
          from(beginnings(search)).pipe(
            filter((one) => store.counts()[printSearch(one)] === undefined),
            concatMap((one) =>
              api
                .countSearch(one)
                .pipe(
                  tap(({ count }) => patchState(store, { counts: { ...store.counts(), [printSearch(one)]: count } })),
                ),
            ),
            catchError(() => EMPTY),
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
          patchState(store, { saved, splitAsked: false, saving: false });
          then();
        },
        (words) => {
          waiting = [];
          patchState(store, { splitAsked: false, saving: false });
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
    /** Changes the search; what cannot be read in words, '' when it is done. */
    function change(to: SearchChange): string {
      const { search, error } = changeSearch(store.search(), to);
      if (error) return searchErrorWords(error);
      set(search);
      return '';
    }
    return {
      set,
      load(id: number) {
        doing.run(api.search(id), (saved) => {
          patchState(store, { ...NONE, counts: store.counts(), saved, search: saved.search });
          ask(saved.search);
        });
      },
      save,
      patch,
      /** The saved search as the server has it; at most twice a second, however fast the news come. */
      reload,
      split(then: () => void = () => undefined) {
        patchState(store, { splitAsked: true });
        save(() => send(api.splitSearch(store.saved()!.id), then));
      },
      setBatches(batches: SearchBatchesBody['batches'], then: () => void) {
        save(() => send(api.setBatches(store.saved()!.id, batches), then));
      },
      splitBatch: (position: number, field: string) => send(api.splitBatch(store.saved()!.id, position, field)),
      joinBatches: (a: number, b: number) => send(api.joinBatches(store.saved()!.id, a, b)),
      restore: (decision: number) =>
        doing.run(api.restoreBatches(store.saved()!.id, decision), (saved) => {
          patchState(store, { saved, search: saved.search, sample: null, page: null, pageAt: 1 });
          ask(saved.search);
          notices.say('The batches are back, with the conditions they were of. Ctrl Z takes it back.');
        }),
      askNow: () => doing.run(api.askNow(store.saved()!.id), () => reload()),
      clear(about: Subject) {
        patchState(store, { ...NONE, counts: store.counts(), search: { about, conditions: [] } });
        ask(store.search());
      },
      askPage,
      askSample,
      retry: () => ask(store.search()),
      change,
      /** How many there would be; null where the change cannot be read, or the directory not be asked. */
      countIf(to: SearchChange): Observable<number | null> {
        const { search } = changeSearch(store.search(), to);
        return search
          ? api.countSearch(search).pipe(
              map(({ count }) => count),
              catchError(() => of(null)),
            )
          : of(null);
      },
      /** The most common values of a field that hold a term; none where the directory does not count them, or cannot be asked. */
      valuesHolding(alone: TermAlone | null): Observable<readonly HeldValue[]> {
        if (alone === null) return of([]);
        const { search, condition } = alone;
        return api.directoryValues(search, condition.field).pipe(
          map((values) => (values ?? []).filter(({ value }) => holds(condition, value)).slice(0, MOST_HELD)),
          catchError(() => of([])),
        );
      },
      addCondition: (condition: Condition) => set(joined(store.search(), condition)),
    };
  }),
);
