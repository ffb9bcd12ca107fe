import { CdkDrag, CdkDragHandle, type CdkDragDrop, CdkDropList, moveItemInArray } from '@angular/cdk/drag-drop';
import { DatePipe } from '@angular/common';
import {
  ChangeDetectionStrategy,
  Component,
  computed,
  effect,
  inject,
  input,
  numberAttribute,
  signal,
  linkedSignal,
} from '@angular/core';
import { MatButtonModule } from '@angular/material/button';
import { RouterLink } from '@angular/router';
import type { PersonField } from '@sieve/core';
import { verifyOptions } from '@sieve/core/steps/verify/options';
import { EXPORT_FIELDS, MAIL_OUT, type ExportColumn } from '@sieve/core/export/columns';
import { FIELD_WORDS, type ExportLayout, type ExportPreview, type ExportRun } from '@sieve/contract';
import { signalStore } from '@ngrx/signals';
import { Store } from '@ngrx/store';
import { delay, of, switchMap } from 'rxjs';
import { Api } from '../../api/api';
import { valueOf, withAsked, type Request } from '../../state/asked';
import { Decisions } from '../../state/decisions';
import { Doing } from '../../state/doing';
import { work, workActions } from '../../state/work';
import { CountPipe } from '../../ui/count';
import { bringInto } from '../../ui/bring-into';
import { Icon } from '../../ui/icon/icon';
import { Notices } from '../../ui/notices';
import { Shortcuts } from '../../ui/shortcuts/shortcuts';
import { RunLine } from '../../ui/run-line';
import { VerdictMark } from '../../ui/verdict-mark';
import { Select } from '../../ui/select/select';

type Verdict = ExportLayout['verdicts'][number];

/** What is chosen for one export; the columns stand with the job. */
type Choice = Omit<ExportLayout, 'columns'>;

const REMEMBERED = 'export-layout';
const OTHER_WORDS: Record<string, string> = {
  verdict: 'Verdict',
  verdictReason: 'Verdict reason',
  emailVia: 'Email found by',
  profileSure: 'Profile found, how sure (0 to 1)',
  websiteSays: 'Website says',
  growth: 'Growth of the company, % a year',
  technology: 'Technology of the company',
  hiring: 'The company is hiring',
  topics: 'The company reads this week about',
  phoneKind: 'Phone, what it is',
  phoneFoundBy: 'Phone found by',
  phoneSure: 'Phone, how sure (0 to 1)',
  otherPhones: 'Other phones',
  sources: 'Sources',
};
const VERDICTS: { verdict: Verdict; label: string }[] = [
  { verdict: 'valid', label: 'valid' },
  { verdict: 'risky', label: 'risky, mostly catch-all' },
  { verdict: 'unknown', label: 'not known' },
  { verdict: 'none', label: 'no email' },
];

/** While somebody types the preview waits. */
const PAUSE_MS = 120;
const PreviewStore = signalStore(
  withAsked((api, { jobId, layout }: { jobId: number; layout: ExportLayout; version: unknown }) =>
    of(null).pipe(
      delay(PAUSE_MS),
      switchMap(() => api.exportPreview(jobId, layout)),
    ),
  ),
);
const ExportsStore = signalStore(withAsked((api, { jobId }: { jobId: number; done: number }) => api.exports(jobId)));

/** The columns and the real first rows, the files that will come out, what is held back, and earlier exports. */
@Component({
  selector: 'cs-export',
  host: { class: 'panes' },
  changeDetection: ChangeDetectionStrategy.OnPush,
  imports: [
    Select,
    RouterLink,
    MatButtonModule,
    Icon,
    CountPipe,
    DatePipe,
    CdkDropList,
    CdkDrag,
    CdkDragHandle,
    VerdictMark,
    RunLine,
  ],
  providers: [PreviewStore, ExportsStore],
  templateUrl: './export.html',
  styleUrl: './export.scss',
})
export class Export {
  private readonly api = inject(Api);
  private readonly notices = inject(Notices);
  private readonly decisions = inject(Decisions);
  private readonly store = inject(Store);
  private readonly entities = this.store.selectSignal(work.selectJobEntities);
  private readonly runs = this.store.selectSignal(work.selectAllRuns);
  private readonly doing = inject(Doing);
  private readonly previews = inject(PreviewStore);
  private readonly exports = inject(ExportsStore);
  readonly id = input.required<number, unknown>({ transform: numberAttribute });

