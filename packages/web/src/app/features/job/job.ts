import { NgComponentOutlet } from '@angular/common';
import {
  ChangeDetectionStrategy,
  Component,
  booleanAttribute,
  computed,
  effect,
  inject,
  input,
  linkedSignal,
  numberAttribute,
  signal,
  viewChild,
} from '@angular/core';
import { MatButtonModule } from '@angular/material/button';
import { MatDialog } from '@angular/material/dialog';
import { Router, RouterLink } from '@angular/router';
import type { DecisionBody } from '@sieve/core';
import { stepWords, type ContactRow, type RowQuery } from '@sieve/contract';
import { Store } from '@ngrx/store';
import { valueOf } from '../../state/asked';
import { Decisions } from '../../state/decisions';
import { work } from '../../state/work';
import { bringInto } from '../../ui/bring-into';
import { CountPipe } from '../../ui/count';
import { FilterBox } from '../../ui/filter-box';
import { Icon } from '../../ui/icon/icon';
import { Notices } from '../../ui/notices';
import { sieveLevels } from '../../ui/levels';
import { type Option, Select } from '../../ui/select/select';
import { RunLine } from '../../ui/run-line';
import { SieveShape } from '../../ui/sieve-shape';
import { isTyping, Shortcuts } from '../../ui/shortcuts/shortcuts';
import { type Tab, Tabs } from '../../ui/tabs/tabs';
import { AskBar } from './ask-bar';
import { OwnStore } from './job-stores';
import { HitRates } from './hit-rates';
import { Inspector } from './inspector';
import { PersonPane } from './person/person';
import { RowsGrid } from './rows-grid';
import { SievePane } from './sieve-pane';
import { CompaniesList } from './companies-list';
import { SourcesList } from './sources-list';
import { StepRules } from './step-rules';
import { statesOf, viewOf } from './steps/registry';

export type Fate = RowQuery['fate'];
type Show = 'sources' | 'companies';

/** What the panel of a step says in the address. */
const NO_PANEL = { firms: null, firm: null, answer: null, sort: null, desc: null };

/** A job: the sieve on the left, the rows of the chosen step in the middle, the chosen row on the right. */
@Component({
  selector: 'cs-job',
  changeDetection: ChangeDetectionStrategy.OnPush,
  imports: [
    NgComponentOutlet,
    RouterLink,
    MatButtonModule,
    Icon,
    CountPipe,
    FilterBox,
    SievePane,
    SourcesList,
    HitRates,
    CompaniesList,
    StepRules,
    AskBar,
    RowsGrid,
    Inspector,
    PersonPane,
    SieveShape,
    RunLine,
    Tabs,
    Select,
  ],
  providers: [OwnStore],
  host: {
    class: 'panes',
    '(document:copy)': 'onCopy($event)',
  },
  templateUrl: './job.html',
  styleUrl: './job.scss',
})
export class JobScreen {
  private readonly router = inject(Router);
  private readonly decisions = inject(Decisions);
  protected readonly notices = inject(Notices);
  private readonly dialog = inject(MatDialog);
  private readonly store = inject(Store);
  private readonly entities = this.store.selectSignal(work.selectJobEntities);
  protected readonly loaded = this.store.selectSignal(work.selectLoaded);
  private readonly runs = this.store.selectSignal(work.selectLiveRuns);
  private readonly ownStore = inject(OwnStore);
  protected readonly ownFields = computed<Option<string>[]>(() => {
    const own = (valueOf(this.ownStore.asked()) ?? []).map(({ name }) => ({ value: name, label: name }));
    return own.length > 0 ? [{ value: '', label: 'Own field …' }, ...own] : [];
  });
  protected readonly grid = viewChild(RowsGrid);

