import { HttpEventType } from '@angular/common/http';
import { ChangeDetectionStrategy, Component, computed, effect, inject, input, signal, untracked } from '@angular/core';
import { NonNullableFormBuilder, ReactiveFormsModule, Validators } from '@angular/forms';
import { MatButtonModule } from '@angular/material/button';
import { MatCheckboxModule } from '@angular/material/checkbox';
import { MatFormFieldModule } from '@angular/material/form-field';
import { MatInputModule } from '@angular/material/input';
import { MatSelectModule } from '@angular/material/select';
import { Router, RouterLink } from '@angular/router';
import { TARGETS, type Column, type HeldRule } from '@sieve/core/model/target';
import { ISSUE_WORDS, TARGET_WORDS, type Inspection, type SaidFormat, type WhoComes } from '@sieve/contract';
import { Store } from '@ngrx/store';
import { ONLY_VERIFY } from '@sieve/core/steps/only-verify';
import { map, switchMap, tap, type Observable } from 'rxjs';
import { Api } from '../../api/api';
import { Doing } from '../../state/doing';
import { Handover } from '../../state/handover';
import { JobsMade } from '../../state/jobs-made';
import { Session } from '../../state/session';
import { work } from '../../state/work';
import { ColumnsTable } from '../../ui/columns/columns-table';
import { CountPipe } from '../../ui/count';
import { Icon } from '../../ui/icon/icon';
import { Notices } from '../../ui/notices';
import { isTyping } from '../../ui/shortcuts/shortcuts';
import { turnSteps } from './turn-steps';
import { comesOf, HeldPane } from './held-pane';
import { OneContact } from './one-contact';
import { Select, type Option } from '../../ui/select/select';

interface Arrived {
  name: string;
  upload: string;
  /** Share of the file that has been sent, 0 to 1. */
  sent: number;
  inspection: Inspection | null;
  columns: Column[];
  problem: string;
  /** In bytes. */
  size: number;
  take: WhoComes;
  /** Number of the latest look into it; the answer to an earlier one comes too late. */
  look: number;
  /** counting: its columns are known by its beginning, and the rest is being read. */
  state: 'sending' | 'reading' | 'counting' | 'ready' | 'failed' | 'in';
}

const ENCODINGS = [
  'utf-8',
  'windows-1252',
  'utf-16le',
  'utf-16be',
  'iso-8859-2',
  'windows-1250',
  'windows-1251',
  'shift_jis',
  'gb18030',
];
const SEPARATORS = [
  { value: ',', label: 'comma' },
  { value: ';', label: 'semicolon' },
  { value: '\t', label: 'tab' },
  { value: '|', label: 'bar' },
];

const KINDS = [
  { value: 'table' as const, label: 'rows of a table' },
  { value: 'page' as const, label: 'a web page' },
  { value: 'objects' as const, label: 'JSON' },
  { value: 'cards' as const, label: 'vCards' },
];

const TEMPLATE = `\uFEFF${TARGETS.filter((target) => target !== 'own' && target !== 'skip')
  .map((target) => TARGET_WORDS[target])
  .join(',')}\r\n`;
/** A larger file is seen by its beginning first. */
const LARGE_BYTES = 5_000_000;

/** A file's columns as they were recognised, corrected by hand, before anything is brought in. */
@Component({
  selector: 'cs-bring',
  changeDetection: ChangeDetectionStrategy.OnPush,
  imports: [
    ReactiveFormsModule,
    OneContact,
    ColumnsTable,
    HeldPane,
    Select,
    RouterLink,
    MatButtonModule,
    MatFormFieldModule,
    MatSelectModule,
    MatInputModule,
    Icon,
    CountPipe,
    MatCheckboxModule,
  ],
  host: {
    class: 'panes',
    '(dragover)': '$event.preventDefault()',
    '(drop)': 'onDrop($event)',
    '(document:paste)': 'onPaste($event)',
  },
  templateUrl: './bring.html',
  styleUrl: './bring.scss',
})
export class Bring {
  private readonly api = inject(Api);
  private readonly doing = inject(Doing);
  private readonly router = inject(Router);
  private readonly notices = inject(Notices);
  private readonly handover = inject(Handover);
  private readonly store = inject(Store);
  private readonly made = inject(JobsMade);
  private readonly settings = inject(Session).settings;
  protected readonly directory = computed(() => this.settings()?.directory?.name ?? null);
  protected readonly jobs = this.store.selectSignal(work.selectAllJobs);
  /** Job of the address; none: a new one is made. */
  readonly id = input<string>();
  /** One contact is added by hand. */
  readonly one = input<string>();

