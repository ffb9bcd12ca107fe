import { ChangeDetectionStrategy, Component, computed, inject, signal } from '@angular/core';
import { MatButtonModule } from '@angular/material/button';
import { MatDialog } from '@angular/material/dialog';
import { RouterLink } from '@angular/router';
import { errorWords, runName, stepWaits, type ErrorCode, type Job, type SearchRow } from '@sieve/contract';
import { signalStore } from '@ngrx/signals';
import { Store } from '@ngrx/store';
import { Session } from '../../state/session';
import { valueOf, withLoaded } from '../../state/asked';
import { work } from '../../state/work';
import { CountPipe } from '../../ui/count';
import { forWhom } from '../../ui/for-whom';
import { Icon } from '../../ui/icon/icon';
import { JobMeter } from '../../ui/job-meter';
import { sieveLevels } from '../../ui/levels';
import { MoneyPipe } from '../../ui/money';
import { RunLine } from '../../ui/run-line';
import { Status } from '../../ui/status/status';
import { SieveShape } from '../../ui/sieve-shape';
import { whenWords } from '../../ui/when';
import { SpendChart } from './spend-chart';

const SearchesStore = signalStore(withLoaded((api) => api.searches()));
const SpendStore = signalStore(withLoaded((api) => api.spend()));

/** The jobs with how far each is, what waits for a person, what runs, what was spent. */
@Component({
  selector: 'cs-desk',
  changeDetection: ChangeDetectionStrategy.OnPush,
  imports: [RouterLink, MatButtonModule, Icon, JobMeter, SieveShape, RunLine, CountPipe, MoneyPipe, SpendChart, Status],
  providers: [SearchesStore, SpendStore],
  templateUrl: './desk.html',
  styleUrl: './desk.scss',
})
export class Desk {
  private readonly store = inject(Store);
  private readonly session = inject(Session);
  private readonly dialog = inject(MatDialog);
  protected readonly jobs = this.store.selectSignal(work.selectAllJobs);
  protected readonly loaded = this.store.selectSignal(work.selectLoaded);
  private readonly runs = this.store.selectSignal(work.selectAllRuns);
  protected readonly running = this.store.selectSignal(work.selectLiveRuns);
  /** Failed and not looked at yet. */
  protected readonly failed = computed(() =>
    this.runs().filter(({ state, seenAt }) => state === 'failed' && seenAt === null),
  );
  protected readonly runName = runName;
  protected readonly forWhom = forWhom;
  protected readonly day = signal(new Date().toLocaleDateString('en-GB', { weekday: 'long' }));
  protected readonly month = new Date().toLocaleDateString('en-GB', { month: 'long' });
  private readonly searchesStore = inject(SearchesStore);
  private readonly spendStore = inject(SpendStore);
  private readonly searches = computed(() => valueOf(this.searchesStore.asked()) ?? []);
  protected readonly standing = computed(() =>
    this.searches().filter(({ nextAt, failed }) => nextAt !== null && failed === null),
  );
  /** Standing searches that were due and could not be asked. */
  protected readonly unasked = computed(() => this.searches().filter(({ failed }) => failed !== null));
  protected readonly why = ({ failed }: SearchRow) => errorWords(failed!.error as ErrorCode, failed!.details);
  protected readonly when = whenWords;
  protected readonly spendRequest = this.spendStore.asked;
  protected readonly searchesRequest = this.searchesStore.asked;
  protected readonly spend = computed(() => valueOf(this.spendStore.asked()) ?? []);
  protected readonly spentThisMonth = computed(() => {
    const timeZone = this.session.settings()?.timeZone || undefined;
    const month = new Date().toLocaleDateString('sv-SE', { timeZone }).slice(0, 7);
    return this.spend()
      .filter(({ day }) => day.startsWith(month))
      .reduce((sum, { cents }) => sum + cents, 0);
  });
  protected readonly levels = sieveLevels;
  protected readonly waits = computed(() =>
    this.jobs().flatMap((job) => {
      if (!job.summary) return [];
      const { pairs } = job.summary;
      const rows = { job, link: ['/jobs', job.id] };
      return [
        {
          icon: 'merge' as const,
          count: pairs,
          what: pairs === 1 ? 'pair to judge' : 'pairs to judge',
          job,
          link: ['/jobs', job.id, 'judge'],
          query: {},
        },
        ...waitingSteps(job).flatMap(({ id, kind, look, waits, stale }) => [
          {
            ...rows,
            icon: 'eye' as const,
            count: look,
            what: look === 1 ? 'row wants a look' : 'rows want a look',
            query: { step: id, fate: 'look' },
          },
          {
            ...rows,
            icon: 'search' as const,
            count: waits - stale,
            what: stepWaits(kind, waits - stale),
            query: { step: id, fate: 'waits' },
          },
          {
            ...rows,
            icon: 'clock' as const,
            count: stale,
            what: stale === 1 ? 'answer is too old' : 'answers are too old',
            query: { step: id, fate: 'waits' },
          },
        ]),
      ].filter(({ count }) => count > 0);
    }),
  );

  constructor() {
    this.searchesStore.load();
    this.spendStore.load();
  }

  protected nextStep(job: Job): string {
    const n = (count: number) => count.toLocaleString('en-GB');
    const { summary, targetValid } = job;
    if (!summary || summary.records === 0) return 'Bring in a file to begin';
    const steps = waitingSteps(job);
    const looks = steps.reduce((sum, { look }) => sum + look, 0);
    const parts: string[] = [];
    if (summary.pairs > 0) parts.push(`${n(summary.pairs)} ${summary.pairs === 1 ? 'pair' : 'pairs'} to judge`);
    if (looks > 0) parts.push(`${n(looks)} ${looks === 1 ? 'row wants' : 'rows want'} a look`);
    if (parts.length > 0) return parts.join(' · ');
    const waiting = steps.find(({ waits }) => waits > 0);
    if (waiting) return `${n(waiting.waits)} ${stepWaits(waiting.kind, waiting.waits)}`;
    if (targetValid > 0 && summary.verdicts.valid >= targetValid) return 'Target reached: ready to export';
    return `${n(summary.verdicts.valid)} ready to export`;
  }

  protected async newJob() {
    const { BriefDialog } = await import('../../ui/brief-dialog');
    this.dialog.open(BriefDialog, { width: '480px', data: null });
  }
}

/** The counts of a job's steps, with their kinds. */
const waitingSteps = ({ sieve, summary }: Job) =>
  (summary?.steps ?? []).map((count) => ({
    ...count,
    kind: sieve.find(({ id }) => id === count.id)?.kind ?? '',
    /** Of those that wait: asked before, too long ago. */
    stale: count.why['no-longer-fresh'] ?? 0,
  }));
