import {
  ChangeDetectionStrategy,
  Component,
  computed,
  effect,
  inject,
  input,
  linkedSignal,
  signal,
  untracked,
} from '@angular/core';
import { MatButtonModule } from '@angular/material/button';
import { MatFormFieldModule } from '@angular/material/form-field';
import { MatSelectModule } from '@angular/material/select';
import { DomSanitizer } from '@angular/platform-browser';
import { Router, RouterLink } from '@angular/router';
import { stopRules } from '@sieve/core/harvest/stop-rules';
import type { HarvestView, NewHarvest, PageSet } from '@sieve/contract';
import { Store } from '@ngrx/store';
import { map, switchMap } from 'rxjs';
import { Api } from '../../api/api';
import { valueOf, type Request } from '../../state/asked';
import { Decisions } from '../../state/decisions';
import { Doing } from '../../state/doing';
import { JobsMade } from '../../state/jobs-made';
import { work } from '../../state/work';
import { Icon } from '../../ui/icon/icon';
import { Notices } from '../../ui/notices';
import { Shortcuts } from '../../ui/shortcuts/shortcuts';
import { Status } from '../../ui/status/status';
import { HarvestStore, PageStore, RobotsStore, type PageAt } from './harvest-stores';
import { PageColumns, type PageColumn } from './page-columns';
import { PagesAfter, type Wishes } from './pages-after';
import { nameOfSet, SetList } from './set-list';

const USUAL_SECONDS = 3;

/** A page: which of its records come in, as what, and the pages after it. */
@Component({
  selector: 'cs-harvest',
  changeDetection: ChangeDetectionStrategy.OnPush,
  imports: [
    MatButtonModule,
    MatFormFieldModule,
    MatSelectModule,
    RouterLink,
    Icon,
    Status,
    SetList,
    PageColumns,
    PagesAfter,
  ],
  providers: [PageStore, RobotsStore, HarvestStore],
  host: { class: 'panes' },
  templateUrl: './harvest.html',
  styleUrl: './harvest.scss',
})
export class Harvest {
  private readonly api = inject(Api);
  private readonly doing = inject(Doing);
  private readonly router = inject(Router);
  private readonly notices = inject(Notices);
  private readonly store = inject(Store);
  private readonly sanitizer = inject(DomSanitizer);
  private readonly made = inject(JobsMade);
  private readonly pages = inject(PageStore);
  protected readonly robots = inject(RobotsStore);
  private readonly harvests = inject(HarvestStore);

  /** Of the address: the job, the page as it was kept, where it is from, and the harvest once it goes. */
  readonly id = input<string>();
  readonly upload = input('');
  readonly name = input('');
  readonly address = input('');
  readonly harvest = input<string>();

