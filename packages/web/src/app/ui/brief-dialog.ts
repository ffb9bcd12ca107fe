import { ChangeDetectionStrategy, Component, inject } from '@angular/core';
import { NonNullableFormBuilder, ReactiveFormsModule, Validators } from '@angular/forms';
import { MatButtonModule } from '@angular/material/button';
import { MAT_DIALOG_DATA, MatDialogModule, MatDialogRef } from '@angular/material/dialog';
import { MatFormFieldModule } from '@angular/material/form-field';
import { MatInputModule } from '@angular/material/input';
import { MatSelectModule } from '@angular/material/select';
import { screenOptions, type ScreenOptions } from '@sieve/core/steps/screen/options';
import { LEVELS, TEAMS } from '@sieve/core/words/titles';
import type { Job, JobPatch } from '@sieve/contract';
import { Store } from '@ngrx/store';
import { Api } from '../api/api';
import { Decisions } from '../state/decisions';
import { Doing } from '../state/doing';
import { workActions } from '../state/work';
import { MoneyPipe } from './money';
import { Notices } from './notices';

/** What of the brief the step keeps that screens by it. */
type Wanted = Pick<ScreenOptions, 'briefTitles' | 'briefLevels' | 'briefTeams' | 'briefPlaces' | 'atMostPerCompany'>;

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
  template: `
    <form [formGroup]="form" (ngSubmit)="save()">
      <h2 mat-dialog-title>{{ job ? 'Brief' : 'New job' }}</h2>
      <mat-dialog-content class="fields">
        <mat-form-field class="wide"
          ><mat-label>Name</mat-label><input matInput formControlName="name" placeholder="Cheese makers, UK & Ireland"
        /></mat-form-field>
        <mat-form-field
          ><mat-label>Client</mat-label><input matInput formControlName="client" placeholder="Larkfell"
        /></mat-form-field>
        <mat-form-field><mat-label>Folder</mat-label><input matInput formControlName="folder" /></mat-form-field>
        <mat-form-field class="wide"
          ><mat-label>Whom it is for</mat-label
          ><input matInput formControlName="note" placeholder="Quality and production leads"
        /></mat-form-field>
        <mat-form-field
          ><mat-label>Valid emails wanted</mat-label
          ><input matInput type="number" min="0" formControlName="targetValid"
        /></mat-form-field>
        <mat-form-field
          ><mat-label>Budget</mat-label><input matInput type="number" min="0" step="0.01" formControlName="budget" />
          @if (job && job.spentCents > 0) {
            <mat-hint>{{ job.spentCents | money }} of it is spent</mat-hint>
          }
        </mat-form-field>
        @if (screen) {
          <mat-form-field class="wide"
            ><mat-label>Job titles wanted, one a line</mat-label
            ><textarea matInput rows="4" formControlName="titles"></textarea>
            <mat-hint>Others wait for a look in Screen, where words and fields narrow it further</mat-hint>
          </mat-form-field>
          @for (choice of choices; track choice.control) {
            <mat-form-field
              ><mat-label>{{ choice.label }}</mat-label>
              <mat-select multiple [formControlName]="choice.control">
                @for (value of choice.values; track value) {
                  <mat-option [value]="value">{{ value }}</mat-option>
                }
              </mat-select>
            </mat-form-field>
          }
          <mat-form-field
            ><mat-label>Places wanted</mat-label
            ><input matInput formControlName="places" placeholder="GB, IE, Cumbria" />
            <mat-hint>Countries by code, regions, cities</mat-hint>
          </mat-form-field>
          <mat-form-field
            ><mat-label>At most so many a company</mat-label
            ><input matInput type="number" min="0" formControlName="perCompany" />
            <mat-hint>0: no limit</mat-hint>
          </mat-form-field>
        }
      </mat-dialog-content>
      <mat-dialog-actions align="end">
        <button mat-button type="button" mat-dialog-close>Close</button>
        <button mat-flat-button type="submit" [disabled]="form.invalid">
          {{ job ? 'Save' : 'Create and bring in a file' }}
        </button>
      </mat-dialog-actions>
    </form>
  `,
  styles: `
    .fields {
      align-items: start;
      display: grid;
      grid-template-columns: 1fr 1fr;
      gap: 14px 10px;
      padding-top: 8px !important;
    }
    .wide {
      grid-column: 1 / -1;
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
  /** The step that keeps to the brief. */
  protected readonly screen = this.job?.sieve.find(({ kind }) => kind === 'screen');
  private readonly options = screenOptions.parse(this.screen?.options ?? {});
  protected readonly choices = [
    { control: 'levels', label: 'Levels wanted', values: LEVELS.map(([level]) => level) },
    { control: 'teams', label: 'Teams wanted', values: TEAMS.map(([team]) => team) },
  ];
  protected readonly form = inject(NonNullableFormBuilder).group({
    name: [this.job?.name ?? '', [Validators.required, Validators.maxLength(200)]],
    client: [this.job?.client ?? '', Validators.maxLength(200)],
    note: [this.job?.note ?? '', Validators.maxLength(2000)],
    folder: [this.job?.folder ?? '', Validators.maxLength(200)],
    targetValid: [this.job?.targetValid ?? 0, [Validators.required, Validators.min(0)]],
    budget: [(this.job?.budgetCents ?? 0) / 100, [Validators.required, Validators.min(0)]],
    titles: [this.options.briefTitles.join('\n')],
    levels: [this.options.briefLevels],
    teams: [this.options.briefTeams],
    places: [this.options.briefPlaces.join(', ')],
    perCompany: [this.options.atMostPerCompany, [Validators.required, Validators.min(0), Validators.max(10_000)]],
  });

  protected save() {
    if (this.form.invalid) return;
    const { budget, titles, levels, teams, places, perCompany, ...fields } = this.form.getRawValue();
    const brief = { ...fields, budgetCents: Math.round(budget * 100) };
    if (this.job)
      this.change(this.job, brief, {
        briefTitles: listOf(titles, '\n'),
        briefLevels: levels,
        briefTeams: teams,
        briefPlaces: listOf(places, ','),
        atMostPerCompany: perCompany,
      });
    else if (this.data === 'chosen') return this.make(brief);
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
  private change(job: Job, brief: JobPatch, wanted: Wanted) {
    const changed = Object.entries(brief).filter(([key, value]) => value !== job[key as keyof JobPatch]);
    if (changed.length > 0)
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
    const isSame = Object.entries(wanted).every(
      ([key, value]) => JSON.stringify(value) === JSON.stringify(this.options[key as keyof Wanted]),
    );
    if (this.screen && !isSame)
      this.decisions.configure(job.id, { ...this.screen, options: { ...this.options, ...wanted } }, this.screen);
  }
}