  protected readonly job = computed(() => this.entities()[this.id()]);
  private readonly choice = signal(remembered());
  /** Being saved, and not with this job yet. */
  private readonly ahead = linkedSignal<number, ExportColumn[] | null>({ source: this.id, computation: () => null });
  protected readonly layout = computed<ExportLayout>(() => ({
    ...this.choice(),
    columns: this.ahead() ?? this.job()?.columns ?? MAIL_OUT,
  }));
  protected readonly preview = linkedSignal<Request<ExportPreview>, ExportPreview | null>({
    source: this.previews.asked,
    // The last one stays while another fails.
    computation: (asked, before) => valueOf(asked) ?? before?.value ?? null,
  });
  protected readonly problem = computed(() => {
    const asked = this.previews.asked();
    return asked.status === 'failed' ? asked.words : '';
  });
  protected readonly earlier = computed(() => valueOf(this.exports.asked()) ?? []);
  protected readonly busy = signal(false);
  protected readonly verdicts = VERDICTS;
  protected readonly sizes = [0, 100, 200, 500, 1000];
  private readonly live = computed(() =>
    this.runs().filter(({ jobId, state }) => jobId === this.id() && (state === 'running' || state === 'queued')),
  );
  protected readonly exporting = computed(() => this.live().filter(({ input }) => input.kind === 'export'));
  private readonly exportsDone = computed(
    () =>
      this.runs().filter(
        ({ jobId, input: { kind }, state }) => jobId === this.id() && kind === 'export' && state === 'done',
      ).length,
  );
  protected readonly addable = computed(() =>
    this.unused().map(({ field, heading }) => ({ value: field, label: heading })),
  );
  protected readonly unused = computed(() => {
    const used = new Set(this.layout().columns.map(({ field }) => field));
    const own = (this.preview()?.ownFields ?? []).map((name) => ({ field: `own:${name}`, heading: name }));
    return [...EXPORT_FIELDS.map((field) => ({ field: field, heading: headingOf(field) })), ...own].filter(
      ({ field }) => !used.has(field),
    );
  });
  protected readonly freshDays = computed(
    () => verifyOptions.parse(this.job()?.sieve.find(({ kind }) => kind === 'verify')?.options ?? {}).freshDays,
  );
  /** The step at which contacts wait since their verdict is too old; undefined while it is being asked. */
  protected readonly staleStep = computed(() => {
    const job = this.job();
    const step = job?.sieve.find(({ kind }) => kind === 'verify')?.id;
    const waits = job?.summary?.steps.find(({ id }) => id === step)?.why['no-longer-fresh'];
    return waits && !this.live().some(({ input }) => input.kind === 'ask' && input.step === step) ? step : undefined;
  });
  protected readonly mix = computed(() => {
    const counts = this.preview()?.counts;
    const sum = (counts?.valid ?? 0) + (counts?.risky ?? 0);
    return sum === 0 ? null : Math.round(((counts?.valid ?? 0) / sum) * 100);
  });

  constructor() {
    bringInto(this.id);
    const turn = (act: 'undo' | 'redo') =>
      this.decisions[act](
        { subject: 'job', subjectId: this.id() },
        undefined,
        (body) => body.kind === 'brief' && 'columns' in body.after,
      );
    inject(Shortcuts).use({ 'ctrl+z': () => turn('undo'), 'ctrl+shift+z': () => turn('redo') });
    this.previews.load(
      computed(() => ({
        jobId: this.id(),
        layout: this.layout(),
        // Asked anew with a new outcome, and when something has left.
        version: [this.job()?.version, this.exportsDone()],
      })),
    );
    this.exports.load(computed(() => ({ jobId: this.id(), done: this.exportsDone() })));
    effect(() => localStorage.setItem(REMEMBERED, JSON.stringify(this.choice())));
  }