  /** Of a new job; what is left out can be said later. */
  protected readonly brief = inject(NonNullableFormBuilder).group({
    name: [''],
    targetValid: [0, [Validators.required, Validators.min(0)]],
    budget: [0, [Validators.required, Validators.min(0)]],
  });
  protected readonly nameOf = (file: string): string => file.replace(/\.\w+$/, '');
  private looks = 0;
  protected readonly files = signal<Arrived[]>([]);
  protected readonly at = signal(0);
  protected readonly file = computed(() => this.files()[this.at()]);
  protected readonly chosenJob = signal<number | null>(null);
  protected readonly job = computed(() => this.jobs().find(({ id }) => id === this.chosenJob()));
  /** The profiles of those who come in are to be found. */
  protected readonly findThem = signal(false);
  /** Nothing else is done with those who come in: a list that is only to be verified. */
  protected readonly onlyVerify = signal(false);
  protected readonly canOnlyVerify = computed(
    () => this.id() === undefined && (this.file()?.columns ?? []).some(({ target }) => target === 'email'),
  );
  protected readonly canFindThem = computed(() => {
    const targets = (this.file()?.columns ?? []).map(({ target }) => target);
    const named = targets.includes('fullName') || targets.includes('lastName');
    return named && !targets.includes('profile') && this.directory() !== null;
  });
  protected readonly showIssues = signal(false);
  protected readonly working = signal(false);
  protected readonly words: { issue: Record<string, string> } = { issue: ISSUE_WORDS };
  protected readonly separators = SEPARATORS;
  protected readonly kinds = KINDS;
  protected readonly recognised = computed(
    () => this.file()?.columns.filter(({ target }) => target !== 'own' && target !== 'skip').length ?? 0,
  );
  protected readonly rowsToCome = computed(() => {
    const file = this.file();
    return file?.inspection ? comesOf(file.inspection, file.take) : 0;
  });

  constructor() {
    effect(() => {
      const id = this.id();
      untracked(() => this.chosenJob.set(id === undefined ? null : Number(id)));
    });
    const waiting = this.handover.take();
    if (waiting.length > 0) this.take(waiting);
  }

  /** A table with the headings that are recognised for sure, to be filled in. */
  protected readonly template = `data:text/csv;charset=utf-8,${encodeURIComponent(TEMPLATE)}`;
  protected readonly named = (names: readonly string[]): Option<string>[] =>
    names.map((name) => ({ value: name, label: name }));
  protected readonly encodingOptions = (used: string) => this.named([...new Set([...ENCODINGS, used])]);

  protected choose(element: HTMLInputElement) {
    this.take([...(element.files ?? [])]);
    element.value = '';
  }

  protected onDrop(event: DragEvent) {
    event.preventDefault();
    this.take([...(event.dataTransfer?.files ?? [])]);
  }

  protected onPaste(event: ClipboardEvent) {
    if (isTyping(event)) return;
    const file = Handover.tableOf(event.clipboardData?.getData('text/plain') ?? '');
    if (file) this.take([file]);
    else this.notices.say('What you pasted is no table: copy rows with their cells from a spreadsheet.');
  }

  private take(files: File[]) {
    for (const file of files) {
      const at = this.files().length;
      this.files.update((all) => [...all, this.arrived(file.name, file.size)]);
      this.at.set(at);
      this.send(at, file);
    }
  }

