import { Clipboard } from '@angular/cdk/clipboard';
import { ChangeDetectionStrategy, Component, computed, effect, inject, input, signal, untracked } from '@angular/core';
import { takeUntilDestroyed } from '@angular/core/rxjs-interop';
import { MatButtonModule } from '@angular/material/button';
import { Router } from '@angular/router';
import { SUBJECTS, type Subject } from '@sieve/core/model/search';
import { parseSearch } from '@sieve/core/search/parse';
import { runWords, type Run } from '@sieve/contract';
import { Store } from '@ngrx/store';
import { Actions, ofType } from '@ngrx/effects';
import { filter } from 'rxjs';
import { Decisions } from '../../state/decisions';
import { Session } from '../../state/session';
import { work, workActions } from '../../state/work';
import { CountPipe } from '../../ui/count';
import { Icon } from '../../ui/icon/icon';
import { Notices } from '../../ui/notices';
import { RunLine } from '../../ui/run-line';
import { CameList } from './came-list';
import { FoundRows } from './found-rows';
import { SamplePane } from './sample-pane';
import { Shortcuts } from '../../ui/shortcuts/shortcuts';
import { type Tab as TabOf, Tabs } from '../../ui/tabs/tabs';
import { Sentence } from '../../ui/sentence/sentence';
import type { Apply, CountIf, ValuesOf } from '../../ui/sentence/sentence-model';
import { inSearch, termAlone, sentenceFields } from './search-sentence';
import { searchErrorWords, SearchStore } from './search-store';
import { SplitView } from './split-view';

const TABS = ['rows', 'split', 'came'] as const;
type Tab = (typeof TABS)[number];
const SUBJECT_WORDS: Record<Subject, string> = { people: 'People', companies: 'Companies', postings: 'Postings' };

/** A search: its conditions as a sentence above, its rows, split and pulls in the middle, a checked sample on the right. */
@Component({
  selector: 'cs-search',
  changeDetection: ChangeDetectionStrategy.OnPush,
  imports: [Tabs, MatButtonModule, Icon, CountPipe, Sentence, RunLine, FoundRows, SplitView, CameList, SamplePane],
  providers: [SearchStore],
  templateUrl: './search.html',
  styleUrl: './search.scss',
})
export class SearchScreen {
  private readonly router = inject(Router);
  private readonly notices = inject(Notices);
  private readonly clipboard = inject(Clipboard);
  private readonly settings = inject(Session).settings;
  protected readonly store = inject(SearchStore);

  /** Number of a saved search; undefined at /search/new. */
  readonly id = input<string | undefined, string>(undefined, { transform: (id) => (id === 'new' ? undefined : id) });
  /** The search as text, so that a shared address shows it. */
  readonly q = input<string>();
  readonly tab = input<Tab, string | undefined>('rows', {
    transform: (tab) => TABS.find((known) => known === tab) ?? 'rows',
  });

  protected readonly subjects = SUBJECTS.map((about) => ({ about, words: SUBJECT_WORDS[about] }));
  protected readonly words = SUBJECT_WORDS;
  private readonly runs = inject(Store).selectSignal(work.selectLiveRuns);
  /** The run that splits it. */
  protected readonly splitRun = computed(() => this.runs().find(({ id }) => id === this.store.saved()?.splitting));
  /** All of it fits into one batch; not while the count is not known. */
  protected readonly whole = computed(() => this.store.count() !== null && this.store.count()! <= this.store.cap());
  /** How much of the first batch it fills, in per cent. */
  protected readonly filled = computed(() => Math.min(1, (this.store.count() ?? 0) / this.store.cap()) * 100);
  protected readonly tabs = computed<TabOf<Tab>[]>(() => {
    const saved = this.store.saved();
    return [
      { id: 'rows', label: 'Rows', count: null },
      { id: 'split', label: 'Split', count: saved?.batches || null },
      { id: 'came', label: 'What came', count: saved?.pulls.length || null },
    ];
  });
  protected readonly fields = computed(() => sentenceFields(this.store.search().about));
  protected readonly apply: Apply = (change) => this.store.change(inSearch(this.store.search(), change));
  protected readonly countIf: CountIf = (change) => this.store.countIf(inSearch(this.store.search(), change));
  protected readonly valuesOf: ValuesOf = (clause, token) =>
    this.store.valuesHolding(termAlone(this.store.search(), clause, token));
  /** Where the cap cuts through all that match, in per cent; as many marks as can be told apart. */
  protected readonly caps = computed(() => {
    const [count, cap] = [this.store.count() ?? 0, this.store.cap()];
    const cuts = Math.min(20, Math.ceil(count / cap) - 1);
    return Array.from({ length: Math.max(0, cuts) }, (_, i) => (((i + 1) * cap) / count) * 100);
  });
  /** The last address that this screen wrote; it arrives when more may have been said already. */
  private written: string | null = null;
  protected readonly asText = signal(false);
  protected readonly textProblem = signal('');
  protected readonly directoryName = computed(() => {
    const directory = this.settings()?.directory;
    return directory ? `${directory.name}${directory.simulated ? ' (simulated)' : ''}` : 'no directory set up';
  });

