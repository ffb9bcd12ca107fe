import {
  ChangeDetectionStrategy,
  Component,
  computed,
  effect,
  type ElementRef,
  inject,
  input,
  linkedSignal,
  viewChildren,
} from '@angular/core';
import { toSignal } from '@angular/core/rxjs-interop';
import { ActivatedRoute, Router } from '@angular/router';
import type { DecisionBody, SieveStep } from '@sieve/core';
import { LEAST_TAUGHT } from '@sieve/core/steps/company/learn';
import { companyOptions, type SiteAnswer } from '@sieve/core/steps/company/options';
import { FATE_WORDS, say, type FirmQuery, type FirmRow, type Job } from '@sieve/contract';
import { valueOf } from '../../../../state/asked';
import { Decisions } from '../../../../state/decisions';
import { CountPipe } from '../../../../ui/count';
import { FilterBox } from '../../../../ui/filter-box';
import { Notices } from '../../../../ui/notices';
import { Pager } from '../../../../ui/pager';
import { Shortcuts } from '../../../../ui/shortcuts/shortcuts';
import { Status } from '../../../../ui/status/status';
import { type Tab, Tabs } from '../../../../ui/tabs/tabs';
import { AnswerMark } from './answer-mark';
import { Firm } from './firm';
import { FirmPairsList } from './firm-pairs';
import { FIRMS_A_PAGE, FirmsStore } from './firms-stores';

/** `alike`: pairs of companies that may be one. */
type Show = FirmQuery['show'] | 'alike';
const SHOWS: readonly Show[] = ['all', 'pass', 'aside', 'look', 'waits', 'teach', 'alike'];
const COLUMNS: readonly { sort: FirmQuery['sort']; label: string; figure?: true }[] = [
  { sort: 'name', label: 'Company' },
  { sort: 'domain', label: 'Domain' },
  { sort: 'sector', label: 'Sector' },
  { sort: 'headcount', label: 'People', figure: true },
  { sort: 'place', label: 'Place' },
  { sort: 'contacts', label: 'In job', figure: true },
];

/** The companies of those who came to a step: what their websites answer, what is known of them, and one of them in full. */
@Component({
  selector: 'cs-firms',
  changeDetection: ChangeDetectionStrategy.OnPush,
  imports: [CountPipe, FilterBox, Pager, Status, Tabs, AnswerMark, Firm, FirmPairsList],
  providers: [FirmsStore],
  templateUrl: './firms.html',
  styleUrl: './firms.scss',
})
export class Firms {
  private readonly store = inject(FirmsStore);
  private readonly router = inject(Router);
  private readonly decisions = inject(Decisions);
  private readonly notices = inject(Notices);
  readonly job = input.required<Job>();
  readonly step = input.required<SieveStep>();
  private readonly address = toSignal(inject(ActivatedRoute).queryParamMap, { requireSync: true });
  protected readonly options = computed(() => companyOptions.parse(this.step().options));
  protected readonly columns = COLUMNS;
  protected readonly leastTaught = LEAST_TAUGHT;

  protected readonly show = computed<Show>(() => SHOWS.find((show) => show === this.address().get('firms')) ?? 'all');
  private readonly listed = computed(() => {
    const show = this.show();
    return show === 'alike' ? 'all' : show;
  });
  protected readonly answer = computed(
    () => (['yes', 'no', 'unclear'] as const).find((answer) => answer === this.address().get('answer')) ?? null,
  );
  protected readonly q = computed(() => this.address().get('q') ?? '');
  protected readonly sort = computed(
    () => COLUMNS.find(({ sort }) => sort === this.address().get('sort'))?.sort ?? 'contacts',
  );
  protected readonly desc = computed(() => this.address().get('desc') === '1');
  protected readonly offset = linkedSignal({
    source: () => [this.show(), this.answer(), this.q(), this.sort(), this.desc()].join(),
    computation: () => 0,
  });
  /** The company that the keys are on; the address follows a moment later. */
  protected readonly key = linkedSignal(() => this.address().get('firm') ?? '');