  private send(at: number, file: File) {
    this.doing.run(
      this.api.upload(file, file.name),
      (event) => {
        if (event.type === HttpEventType.UploadProgress)
          this.patch(at, { sent: event.loaded / (event.total ?? file.size) });
        else if (event.type === HttpEventType.Response && event.body) {
          const { id, holds } = event.body;
          if (holds.length > 0) return this.open(at, holds, file.size);
          this.patch(at, { upload: id, sent: 1 });
          this.inspect(at, {}, null);
        }
      },
      (problem) => this.patch(at, { state: 'failed', problem }),
    );
  }

  /** Puts the files of a zip in its place. */
  private open(at: number, holds: readonly { id: string; name: string }[], size: number) {
    const from = this.files().length;
    const [first, ...others] = holds.map(({ id: upload, name }) => ({ ...this.arrived(name, size), upload, sent: 1 }));
    this.files.update((all) => [...all.map((file, i) => (i === at ? first! : file)), ...others]);
    this.inspect(at, {}, null);
    others.forEach((_, i) => this.inspect(from + i, {}, null));
  }

  /** The other sheets of a workbook come in as sources of their own. */
  protected takeSheets() {
    const { inspection, upload, name, size } = this.file()!;
    const [own = '', from] = [
      inspection!.format.kind === 'workbook' ? inspection!.format.sheet : '',
      this.files().length,
    ];
    const others = inspection!.sheets.filter((sheet) => sheet !== (own || inspection!.sheets[0]));
    this.files.update((all) => [
      ...all,
      ...others.map((sheet) => ({ ...this.arrived(`${name}, ${sheet}`, size), upload, sent: 1 })),
    ]);
    others.forEach((sheet, i) => this.inspect(from + i, { sheet }, null));
  }

  private arrived(name: string, size: number): Arrived {
    return {
      name,
      size,
      upload: '',
      sent: 0,
      inspection: null,
      columns: [],
      problem: '',
      take: 'all',
      look: 0,
      state: 'sending',
    };
  }

  /** Reads the file anew, with what was said about it; of several looks into one file the last one counts. */
  private inspect(at: number, format: SaidFormat, columns: Column[] | null) {
    const { upload, name, size } = this.files()[at]!;
    const look = ++this.looks;
    this.patch(at, { state: 'reading', problem: '', look });
    const ifLast = (change: Partial<Arrived>) => this.files()[at]!.look === look && this.patch(at, change);
    const asked = { format, columns, jobId: this.chosenJob() };
    const read = (beginning: boolean) =>
      this.doing.run(
        this.api.inspect(upload, name, { ...asked, beginning }),
        (inspection) => {
          const known = { inspection, columns: inspection.mapping };
          const isLast = ifLast({ ...known, state: inspection.whole ? 'ready' : 'counting' });
          if (isLast !== false && !inspection.whole) read(false);
        },
        (problem) => ifLast({ state: 'failed', problem }),
      );
    read(size > LARGE_BYTES);
  }

  private patch(at: number, change: Partial<Arrived>): void {
    this.files.update((all) => all.map((file, i) => (i === at ? { ...file, ...change } : file)));
  }

  protected reread(change: SaidFormat) {
    const { headerRow, ...format } = this.file()!.inspection!.format;
    this.inspect(this.at(), { ...format, ...('headerRow' in change ? { headerRow } : {}), ...change }, null);
  }

  protected readonly pagePath = computed(() =>
    this.chosenJob() === null ? ['/bring', 'page'] : ['/jobs', this.chosenJob(), 'page'],
  );
  protected showOne(one: boolean) {
    void this.router.navigate([], { queryParams: { one: one ? 1 : null }, queryParamsHandling: 'merge' });
  }

  protected readonly fetching = signal(false);