  /** Asks about them anew; the preview follows when the answers are in. */
  protected askAgain(step: string) {
    this.doing.run(this.api.ask(this.id(), { step }), () =>
      this.notices.say('They are being verified again; the preview follows.'),
    );
  }

  protected set(change: Partial<Choice>) {
    this.choice.update((choice) => ({ ...choice, ...change }));
  }

  /** Shown at once and saved with the job: one change after the other, those in between left out. */
  private setColumns(columns: ExportColumn[]) {
    if (!this.job()) return;
    const isSaving = this.ahead() !== null;
    this.ahead.set(columns);
    if (!isSaving) this.saveColumns();
  }

  private saveColumns() {
    const [job, columns] = [this.job()!, this.ahead()!];
    this.doing.run(
      this.api.patchJob(job.id, { columns, was: { columns: job.columns } }),
      (saved) => {
        this.store.dispatch(workActions.jobCame({ job: saved }));
        if (this.id() !== job.id) return;
        if (this.ahead() === columns) this.ahead.set(null);
        else this.saveColumns();
      },
      (words) => {
        // What was not taken does not stand on the screen.
        if (this.id() === job.id) this.ahead.set(null);
        this.notices.bad(words);
      },
    );
  }

  protected toggle(verdict: Verdict) {
    const { verdicts } = this.layout();
    const next = verdicts.includes(verdict) ? verdicts.filter((known) => known !== verdict) : [...verdicts, verdict];
    if (next.length > 0) this.set({ verdicts: next });
    else this.notices.say('At least one kind has to go.');
  }

  protected rename(at: number, heading: string) {
    if (heading.trim())
      this.setColumns(
        this.layout().columns.map((column, i) => (i === at ? { ...column, heading: heading.trim() } : column)),
      );
  }

  protected drop({ previousIndex, currentIndex }: CdkDragDrop<unknown>) {
    this.moveColumn(previousIndex, currentIndex);
  }

  protected moveColumn(from: number, to: number) {
    const columns = [...this.layout().columns];
    if (to < 0 || to >= columns.length) return;
    moveItemInArray(columns, from, to);
    this.setColumns(columns);
  }

  protected remove(field: string) {
    const columns = this.layout().columns.filter((column) => column.field !== field);
    if (columns.length > 0) this.setColumns(columns);
  }

  protected add(field: string) {
    const column = this.unused().find((known) => known.field === field);
    if (column) this.setColumns([...this.layout().columns, column]);
  }

  protected readonly isMailOut = computed(() => JSON.stringify(this.layout().columns) === JSON.stringify(MAIL_OUT));

  protected useMailOut() {
    this.setColumns(MAIL_OUT);
  }

  protected useEverything() {
    this.setColumns([...this.layout().columns, ...this.unused()]);
  }

  protected export() {
    this.busy.set(true);
    this.doing.run(
      this.api.export(this.id(), this.layout()),
      () => this.busy.set(false),
      (words) => {
        this.busy.set(false);
        this.notices.bad(words);
      },
    );
  }

  protected address = (run: ExportRun) =>
    run.files.length === 1 ? `/api/exports/${run.id}/files/${run.files[0]!.name}` : `/api/exports/${run.id}/zip`;
}

function remembered(): Choice {
  const fresh: Choice = {
    verdicts: ['valid'],
    onlyNew: true,
    form: 'csv',
    rowsEach: 200,
    pattern: '{job}-{n}',
  };
  const saved = localStorage.getItem(REMEMBERED);
  return saved ? { ...fresh, ...(JSON.parse(saved) as Partial<Choice>) } : fresh;
}

const headingOf = (field: string): string => OTHER_WORDS[field] ?? FIELD_WORDS[field as PersonField] ?? field;