  protected readonly request = this.store.asked;
  protected readonly page = computed(() => valueOf(this.request()));
  protected readonly pageSize = FIRMS_A_PAGE;
  protected readonly tabs = computed<Tab<Show>[]>(() => {
    const states = this.page()?.states ?? { pass: 0, aside: 0, look: 0, waits: 0 };
    const all = states.pass + states.aside + states.look + states.waits;
    return [
      { id: 'all', label: 'All', count: all },
      { id: 'pass', label: 'Pass', count: states.pass },
      { id: 'aside', label: 'Set aside', count: states.aside },
      { id: 'look', label: 'Want a look', count: states.look },
      ...(states.waits > 0 ? [{ id: 'waits' as const, label: 'Wait', count: states.waits }] : []),
      ...(this.options().question ? [{ id: 'teach' as const, label: 'Teach it', count: null }] : []),
      { id: 'alike', label: 'May be one', count: null },
    ];
  });
  /** Widths of the bar over what websites answer. */
  protected readonly bar = computed(() => {
    const answers = this.page()?.answers ?? { yes: 0, no: 0, unclear: 0 };
    const total = Math.max(1, answers.yes + answers.no + answers.unclear);
    return (['yes', 'no', 'unclear'] as const).map((answer) => ({
      answer,
      count: answers[answer],
      width: (100 * answers[answer]) / total,
    }));
  });
  private readonly rows = viewChildren<ElementRef<HTMLElement>>('row');

  constructor() {
    this.store.load(
      computed(() => ({
        jobId: this.job().id,
        version: this.job().version,
        query: {
          step: this.step().id,
          show: this.listed(),
          ...(this.answer() && { answer: this.answer()! }),
          q: this.q(),
          sort: this.sort(),
          desc: this.desc(),
          offset: this.offset(),
          limit: FIRMS_A_PAGE,
        },
      })),
    );
    inject(Shortcuts).use({
      j: () => this.move(1),
      k: () => this.move(-1),
      arrowdown: () => this.move(1),
      arrowup: () => this.move(-1),
      // Rows of people are not on the screen: what the job does with them rests.
      e: () => true,
      space: () => false,
      enter: () => false,
      '1': () => this.go({ firms: null }),
      '2': () => this.go({ firms: 'pass' }),
      '3': () => this.go({ firms: 'aside' }),
    });
    effect(() => {
      const at = this.page()?.rows.findIndex(({ key }) => key === this.key()) ?? -1;
      if (at >= 0) this.rows()[at]?.nativeElement.scrollIntoView({ block: 'nearest' });
    });
  }

  protected go(query: Record<string, string | null>) {
    void this.router.navigate([], {
      queryParams: query,
      queryParamsHandling: 'merge',
      replaceUrl: Object.keys(query).join() === 'firm',
    });
  }

  /** Most people stand first. */
  protected isDown = (sort: FirmQuery['sort']): boolean => this.desc() !== (sort === 'contacts');

  protected sortBy(sort: FirmQuery['sort']) {
    this.go({ sort, desc: this.sort() === sort && !this.desc() ? '1' : null });
  }

  protected choose(key: string) {
    this.key.set(key);
    this.go({ firm: key });
  }

  protected move(by: 1 | -1) {
    const rows = this.page()?.rows ?? [];
    const at = rows.findIndex(({ key }) => key === this.key());
    const next = rows[at < 0 ? 0 : Math.min(rows.length - 1, Math.max(0, at + by))];
    if (next) this.choose(next.key);
  }

  /** Answers for the website of a company; the next one is next. */
  protected answered({ domain }: FirmRow, answer: SiteAnswer) {
    if (domain === '') return this.notices.say('A company without a domain has no website to answer for.');
    const { question } = this.options();
    this.decisions.decide(this.job().id, { kind: 'site-answer', question, domain, answer });
    this.move(1);
  }

  protected decide(body: DecisionBody) {
    this.decisions.decide(this.job().id, body);
  }

  protected set(fate: 'aside' | 'keep', recordIds: readonly number[]) {
    const ids = [...recordIds];
    this.decisions.decide(
      this.job().id,
      fate === 'aside' ? { kind: 'set-aside', recordIds: ids } : { kind: 'keep', recordIds: ids, step: this.step().id },
    );
    this.move(1);
  }

  protected why = ({ state, code, why }: FirmRow): string =>
    state === 'pass' ? '' : say(FATE_WORDS[code] ?? code, why);
}
