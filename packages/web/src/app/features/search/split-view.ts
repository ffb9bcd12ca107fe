import { Clipboard } from '@angular/cdk/clipboard';
import { ChangeDetectionStrategy, Component, computed, inject, signal } from '@angular/core';
import { MatButtonModule } from '@angular/material/button';
import { MatMenuModule } from '@angular/material/menu';
import { RouterLink } from '@angular/router';
import { SEARCH_FIELDS } from '@sieve/core/model/search';
import { describeCondition } from '@sieve/core/search/describe';
import { printSearch } from '@sieve/core/search/print';
import { runWords, type PullBody, type PullView, type Run, type SearchBatch } from '@sieve/contract';
import { signalStore } from '@ngrx/signals';
import { Store } from '@ngrx/store';
import { EMPTY } from 'rxjs';
import { Api } from '../../api/api';
import { valueOf, withAsked } from '../../state/asked';
import { Doing } from '../../state/doing';
import { work, workActions } from '../../state/work';
import { CountPipe } from '../../ui/count';
import { MoneyPipe } from '../../ui/money';
import { Icon } from '../../ui/icon/icon';
import { Notices } from '../../ui/notices';
import { whenWords } from '../../ui/when';
import { Earlier } from './earlier';
import { ByHand } from './by-hand';
import { Icicle } from './icicle';
import { SearchStore } from './search-store';
import { JobSelect } from '../../ui/job-select';

/** Where the cap stands on the ruler of a batch, in per cent. */
const CAP_AT = 86;

const ForecastStore = signalStore(
  withAsked((api, to: { id: number; body: PullBody } | null) => (to ? api.forecastPull(to.id, to.body) : EMPTY)),
);

/** The split of a search drawn and listed, made by hand or found, and the pulls of its batches. */
@Component({
  selector: 'cs-split-view',
  changeDetection: ChangeDetectionStrategy.OnPush,
  imports: [JobSelect, RouterLink, MatButtonModule, MatMenuModule, Icon, CountPipe, MoneyPipe, Icicle, ByHand, Earlier],
  providers: [ForecastStore],
  templateUrl: './split-view.html',
  styleUrl: './split-view.scss',
})
export class SplitView {
  private readonly api = inject(Api);
  private readonly notices = inject(Notices);
  private readonly clipboard = inject(Clipboard);
  private readonly store = inject(Store);
  private readonly runs = this.store.selectSignal(work.selectAllRuns);
  protected readonly runWords = (run: Run | undefined) => (run ? runWords(run) : '');
  protected readonly search = inject(SearchStore);
  /** The batches as lines, while they are written by hand. */
  protected readonly byHand = signal<string | null>(null);
  protected readonly chosen = signal<number | null>(null);
  private readonly doing = inject(Doing);
  private readonly forecasts = inject(ForecastStore);
  protected readonly forecast = computed(() => (this.toPull() === null ? null : valueOf(this.forecasts.asked())));
  protected readonly when = whenWords;
  /** Rows of each batch that are pulled, from the first on; 0: all. */
  protected readonly firstRows = signal(0);
  /** What a batch can be cut by. */
  protected readonly fields = computed(() =>
    SEARCH_FIELDS.filter(({ splits }) => splits?.includes(this.search.search().about)),
  );

  protected readonly batches = computed(() => {
    const runs = new Map(this.runs().map((run) => [run.id, run]));
    const share = (n: number) => Math.min(100, (n / this.search.cap()) * CAP_AT);
    return (this.search.saved()?.batchViews ?? []).map((batch) => {
      const run = batch.pull ? runs.get(batch.pull.runId) : undefined;
      return {
        ...batch,
        name: batchName(batch),
        size: share(batch.count),
        had: share(batch.pull?.came ?? 0),
        run,
        state: stateWords(batch, run),
      };
    });
  });
  /** Batches that the job does not have yet: never pulled into it, stopped for good, or taken back. */
  protected readonly left = computed(
    () =>
      (this.search.saved()?.batchViews ?? []).filter(
        ({ pull, count }) =>
          pull === null ||
          pull.jobId !== this.search.jobId() ||
          pull.stopped ||
          pull.takenBack ||
          isPartly(pull, count),
      ),
    // News of a pull that goes on must not ask for the forecast of the others again.
    { equal: (a, b) => a.length === b.length && a.every(({ id }, i) => id === b[i]!.id) },
  );
  protected readonly totals = computed(() => {
    const pulls = this.search.saved()?.pulls ?? [];
    const sum = (of: (pull: (typeof pulls)[number]) => number) => pulls.reduce((all, pull) => all + of(pull), 0);
    return { came: sum(({ came }) => came), fresh: sum(({ fresh }) => fresh), yours: sum(({ yours }) => yours) };
  });

  constructor() {
    // Time and pace are said before anything is pulled.
    this.forecasts.load(this.toPull);
  }

  /** The batches that a pull would take, and where to; null while there is nothing to pull or nowhere to. */
  private toPull = computed(() => {
    const id = this.search.saved()?.id;
    const jobId = this.search.jobId();
    const batchIds = this.left().map((batch) => batch.id);
    return id === undefined || jobId === null || batchIds.length === 0
      ? null
      : { id, body: { batchIds, jobId, first: this.firstRows() } };
  });

  /** Batches as rows of a table: a name, the search in words, the count. */
  protected copy() {
    const rows = this.batches().map(({ name, search, count }) => [name, printSearch(search), count].join('\t'));
    this.clipboard.copy(['Batch\tSearch\tCount', ...rows].join('\n'));
    this.notices.say(`${rows.length} batches copied as rows`);
  }

  protected startByHand() {
    const lines = this.batches().map(({ search }) => printSearch(search));
    this.byHand.set(lines.join('\n'));
  }

  /** @param most rows of one company; no number for all */
  protected limit(most: number) {
    this.search.patch({ perCompany: most > 0 ? Math.min(1000, Math.round(most)) : 0 });
  }

  /** @param rows no number for all */
  protected takeFirst(rows: number) {
    this.firstRows.set(rows > 0 ? Math.min(this.search.cap(), Math.round(rows)) : 0);
  }

  protected pull() {
    const to = this.toPull();
    if (to) this.doing.run(this.api.pull(to.id, to.body), () => this.search.reload());
  }

  protected act(id: number, action: 'pause' | 'resume') {
    this.store.dispatch(workActions.runAsked({ id, action }));
  }
}

/** Only its first rows were pulled; there are more. */
const isPartly = ({ first, endedAt }: PullView, count: number) => first > 0 && endedAt !== null && first < count;

const batchName = ({ extra, kept, position }: SearchBatch): string =>
  Object.values(kept).filter(Boolean).join(' · ') ||
  (extra.length > 0
    ? extra.map((given) => describeCondition(given, 3)).join(' · ')
    : position === 0
      ? 'The whole search'
      : 'Its own search');

function stateWords({ pull, count }: SearchBatch, run: Run | undefined): string {
  if (!pull) return '';
  if (pull.takenBack) return 'Taken back';
  if (isPartly(pull, count)) return `The first ${pull.first.toLocaleString('en-GB')} pulled`;
  if (pull.endedAt) return 'Pulled';
  if (pull.stopped) return 'Stopped';
  if (run?.notBefore) return `Goes on ${whenWords(run.notBefore)}`;
  const words = { running: 'Pulling', queued: 'Waits its turn', paused: 'Paused', failed: 'Stopped' };
  return words[(run?.state ?? 'failed') as keyof typeof words] ?? 'Stopped';
}