  readonly id = input.required<number, unknown>({ transform: numberAttribute });
  readonly step = input('screen', { transform: (step: string | undefined) => step ?? 'screen' });
  readonly fate = input<Fate, string | undefined>('pass', {
    transform: (fate) => (['pass', 'aside', 'look', 'waits'] as const).find((known) => known === fate) ?? 'pass',
  });
  /** Where the rows came from, in place of the rows of a step. */
  readonly show = input<Show | undefined, string | undefined>(undefined, {
    transform: (show) => (show === 'sources' || show === 'companies' ? show : undefined),
  });
  /** Rows of people where the step shows something else in their place. */
  readonly by = input<'people' | undefined, string | undefined>(undefined, {
    transform: (by) => (by === 'people' ? by : undefined),
  });
  readonly q = input<string, string | undefined>('', { transform: (q) => q ?? '' });
  /** Only those that stopped for this reason. */
  readonly why = input<string, string | undefined>('', { transform: (why) => why ?? '' });
  /** A field of the person's own that is shown. */
  readonly own = input<string, string | undefined>('', { transform: (own) => own ?? '' });
  readonly row = input<number | null, unknown>(null, { transform: (row) => (row === undefined ? null : Number(row)) });

  /** The row that the keys are on; the address follows a moment later. */
  private readonly at = linkedSignal(() => this.row());
  /** The chosen row is read in full. */
  readonly full = input(false, { transform: booleanAttribute });

  protected readonly job = computed(() => this.entities()[this.id()]);
  /** The step that is looked at; the first one when the address names none of this job. */
  protected readonly state = computed(() => {
    const states = this.job() ? statesOf(this.job()!) : [];
    return states.find(({ step }) => step.id === this.step()) ?? states[0];
  });
  protected readonly levels = computed(() => sieveLevels(this.job()!));
  protected readonly view = computed(() => viewOf(this.state()?.step.kind ?? ''));
  /** What the step shows in place of rows. */
  protected readonly panel = computed(() =>
    this.by() === 'people' || !this.state()?.step.on ? undefined : this.view().panel,
  );
  protected readonly name = computed(() => stepWords(this.state()?.step.kind ?? ''));
  protected readonly ownRuns = computed(() => this.runs().filter(({ jobId }) => jobId === this.id()));
  protected readonly sifting = computed(() =>
    this.ownRuns().some(({ input: { kind }, state }) => (kind === 'sift' || kind === 'bring-in') && state !== 'paused'),
  );
  protected readonly marked = signal<ContactRow[]>([]);
  /** How many rows the filter leaves. */
  protected readonly found = signal<number | null>(null);
  protected readonly editWanted = signal(0);
  /** Rows on their way out; a new outcome has moved them. */
  protected readonly going = linkedSignal<number, ReadonlySet<number>>({
    source: () => this.job()?.version ?? 0,
    computation: () => new Set<number>(),
  });
  protected readonly tabs = computed<Tab<Fate>[]>(() => {
    const state = this.state();
    if (!state) return [];
    const { pass, aside, look, waits } = state.count;
    const tabs: Tab<Fate>[] = [
      { id: 'pass', label: 'Pass', count: pass },
      { id: 'aside', label: 'Set aside', count: aside },
    ];
    if (this.view().looks) tabs.push({ id: 'look', label: 'Want a look', count: look });
    if (this.view().shows !== 'place' || waits > 0) tabs.push({ id: 'waits', label: 'Wait to be asked', count: waits });
    return tabs;
  });

  constructor() {
    bringInto(this.id);
    this.ownStore.load(computed(() => ({ job: this.id(), version: this.job()?.version ?? 0 })));
    inject(Shortcuts).use({
      'ctrl+z': () => this.decisions.undo({ subject: 'job', subjectId: this.id() }),
      'ctrl+shift+z': () => this.decisions.redo({ subject: 'job', subjectId: this.id() }),
      j: () => this.grid()?.move(1),
      k: () => this.grid()?.move(-1),
      x: () => this.move('aside'),
      r: () => this.move('keep'),
      e: () => this.editWanted.update((n) => n + 1),
      '1': () => this.goTo(0),
      '2': () => this.goTo(1),
      '3': () => this.goTo(2),
      enter: (event) => (isControl(event) || this.at() === null ? false : this.go({ row: this.at(), full: 1 })),
      space: (event) => inGrid(event) && this.grid()?.toggleMark(),
      arrowdown: (event) => !inGrid(event) && this.grid()?.move(1),
      arrowup: (event) => !inGrid(event) && this.grid()?.move(-1),
    });
    effect(() => {
      const job = this.job();
      if (job) document.title = `${job.name} · Crisp Sieve`;
    });
  }

