import { ChangeDetectionStrategy, Component, computed, inject, input, linkedSignal } from '@angular/core';
import { MatButtonModule } from '@angular/material/button';
import { MatDialog } from '@angular/material/dialog';
import { Router, RouterLink } from '@angular/router';
import { Store } from '@ngrx/store';
import { signalStore } from '@ngrx/signals';
import { servicesIn, type ChargeRow, type LedgerQuery } from '@sieve/contract';
import { valueOf, withAsked } from '../../state/asked';
import { Decisions } from '../../state/decisions';
import { Session } from '../../state/session';
import { work } from '../../state/work';
import { CountPipe } from '../../ui/count';
import { Icon } from '../../ui/icon/icon';
import { Meter } from '../../ui/meter';
import { MoneyPipe } from '../../ui/money';
import { Pager } from '../../ui/pager';
import { Select, type Option } from '../../ui/select/select';
import { Shortcuts } from '../../ui/shortcuts/shortcuts';
import { Status } from '../../ui/status/status';
import { GiveBack, type GivesBack } from './give-back';
import { JobFigures } from './job-figures';
import { SpendByDay } from './spend-by-day';

/** `spent`: by all jobs; what a run charges meanwhile has it asked anew. */
const LedgerStore = signalStore(
  withAsked((api, { query }: { query: LedgerQuery; spent: number }) => api.ledger(query)),
);
const A_PAGE = 100;
const FILLS = [
  'var(--spruce)',
  'var(--saffron)',
  'var(--slate)',
  'color-mix(in srgb, var(--spruce) 50%, var(--paper))',
  'var(--plum)',
  'color-mix(in srgb, var(--saffron) 50%, var(--paper))',
  'color-mix(in srgb, var(--slate) 50%, var(--paper))',
  'var(--ink-3)',
];

/** Every cent: by month, day, service and job, each charge with its reason, and what was given back. */
@Component({
  selector: 'cs-ledger',
  host: { class: 'panes' },
  changeDetection: ChangeDetectionStrategy.OnPush,
  imports: [
    RouterLink,
    MatButtonModule,
    CountPipe,
    Icon,
    JobFigures,
    Meter,
    MoneyPipe,
    Pager,
    Select,
    SpendByDay,
    Status,
  ],
  providers: [LedgerStore, MoneyPipe],
  templateUrl: './ledger.html',
  styleUrls: ['./cards.scss', './ledger.scss'],
})
export class Ledger {
  private readonly session = inject(Session);
  private readonly router = inject(Router);
  private readonly dialog = inject(MatDialog);
  private readonly money = inject(MoneyPipe);
  protected readonly store = inject(LedgerStore);
  protected readonly A_PAGE = A_PAGE;

  /** Of the address: a month like 2026-11, one service, one job. */
  readonly month = input<string>();
  readonly who = input<string>();
  readonly job = input<string>();

