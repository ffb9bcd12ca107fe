import { ChangeDetectionStrategy, Component, computed, inject, input, model, output } from '@angular/core';
import { MatButtonModule } from '@angular/material/button';
import { MatCheckboxModule } from '@angular/material/checkbox';
import { RouterLink } from '@angular/router';
import {
  END_WORDS,
  runWords,
  type HarvestView,
  type NextWish,
  type RobotsSay,
  type Run,
  type WebPage,
} from '@sieve/contract';
import type { ColumnRule, StopRules } from '@sieve/core/harvest/stop-rules';
import { Store } from '@ngrx/store';
import { valueOf, type Request } from '../../state/asked';
import { workActions } from '../../state/work';
import { CountPipe } from '../../ui/count';
import { Icon } from '../../ui/icon/icon';
import { Select, type Option } from '../../ui/select/select';
import { timeLeft } from '../../ui/run-line';
import { whenWords } from '../../ui/when';
import { LowestChart } from './lowest-chart';
import type { PageColumn } from './page-columns';

/** What a harvest is told beside its columns. */
export interface Wishes {
  next: NextWish;
  stop: StopRules;
  seconds: number;
  everyDays: number | null;
}

const SIGN_WORDS: Record<WebPage['next'][number]['signs'][number], string> = {
  rel: 'rel=next',
  word: 'its words',
  number: 'the next number',
  more: 'a “more” button',
  arrow: 'an arrow',
  offset: 'the query goes up',
};
const SURE = 0.9;
const TURNS: Option<ColumnRule['turns']>[] = (['blank or zero', 'blank', 'zero'] as const).map((value) => ({
  value,
  label: value,
}));
const MOST_DOTS = 60;
const LISTED = 60;

/** The pages after the first: how they are found, what their site allows, when to stop, and how far it is. */
@Component({
  selector: 'cs-pages-after',
  changeDetection: ChangeDetectionStrategy.OnPush,
  imports: [MatButtonModule, MatCheckboxModule, RouterLink, Icon, Select, CountPipe, LowestChart],
  templateUrl: './pages-after.html',
  styleUrl: './pages-after.scss',
})
export class PagesAfter {
  private readonly store = inject(Store);
  readonly jobId = input<number | null>(null);
  readonly page = input<WebPage | null>(null);
  readonly robots = input.required<Request<RobotsSay>>();
  readonly columns = input.required<readonly PageColumn[]>();
  readonly count = input.required<number>();
  readonly wishes = model.required<Wishes>();
  readonly harvest = input<HarvestView | null>(null);
  readonly run = input<Run | null>(null);
  readonly working = input(false);
  readonly begun = output();
  readonly askedAgain = output();