  protected readonly jobs = this.store.selectSignal(work.selectAllJobs);
  private readonly runs = this.store.selectSignal(work.selectAllRuns);
  protected readonly chosenJob = linkedSignal(() => (this.id() === undefined ? null : Number(this.id())));
  protected readonly job = computed(() => this.jobs().find(({ id }) => id === this.chosenJob()));
  private readonly harvestId = computed(() => (this.harvest() === undefined ? null : Number(this.harvest())));
  /** What is known of it stays while nobody answers. */
  protected readonly going = linkedSignal<{ id: number | null; asked: Request<HarvestView> }, HarvestView | null>({
    source: () => ({ id: this.harvestId(), asked: this.harvests.asked() }),
    computation: ({ id, asked }, previous) =>
      id === null
        ? null
        : asked.status === 'done' && asked.value.id === id
          ? asked.value
          : previous?.source.id === id
            ? previous.value
            : null,
  });
  protected readonly run = computed(() => this.runs().find(({ id }) => id === this.going()?.runId) ?? null);
  /** A harvest knows its page; without one the address says it. */
  private readonly at = computed(
    (): PageAt => {
      const going = this.going();
      if (this.harvestId() !== null && !going) return { upload: '', name: '', address: '' };
      return going
        ? { upload: going.upload, name: going.name, address: going.address }
        : { upload: this.upload(), name: this.name(), address: this.address() };
    },
    { equal: (a, b) => JSON.stringify(a) === JSON.stringify(b) },
  );
  protected readonly isMissing = computed(() => this.harvestId() === null && this.upload() === '');
  private readonly connected = this.store.selectSignal(work.selectConnected);
  private readonly moved = computed(() => {
    const run = this.run();
    return run && this.connected() ? `${run.state} ${run.done}` : '';
  });
  protected readonly request = this.pages.asked;
  protected readonly page = computed(() => valueOf(this.request()));
  protected readonly sets = computed((): readonly PageSet[] => this.page()?.sets ?? []);
  protected readonly working = signal(false);
  /** The set of a harvest is the one that stands where it stood. */
  protected readonly chosen = linkedSignal(() => {
    const path = this.going()?.set.path.join('>');
    return path === undefined
      ? 0
      : Math.max(
          0,
          this.sets().findIndex((set) => set.path.join('>') === path),
        );
  });
  protected readonly set = computed(() => this.sets()[this.chosen()]);
  protected readonly columns = linkedSignal((): PageColumn[] => {
    const set = this.set();
    if (!set) return [];
    const said = this.going()?.set;
    const columns = set.fields.map(({ key, name, target, filled }, field) => ({ key, name, target, field, filled }));
    if (said)
      return said.keys.map((key, field) => {
        const filled = columns.find((column) => column.key === key)?.filled ?? 0;
        return { key, ...said.columns[field]!, field, filled };
      });
    // What is blank on this page comes to light when a later one has it.
    return columns.map((column) => (column.filled === 0 ? { ...column, target: 'skip' as const } : column));
  });
  protected readonly dropped = computed(() =>
    this.columns().filter(({ target, filled }) => target === 'skip' && filled > 0),
  );
  protected readonly rows = computed(() => {
    const latest = this.going()?.latest;
    return latest && latest.length > 0 ? latest : (this.set()?.rows ?? []);
  });
  protected readonly wishes = linkedSignal((): Wishes => {
    const going = this.going();
    if (going) return { next: going.next, stop: going.stop, seconds: going.seconds, everyDays: going.everyDays };
    const next = this.page()?.remembered ?? { by: 'found' as const };
    return { next, stop: stopRules.parse({}), seconds: USUAL_SECONDS, everyDays: null };
  });
  private readonly nextAddress = computed(() => {
    const { next } = this.wishes();
    if (next.by === 'none') return '';
    if (next.by === 'found') return this.page()?.followed ?? '';
    return this.page()?.next.find(({ text }) => text === next.text)?.address ?? '';
  });
  /** Our own address, of a page that our own server has made safe. */
  protected readonly preview = computed(() => {
    const query = new URLSearchParams({
      set: String(this.chosen()),
      address: this.page()?.address ?? '',
      next: this.nextAddress(),
    });
    return this.sanitizer.bypassSecurityTrustResourceUrl(
      `/api/uploads/${encodeURIComponent(this.at().upload)}/preview?${query}#records`,
    );
  });
  protected readonly title = computed(() => this.page()?.title || this.at().name || 'The page');
  protected readonly shortAddress = computed(
    () => (this.page()?.address ?? '').replace(/^https?:\/\//, '') || this.at().name,
  );
  protected readonly kilobytes = computed(() => Math.max(1, Math.round((this.page()?.bytes ?? 0) / 1024)));

  constructor() {
    this.pages.load(this.at);
    this.robots.load(computed(() => this.page()?.address ?? ''));
    this.harvests.load(this.harvestId);
    // Each page that came is told by its run; what came while nobody told is asked for when the server is back.
    effect(() => {
      const moved = this.moved();
      const id = untracked(this.harvestId);
      if (moved !== '' && id !== null) untracked(() => this.harvests.load(id));
    });
    const step = (by: number) => () => {
      if (this.going()) return false;
      return this.chosen.set(Math.min(this.sets().length - 1, Math.max(0, this.chosen() + by)));
    };
    const decisions = inject(Decisions);
    const turn = (act: 'undo' | 'redo') => {
      const going = this.going();
      if (!going) return false;
      decisions[act]({ subject: 'harvest', subjectId: going.id }, () => this.harvests.load(going.id));
      return true;
    };
    inject(Shortcuts).use({
      j: step(1),
      k: step(-1),
      'ctrl+z': () => turn('undo'),
      'ctrl+shift+z': () => turn('redo'),
    });
  }

  /** Of a harvest that goes, what is changed counts from its next page on. */
  protected wish(wishes: Wishes) {
    const before = this.wishes();
    this.wishes.set(wishes);
    const going = this.going();
    if (!going) return;
    const { stop, seconds, everyDays } = wishes;
    const was = { stop: before.stop, seconds: before.seconds, everyDays: before.everyDays };
    const patch = { stop, seconds, ...(everyDays !== was.everyDays && { everyDays }), was };
    const show = () => this.harvests.load(going.id);
    this.doing.run(this.api.patchHarvest(going.id, patch), show, (words) => {
      // What was not taken does not stand on the screen.
      this.notices.bad(words);
      show();
    });
  }

  protected restore() {
    const back = new Map(this.set()?.fields.map(({ key, target }) => [key, target]));
    this.columns.update((all) =>
      all.map((column) =>
        column.target === 'skip' && column.filled > 0
          ? { ...column, target: back.get(column.key) === 'skip' ? ('own' as const) : (back.get(column.key) ?? 'own') }
          : column,
      ),
    );
  }

  protected start() {
    const set = this.set();
    if (!set || this.working()) return;
    this.working.set(true);
    const { next, stop, seconds, everyDays } = this.wishes();
    const shown = this.columns();
    const order = new Map(shown.map(({ field }, i) => [field, i]));
    const column = stop.column && { ...stop.column, field: order.get(stop.column.field)! };
    const body: NewHarvest = {
      uploadId: this.upload(),
      name: nameOfSet(set) === set.heading ? `${set.heading}, ${this.title()}`.slice(0, 300) : this.title(),
      address: this.page()?.address ?? '',
      set: { path: set.path, identity: set.identity, fields: shown.map(({ key, name }) => ({ key, name })) },
      columns: shown.map(({ name, target }) => ({ name, target })),
      next: this.page()?.address ? next : { by: 'none' },
      stop: { ...stop, column },
      seconds,
      everyDays: this.page()?.address ? everyDays : null,
    };
    this.doing.run(
      this.made
        .jobFor(this.chosenJob(), { name: this.title().slice(0, 100) })
        .pipe(switchMap((job) => this.api.startHarvest(job, body).pipe(map((started) => ({ job, started }))))),
      ({ job, started }) => {
        this.working.set(false);
        this.open(job, started.harvestId);
      },
      (words) => {
        this.working.set(false);
        this.notices.bad(words);
      },
    );
  }

  protected again() {
    const going = this.going();
    if (going) this.doing.run(this.api.harvestAgain(going.id), () => this.harvests.load(going.id));
  }

  private open(job: number, harvest: number) {
    void this.router.navigate(['/jobs', job, 'page'], { queryParams: { harvest }, replaceUrl: true });
  }
}
