import { ChangeDetectionStrategy, Component, computed, inject } from '@angular/core';
import { toSignal } from '@angular/core/rxjs-interop';
import { FormControl, NonNullableFormBuilder, ReactiveFormsModule, Validators } from '@angular/forms';
import { MatFormFieldModule } from '@angular/material/form-field';
import { MatInputModule } from '@angular/material/input';
import { MatSelectModule } from '@angular/material/select';
import { ACCEPTED_ERROR, matchOptions } from '@sieve/core/steps/match/options';
import { Store } from '@ngrx/store';
import { work } from '../../../../state/work';
import { STEP_JOB, STEP_OPTIONS } from '../step-options';
import { LinesChart, lineFor } from './lines-chart';
import { inThousand, ofThousand } from '../../../../ui/in-thousand';
import type { StepForm } from '../step-view';

@Component({
  selector: 'cs-match-form',
  changeDetection: ChangeDetectionStrategy.OnPush,
  imports: [ReactiveFormsModule, MatFormFieldModule, MatInputModule, MatSelectModule, LinesChart],
  host: { class: 'step-fields' },
  template: `
    <ng-container [formGroup]="form">
      @if (lines(); as points) {
        <cs-lines-chart
          class="wide"
          [points]="points"
          [mergeFrom]="mergeFrom()"
          [judgeFrom]="judgeFrom()"
          (merge)="mergeAt($event)"
          (judge)="form.controls.judgeFrom.setValue($event)"
        />
      }
      <mat-form-field
        ><mat-label>Merge pairs from this chance</mat-label
        ><input matInput type="number" step="0.01" min="0.5" max="1" formControlName="mergeFrom"
      /></mat-form-field>
      <mat-form-field
        ><mat-label>Or as low as wrong ones allow, in 1,000</mat-label
        ><input matInput type="number" step="0.1" min="1" max="100" formControlName="wrongInThousand" /><mat-hint
          >Empty: from the chance beside it</mat-hint
        ></mat-form-field
      >
      <mat-form-field
        ><mat-label>Let me judge from this chance</mat-label
        ><input matInput type="number" step="0.01" min="0.01" max="1" formControlName="judgeFrom"
      /></mat-form-field>
      <mat-form-field class="wide"
        ><mat-label>Value that is kept</mat-label
        ><mat-select formControlName="survivor"
          ><mat-option value="fullest">The fullest, of those the most common</mat-option
          ><mat-option value="first">The one that came first</mat-option
          ><mat-option value="latest">The one that came last</mat-option></mat-select
        ></mat-form-field
      >
    </ng-container>
  `,
})
export class MatchForm implements StepForm {
  private readonly options = matchOptions.parse(inject(STEP_OPTIONS));
  readonly form = inject(NonNullableFormBuilder).group({
    mergeFrom: [this.options.mergeFrom, [Validators.required, Validators.min(0.5), Validators.max(1)]],
    wrongInThousand: new FormControl(inThousand(this.options.acceptedError), [
      Validators.min(ACCEPTED_ERROR.least * 1000),
      Validators.max(ACCEPTED_ERROR.most * 1000),
    ]),
    judgeFrom: [this.options.judgeFrom, [Validators.required, Validators.min(0.01), Validators.max(1)]],
    survivor: [this.options.survivor],
  });
  private readonly values = toSignal(this.form.valueChanges, { initialValue: this.form.getRawValue() });
  private readonly jobs = inject(Store).selectSignal(work.selectJobEntities);
  private readonly jobId = inject(STEP_JOB);
  protected readonly lines = computed(() => {
    const lines = this.jobs()[this.jobId]?.summary?.lines;
    return lines?.some(({ pairs }) => pairs > 0) ? lines : null;
  });
  /** Where an error is accepted, the lowest line that keeps to it. */
  protected readonly mergeFrom = computed(() => {
    const { mergeFrom, wrongInThousand } = this.values();
    return wrongInThousand == null ? (mergeFrom ?? 1) : lineFor(this.lines() ?? [], wrongInThousand / 1000);
  });
  protected readonly judgeFrom = computed(() => this.values().judgeFrom ?? 0);

  /** A line that is set by hand takes the place of an accepted error. */
  protected mergeAt(line: number) {
    this.form.patchValue({ mergeFrom: line, wrongInThousand: null });
  }

  readonly value = () => {
    const { wrongInThousand, ...rest } = this.form.getRawValue();
    return { ...rest, acceptedError: ofThousand(wrongInThousand) };
  };
}