  protected go(query: {
    step?: string;
    show?: Show | null;
    fate?: Fate;
    why?: string | null;
    by?: 'people' | null;
    own?: string | null;
    row?: number | null;
    full?: 1 | null;
  }) {
    void this.router.navigate([], {
      queryParams: {
        ...('step' in query && { row: null, why: null, fate: 'pass', full: null, by: null, ...NO_PANEL }),
        // What was filtered by is not meant for another list.
        ...(('step' in query || 'show' in query) && { q: null }),
        ...('fate' in query && { why: null }),
        ...(query.row === null && { full: null }),
        ...query,
      },
      queryParamsHandling: 'merge',
      // Going from row to row is no way to go back on.
      replaceUrl: 'row' in query && !('fate' in query) && !query.full,
    });
  }

  private goTo(at: number) {
    const tab = this.tabs()[at];
    if (tab) this.go({ fate: tab.id, row: null });
  }

  protected choose(row: ContactRow) {
    if (row.id === this.at()) return;
    this.at.set(row.id);
    this.go({ row: row.id });
  }

  protected decide(body: DecisionBody) {
    this.decisions.decide(this.id(), body);
  }

  /** The row is on its way out of this list; the next one is chosen. */
  protected judged() {
    const row = this.at();
    if (row !== null) this.going.update((going) => new Set([...going, row]));
    this.grid()?.move(1);
  }

  protected close() {
    this.go({ full: null });
    this.grid()?.focus();
  }

  /** Sets aside or restores the marked rows, or the row the keys are on; the next row is chosen. */
  private move(fate: 'aside' | 'keep') {
    // Whoever reads a person in full means that one, whatever is marked beneath.
    const rows = this.full() ? [] : this.marked();
    const ids = rows.length > 0 ? rows.map(({ id }) => id) : this.at() === null ? [] : [this.at()!];
    if (ids.length === 0) return this.notices.say('Choose a row first: arrow keys, J and K, or a click.');
    const step = this.state()!.step.id;
    this.decisions.decide(
      this.id(),
      fate === 'aside' ? { kind: 'set-aside', recordIds: ids } : { kind: 'keep', recordIds: ids, step },
      () => {
        this.going.update((going) => new Set([...going, ...ids]));
        this.grid()?.clearMarks();
      },
    );
    if (rows.length === 0) this.grid()?.move(1);
  }

  protected onCopy(event: ClipboardEvent) {
    const table = this.grid()?.table() ?? [];
    if (table.length < 2 || isTyping(event) || document.getSelection()?.toString()) return;
    const lines = table.map((cells) => cells.map((cell) => cell.replace(/[\t\r\n]+/g, ' ')).join('\t'));
    event.clipboardData?.setData('text/plain', lines.join('\n'));
    event.preventDefault();
    this.notices.say(table.length === 2 ? '1 row copied as a table' : `${table.length - 1} rows copied as a table`);
  }

  protected async showDecisions() {
    const { DecisionList } = await import('./decision-list');
    this.dialog.open(DecisionList, { width: '560px', data: this.id() });
  }
}

const isControl = ({ target }: Event): boolean =>
  target instanceof Element && target.closest('button, a, summary, .ag-header') !== null;
const inGrid = ({ target }: Event): boolean => target instanceof Element && target.closest('cs-rows-grid') !== null;
