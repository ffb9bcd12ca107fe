import { ChangeDetectionStrategy, Component, inject } from '@angular/core';
import { FormControl, NonNullableFormBuilder, ReactiveFormsModule, Validators } from '@angular/forms';
import { MatButtonModule } from '@angular/material/button';
import { MAT_DIALOG_DATA, MatDialogModule, MatDialogRef } from '@angular/material/dialog';
import { MatFormFieldModule } from '@angular/material/form-field';
import { MatInputModule } from '@angular/material/input';
import { MatSelectModule } from '@angular/material/select';
import type { SieveStep } from '@sieve/core';
import { ACCEPTED_ERROR, matchOptions } from '@sieve/core/steps/match/options';
import { screenOptions } from '@sieve/core/steps/screen/options';
import { verifyOptions } from '@sieve/core/steps/verify/options';
import { LEVELS } from '@sieve/core/words/titles/ranks';
import { TEAMS } from '@sieve/core/words/titles/teams';
import type { Job, JobPatch } from '@sieve/contract';
import { Store } from '@ngrx/store';
import { Api } from '../api/api';
import { Decisions } from '../state/decisions';
import { Doing } from '../state/doing';
import { workActions } from '../state/work';
import { inThousand, ofThousand } from './in-thousand';
import { MoneyPipe } from './money';
import { Notices } from './notices';

const listOf = (text: string, between: string): string[] =>
  text
    .split(between)
    .map((word) => word.trim())
    .filter(Boolean);

/** The brief of a job: made with it, and changed at any time. Given a job, it is that one's; null: a new one's; 'chosen': of one that is made to be chosen, and given back. */
@Component({
  selector: 'cs-brief-dialog',
  changeDetection: ChangeDetectionStrategy.OnPush,
  imports: [
    ReactiveFormsModule,
    MatDialogModule,
    MatFormFieldModule,
    MatInputModule,
    MatSelectModule,
    MatButtonModule,
    MoneyPipe,
  ],
  templateUrl: './brief-dialog.html',
  styles: `
    .fields {
      align-items: start;
      display: grid;
      grid-template-columns: 1fr 1fr;
      gap: 14px 10px;
      padding-top: 8px !important;
    }
    .wide,
    h3 {
      grid-column: 1 / -1;
    }
    h3 {
      margin: 4px 0 -4px;
    }
  `,
})
export class BriefDialog {
  private readonly api = inject(Api);
  private readonly store = inject(Store);
  private readonly doing = inject(Doing);
  private readonly notices = inject(Notices);
  private readonly decisions = inject(Decisions);
  private readonly dialog = inject(MatDialogRef<BriefDialog>);
  private readonly data = inject<Job | null | 'chosen'>(MAT_DIALOG_DATA);
  protected readonly job = this.data === 'chosen' ? null : this.data;
  private readonly stepOf = (kind: string) => this.job?.sieve.find((step) => step.kind === kind);
  /** The steps that keep to the brief. */
  protected readonly screen = this.stepOf('screen');
  protected readonly match = this.stepOf('match');
  protected readonly verify = this.stepOf('verify');
  private readonly wanted = screenOptions.parse(this.screen?.options ?? {});
  private readonly merging = matchOptions.parse(this.match?.options ?? {});
  private readonly verifying = verifyOptions.parse(this.verify?.options ?? {});
  protected readonly mergeFrom = this.merging.mergeFrom;
  protected readonly choices = [
    { control: 'levels', label: 'Levels wanted', values: LEVELS },
    { control: 'teams', label: 'Teams wanted', values: TEAMS },
  ];
  protected readonly form = inject(NonNullableFormBuilder).group({
    name: [this.job?.name ?? '', [Validators.required, Validators.maxLength(200)]],
    client: [this.job?.client ?? '', Validators.maxLength(200)],
    note: [this.job?.note ?? '', Validators.maxLength(2000)],
    folder: [this.job?.folder ?? '', Validators.maxLength(200)],
    targetValid: [this.job?.targetValid ?? 0, [Validators.required, Validators.min(0)]],
    budget: [(this.job?.budgetCents ?? 0) / 100, [Validators.required, Validators.min(0)]],
    titles: [this.wanted.briefTitles.join('\n')],
    levels: [this.wanted.briefLevels],
    teams: [this.wanted.briefTeams],
    places: [this.wanted.briefPlaces.join(', ')],
    sectors: [this.wanted.briefSectors.join(', ')],
    headcountFrom: [this.wanted.briefHeadcountFrom, [Validators.required, Validators.min(0)]],
    headcountTo: [this.wanted.briefHeadcountTo, [Validators.required, Validators.min(0)]],
    perCompany: [this.wanted.atMostPerCompany, [Validators.required, Validators.min(0), Validators.max(10_000)]],
    freshDays: [this.verifying.freshDays, [Validators.required, Validators.min(1), Validators.max(3650)]],
    wrongInThousand: new FormControl(inThousand(this.merging.acceptedError), [
      Validators.min(ACCEPTED_ERROR.least * 1000),
      Validators.max(ACCEPTED_ERROR.most * 1000),
    ]),
  });

  protected save() {
    if (this.form.invalid) return;
    const { name, client, note, folder, targetValid, budget, ...asked } = this.form.getRawValue();
    const brief = { name, client, note, folder, targetValid, budgetCents: Math.round(budget * 100) };
    if (this.job) {
      this.change(this.job, brief);
      this.setUp(this.job, this.screen, this.wanted, {
        briefTitles: listOf(asked.titles, '\n'),
        briefLevels: asked.levels,
        briefTeams: asked.teams,
        briefPlaces: listOf(asked.places, ','),
        briefSectors: listOf(asked.sectors, ','),
        briefHeadcountFrom: asked.headcountFrom,
        briefHeadcountTo: asked.headcountTo,
        atMostPerCompany: asked.perCompany,
      });
      this.setUp(this.job, this.match, this.merging, {
        acceptedError: ofThousand(asked.wrongInThousand),
      });
      this.setUp(this.job, this.verify, this.verifying, { freshDays: asked.freshDays });
    } else if (this.data === 'chosen') return this.make(brief);
    else this.store.dispatch(workActions.jobWanted({ job: brief, thenBringIn: true }));
    this.dialog.close();
  }

  /** Makes the job for whoever asked for one. */
  private make(brief: Parameters<Api['createJob']>[0]) {
    this.doing.run(this.api.createJob(brief), (job) => {
      this.store.dispatch(workActions.jobCame({ job }));
      this.dialog.close(job);
    });
  }

  /** Only what was changed here is sent: what somebody else changed meanwhile stays. */
  private change(job: Job, brief: JobPatch) {
    const changed = Object.entries(brief).filter(([key, value]) => value !== job[key as keyof JobPatch]);
    if (changed.length === 0) return;
    this.doing.run(
      this.api.patchJob(job.id, {
        ...Object.fromEntries(changed),
        was: Object.fromEntries(changed.map(([key]) => [key, job[key as keyof JobPatch]])),
      }),
      (saved) => {
        this.store.dispatch(workActions.jobCame({ job: saved }));
        this.notices.say('The brief is saved. Ctrl Z takes it back.');
      },
    );
  }

  private setUp<O extends object>(job: Job, step: SieveStep | undefined, options: O, wanted: Partial<O>) {
    const isSame = Object.entries(wanted).every(
      ([key, value]) => JSON.stringify(value) === JSON.stringify(options[key as keyof O]),
    );
    if (step && !isSame) this.decisions.configure(job.id, { ...step, options: { ...options, ...wanted } }, step);
  }
}