  constructor() {
    const decisions = inject(Decisions);
    const onSearch = (act: 'undo' | 'redo') => {
      const subjectId = this.store.saved()?.id;
      if (subjectId === undefined) return false;
      decisions[act]({ subject: 'search', subjectId }, () => this.store.load(subjectId));
      return true;
    };
    inject(Shortcuts).use({ 'ctrl+z': () => onSearch('undo'), 'ctrl+shift+z': () => onSearch('redo') });
    effect(() => {
      const id = this.id();
      const q = this.q();
      untracked(() => this.show(id, q));
    });
    // The address says what is shown.
    effect(() => {
      const [text, q] = [this.store.text(), this.q() ?? 'people'];
      untracked(() => {
        if (this.id() !== undefined || text === q) return;
        this.written = text;
        void this.router.navigate([], { queryParams: { q: text }, queryParamsHandling: 'merge', replaceUrl: true });
      });
    });
    inject(Actions)
      .pipe(
        ofType(workActions.searchChanged, workActions.runMoved),
        filter((action) =>
          action.type === workActions.searchChanged.type
            ? action.searchId === this.store.saved()?.id
            : 'searchId' in action.run.input && action.run.input.searchId === this.store.saved()?.id,
        ),
        takeUntilDestroyed(),
      )
      .subscribe((action) => {
        this.store.reload();
        if (action.type === workActions.runMoved.type && action.run.input.kind === 'split') this.splitMoved(action.run);
      });
  }

  private splitMoved(run: Run) {
    if (run.state === 'failed') this.notices.bad(`It was not split. ${runWords(run)}`);
  }

  private show(id: string | undefined, q: string | undefined) {
    if (id === undefined && q === this.written) return;
    this.written = null;
    if (id !== undefined) {
      if (this.store.saved()?.id !== Number(id)) this.store.load(Number(id));
    } else if (q === undefined || q !== this.store.text() || this.store.count() === null) {
      const { search } = parseSearch(q ?? '');
      this.store.clear(search?.about ?? 'people');
      if (search) this.store.set(search);
    }
  }

  protected go(tab: Tab) {
    const id = this.store.saved()?.id;
    if (id === undefined) void this.router.navigate([], { queryParams: { tab }, queryParamsHandling: 'merge' });
    else void this.router.navigate(['/search', id], { queryParams: { tab } });
  }

  protected chooseSubject(about: Subject) {
    if (about !== this.store.search().about) this.store.clear(about);
  }

  protected readText(text: string) {
    const { search, error } = parseSearch(text.trim(), this.store.search().about);
    if (error) return this.textProblem.set(searchErrorWords(error));
    this.textProblem.set('');
    this.asText.set(false);
    this.store.set(search);
  }

  protected copyText() {
    this.clipboard.copy(this.store.text());
    this.notices.say('The search is copied as text');
  }

  protected save() {
    const tab = this.tab();
    this.store.save(() => this.go(tab));
  }

  protected split() {
    this.store.split(() => this.go('split'));
  }
}