  protected readonly turns = TURNS;
  protected readonly endWords = END_WORDS;
  protected readonly runWords = runWords;
  protected readonly when = whenWords;
  protected readonly says = computed(() => valueOf(this.robots()));
  protected readonly robotsFailed = computed(() => {
    const robots = this.robots();
    return robots.status === 'failed' ? robots.words : '';
  });
  protected readonly hasAddress = computed(() => (this.page()?.address ?? '') !== '');
  /** The link that is followed, as it will be on every page. */
  protected readonly followed = computed(() => {
    const { next } = this.wishes();
    const page = this.page();
    if (next.by === 'none' || !page) return undefined;
    return page.next.find(({ text, address }) => (next.by === 'link' ? text === next.text : address === page.followed));
  });
  /** Links there are, of which none is sure enough to be followed unasked. */
  protected readonly isUnsure = computed(
    () => this.wishes().next.by === 'found' && !this.followed() && (this.page()?.next.length ?? 0) > 0,
  );
  protected readonly isSure = computed(() => (this.followed()?.sure ?? 0) >= SURE);
  protected readonly signs = computed(() => (this.followed()?.signs ?? []).map((sign) => SIGN_WORDS[sign]).join(', '));
  protected readonly nextOptions = computed((): Option<string>[] => [
    { value: 'found', label: this.page()?.followed ? 'what is found' : 'nothing sure' },
    { value: 'none', label: 'only this page' },
    ...(this.page()?.next ?? [])
      // The number of a page is another on every page.
      .filter(({ text }) => text !== '' && !/^\d+$/.test(text))
      .map(({ text, address }) => ({ value: `link ${text}`, label: `“${text}” to ${shortOf(address)}` })),
  ]);
  protected readonly nextValue = computed(() => {
    const { next } = this.wishes();
    return next.by === 'link' ? `link ${next.text}` : next.by;
  });
  protected readonly columnOptions = computed((): Option<number>[] => [
    ...(this.wishes().stop.column ? [{ value: -1, label: 'no column' }] : []),
    ...this.columns()
      .filter(({ filled }) => filled > 0)
      .map(({ field, name }) => ({ value: field, label: name })),
  ]);
  protected readonly watched = computed(() => {
    const field = this.wishes().stop.column?.field;
    return this.columns().find((column) => column.field === field)?.name ?? '';
  });
  protected readonly slowest = computed(() =>
    Math.max(this.wishes().seconds, this.says()?.seconds ?? 0, this.harvest()?.siteSeconds ?? 0),
  );
  protected readonly isLive = computed(() => ['queued', 'running', 'paused'].includes(this.run()?.state ?? ''));
  protected readonly visited = computed(() => this.harvest()?.pages ?? []);
  protected readonly listed = computed(() => [...this.visited()].reverse().slice(0, LISTED));
  protected readonly unread = computed(() => this.visited().filter(({ state }) => state !== 'read').length);
  protected readonly mostPages = computed(() => this.harvest()?.likelyPages || this.wishes().stop.pages);
  protected readonly timeLeft = computed(() => {
    const harvest = this.harvest();
    const timed = this.visited().filter(({ ms }) => ms > 0);
    if (!harvest || timed.length === 0 || harvest.likelyPages < harvest.number) return '';
    const each = this.slowest() + timed.reduce((sum, { ms }) => sum + ms, 0) / timed.length / 1000;
    return `About ${timeLeft((harvest.likelyPages - harvest.number + 1) * each)}.`;
  });
  protected readonly dots = computed(() => {
    const harvest = this.harvest();
    if (!harvest) return [];
    const states = new Map(harvest.pages.map(({ number, state }) => [number, state]));
    const count = Math.max(harvest.likelyPages, harvest.pages.length);
    if (count > MOST_DOTS) return [];
    return Array.from({ length: count }, (_, i) => ({
      state: states.get(i + 1) ?? (i + 1 === harvest.number && this.isLive() ? 'now' : 'to come'),
      x: 5 + (i % 20) * 11.58,
      y: 7 + Math.floor(i / 20) * 15,
    }));
  });
  protected readonly dotRows = computed(() => Math.ceil(this.dots().length / 20));

  protected set(change: Partial<Wishes>) {
    this.wishes.set({ ...this.wishes(), ...change });
  }

  protected stop(change: Partial<StopRules>) {
    this.set({ stop: { ...this.wishes().stop, ...change } });
  }

  protected setNext(value: string) {
    this.set({
      next: value.startsWith('link ')
        ? { by: 'link', text: value.slice(5) }
        : value === 'none'
          ? { by: 'none' }
          : { by: 'found' },
    });
  }

  protected watch(field: number) {
    const turns = this.wishes().stop.column?.turns ?? 'blank or zero';
    this.stop({ column: field < 0 ? null : { field, turns } });
  }

  protected readonly pace = (seconds: number) => this.set({ seconds });
  protected readonly stopPages = (pages: number) => this.stop({ pages: Math.round(pages) });
  protected readonly stopRows = (rows: number) => this.stop({ rows: Math.round(rows) });
  protected readonly everyDays = (days: number) => this.set({ everyDays: Math.round(days) });

  /** The number typed, within its bounds; what is none is put back. */
  protected number(field: HTMLInputElement, least: number, most: number, then: (n: number) => void, was: number) {
    const n = field.valueAsNumber;
    if (Number.isNaN(n)) return void (field.value = String(was));
    const within = Math.min(most, Math.max(least, n));
    field.value = String(within);
    then(within);
  }

  protected act(action: 'pause' | 'resume' | 'cancel') {
    const run = this.run();
    if (run) this.store.dispatch(workActions.runAsked({ id: run.id, action }));
  }
}

const shortOf = (address: string) => address.replace(/^https?:\/\/[^/]+/, '');