  /** Fetches a page and goes on to what repeats on it. */
  protected fetchPage(typed: string) {
    const wanted = typed.trim();
    if (wanted === '' || this.fetching()) return;
    this.fetching.set(true);
    this.doing.run(
      this.api.fetchPage(/^[a-z]+:\/\//i.test(wanted) ? wanted : `https://${wanted}`),
      ({ id: upload, name, address }) => {
        this.fetching.set(false);
        void this.router.navigate(this.pagePath(), { queryParams: { upload, name, address } });
      },
      (words) => {
        this.fetching.set(false);
        this.notices.bad(words);
      },
    );
  }

  protected setColumns(columns: Column[]) {
    this.patch(this.at(), { columns });
    this.inspect(this.at(), this.file()!.inspection!.format, columns);
  }

  protected setTake(take: WhoComes) {
    this.patch(this.at(), { take });
  }

  protected setHeld({ column, rule }: { column: number; rule: HeldRule | 'rule' }) {
    this.setColumns(
      this.file()!.columns.map(({ held, ...known }, i) => {
        const said = i === column ? (rule === 'rule' ? undefined : rule) : held;
        return { ...known, ...(said && { held: said }) };
      }),
    );
  }

  protected setJob(id: number | null) {
    this.chosenJob.set(id);
    const file = this.file();
    if (file?.inspection) this.inspect(this.at(), file.inspection.format, file.columns);
  }

  protected readonly readyFiles = computed(() => this.files().filter(({ state }) => state === 'ready').length);
  /** Whether the sheets of this workbook are in the list each. */
  protected isTaken(sheets: readonly string[]): boolean {
    const { upload } = this.file()!;
    return this.files().filter((file) => file.upload === upload).length >= sheets.length;
  }

  protected bringIn() {
    const file = this.file();
    if (!file?.inspection || this.working()) return;
    this.into(file, (job) => {
      const next = this.files().findIndex(({ state }) => state === 'ready');
      if (next >= 0) this.at.set(next);
      else this.leaveFor(job);
    });
  }

  /** One after the other, each as it is set up; what cannot come in stays in the list. */
  protected bringInAll() {
    const next = this.files().findIndex(({ state }) => state === 'ready');
    if (next < 0 || this.working()) return;
    this.at.set(next);
    this.into(this.file()!, (job) => {
      if (this.readyFiles() > 0) this.bringInAll();
      else this.leaveFor(job);
    });
  }

  private into(file: Arrived, then: (job: number) => void) {
    if (this.chosenJob() === null && this.brief.invalid) {
      this.brief.markAllAsTouched();
      return this.notices.say('The brief of the new job cannot be used as it is. Nothing was brought in.');
    }
    const { format, rows } = file.inspection!;
    const { upload: uploadId, name, columns, take } = file;
    const source = { uploadId, name, format, columns, take };
    this.working.set(true);
    this.doing.run(
      this.jobToFill(file.name).pipe(switchMap((job) => this.api.bringIn(job, source, rows).pipe(map(() => job)))),
      (job) => {
        this.working.set(false);
        this.patch(this.at(), { state: 'in' });
        then(job);
      },
      (words) => {
        this.working.set(false);
        this.notices.bad(words);
      },
    );
  }

  /** Shows the job; set up first for what is wanted of those who came in. */
  private leaveFor(job: number) {
    const show = (step: string | null) => void this.router.navigate(['/jobs', job], { queryParams: { step } });
    const [step, steps] =
      this.onlyVerify() && this.canOnlyVerify()
        ? ['verify', ONLY_VERIFY]
        : this.findThem()
          ? ['profile', { profile: true }]
          : [null, {}];
    if (step === null) return show(null);
    this.doing.run(turnSteps(this.api, job, steps), () => show(step));
  }

  /** The job that was chosen, or a new one named after the file. */
  private jobToFill(file: string): Observable<number> {
    const { name, targetValid, budget } = this.brief.getRawValue();
    const said = { name: name.trim() || this.nameOf(file), targetValid, budgetCents: Math.round(budget * 100) };
    return this.made.jobFor(this.chosenJob(), said).pipe(tap((id) => this.chosenJob.set(id)));
  }
}