  protected readonly today = computed(() => {
    const timeZone = this.session.settings()?.timeZone || undefined;
    return new Date().toLocaleDateString('sv-SE', { timeZone });
  });
  protected readonly thisMonth = computed(() => this.today().slice(0, 7));
  protected readonly shown = computed(() =>
    /^\d{4}-(0[1-9]|1[0-2])$/.test(this.month() ?? '') ? this.month()! : this.thisMonth(),
  );
  protected readonly jobId = computed(() => (this.job() === undefined ? null : Number(this.job())));
  protected readonly offset = linkedSignal({
    source: () => `${this.shown()} ${this.who()} ${this.jobId()}`,
    computation: () => 0,
  });
  private readonly query = computed(
    (): LedgerQuery => ({
      month: this.shown(),
      ...(this.who() && { who: this.who() }),
      ...(this.jobId() && { jobId: this.jobId()! }),
      offset: this.offset(),
      limit: A_PAGE,
    }),
    { equal: (a, b) => JSON.stringify(a) === JSON.stringify(b) },
  );
  private readonly allJobs = inject(Store).selectSignal(work.selectAllJobs);
  private readonly asked = computed(() => ({
    query: this.query(),
    spent: this.allJobs().reduce((sum, { spentCents }) => sum + spentCents, 0),
  }));
  protected readonly view = computed(() => valueOf(this.store.asked()));
  protected readonly jobs = computed(() => this.view()?.jobs ?? []);
  /** The job that is chosen, else the one that cost most; of one that is gone there is nothing to say. */
  protected readonly figured = computed(() => {
    const chosen = this.jobs().find(({ jobId }) => jobId === this.jobId());
    return chosen ? (chosen.name === '' ? undefined : chosen) : this.jobs().find(({ valid }) => valid > 0);
  });
  private readonly allServices = computed(() => servicesIn(this.session.settings()));
  protected readonly services = computed(() =>
    (this.view()?.services ?? []).map((service, i) => ({
      ...service,
      name: this.nameOf(service.who),
      fill: FILLS[Math.min(i, FILLS.length - 1)]!,
    })),
  );
  protected readonly total = computed(() => {
    const view = this.view();
    if (!view) return 0;
    // What was given back has a line of its own.
    return view.asked.charges + view.asked.refunds;
  });
  protected readonly serviceOptions = computed((): Option<string>[] => [
    { value: '', label: 'any service' },
    ...this.services().map(({ who, name }) => ({ value: who, label: name })),
  ]);
  protected readonly jobOptions = computed((): Option<number>[] => [
    { value: 0, label: 'any job' },
    ...this.jobs().map(({ jobId, name }) => ({ value: jobId, label: name || `job ${jobId}` })),
  ]);
  protected readonly monthCents = computed(() => this.session.settings()?.budgets.monthCents ?? 0);
  protected readonly leftOfMonth = computed(() => Math.max(0, this.monthCents() - (this.view()?.all.cents ?? 0)));
  /** What each day from today on may cost for the budget of the month to last. */
  protected readonly centsADay = computed(() => {
    if (this.monthCents() === 0 || this.shown() !== this.thisMonth()) return null;
    const [year, month, day] = this.today().split('-').map(Number) as [number, number, number];
    return this.leftOfMonth() / (new Date(Date.UTC(year, month, 0)).getUTCDate() - day + 1);
  });
  protected readonly monthWords = computed(() => this.words(this.shown()));
  protected readonly monthShort = computed(() => this.words(this.shown(), 'short'));
  protected readonly beforeWords = computed(() => this.words(this.shifted(-1)));
  protected readonly file = computed(() => {
    const { month, who, jobId } = this.query();
    const query = new URLSearchParams({ month, ...(who && { who }), ...(jobId && { jobId: String(jobId) }) });
    return `/api/ledger/file?${query}`;
  });

  constructor() {
    this.store.load(this.asked);
    const decisions = inject(Decisions);
    const subject = { subject: 'settings', subjectId: 0 } as const;
    const again = () => this.store.load(this.asked());
    inject(Shortcuts).use({
      'ctrl+z': () => decisions.undo(subject, again),
      'ctrl+shift+z': () => decisions.redo(subject, again),
    });
  }

  protected nearlySpent = ({ spentCents, budgetCents }: { spentCents: number; budgetCents: number }): string =>
    budgetCents === 0 || spentCents < 0.8 * budgetCents
      ? ''
      : spentCents < budgetCents
        ? '· nearly spent'
        : '· all spent';
  protected nameOf = (who: string): string => this.allServices().find(({ id }) => id === who)?.name ?? who;
  protected fillOf = (who: string): string => this.services().find((service) => service.who === who)?.fill ?? '';
  /** What one costs; of less than a cent, what a hundred do. */
  protected price = (eachCents: number): string =>
    this.isUnderACent(eachCents)
      ? `${this.money.transform(Math.round(100 * eachCents))} a hundred`
      : this.money.transform(Math.round(eachCents));
  protected each = (cents: number, count: number): string =>
    this.price(cents / count) + (this.isUnderACent(cents / count) ? '' : ' each');
  private isUnderACent = (cents: number) => cents > 0 && cents < 1;
  protected words = (month: string, how: 'long' | 'short' = 'long'): string =>
    new Date(`${month}-15T12:00:00Z`).toLocaleDateString('en-GB', {
      month: how,
      ...(month.slice(0, 4) !== this.thisMonth().slice(0, 4) && { year: 'numeric' }),
    });
  protected when = (at: number): string => {
    const timeZone = this.session.settings()?.timeZone || undefined;
    return new Date(at).toLocaleString('en-GB', {
      timeZone,
      day: 'numeric',
      month: 'short',
      hour: '2-digit',
      minute: '2-digit',
    });
  };

  /** The month so many months on. */
  protected shifted(by: number): string {
    const [year, month] = this.shown().split('-').map(Number) as [number, number];
    return new Date(Date.UTC(year, month - 1 + by, 15)).toISOString().slice(0, 7);
  }

  protected go(queryParams: Record<string, string | number | null>) {
    void this.router.navigate(['/ledger'], { queryParams, queryParamsHandling: 'merge' });
  }

  protected giveBack(charge: ChargeRow) {
    const data: GivesBack = { charge, service: this.nameOf(charge.who) };
    this.dialog
      .open(GiveBack, { data })
      .afterClosed()
      .subscribe((done) => {
        if (done) this.store.load(this.asked());
      });
  }
}
