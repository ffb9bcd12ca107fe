import { ChangeDetectionStrategy, Component, computed, inject, signal } from '@angular/core';
import { toSignal } from '@angular/core/rxjs-interop';
import { FormControl, NonNullableFormBuilder, ReactiveFormsModule, Validators } from '@angular/forms';
import { MatFormFieldModule } from '@angular/material/form-field';
import { MatInputModule } from '@angular/material/input';
import { MatSelectModule } from '@angular/material/select';
import { FIELD_WORDS } from '@sieve/contract';
import {
  ACCEPTED_ERROR,
  matchOptions,
  SURVIVOR_FIELDS,
  type SurvivorField,
  type SurvivorRule,
} from '@sieve/core/steps/match/options';
import { Store } from '@ngrx/store';
import { work } from '../../../../state/work';
import { Select } from '../../../../ui/select/select';
import { STEP_JOB, STEP_OPTIONS } from '../step-options';
import { LinesChart, lineFor } from './lines-chart';
import { inThousand, ofThousand } from '../../../../ui/in-thousand';
import type { StepForm } from '../step-view';

const RULES: { value: SurvivorRule; label: string }[] = [
  { value: 'fullest', label: 'The fullest, of those the most common' },
  { value: 'frequent', label: 'The most common' },
  { value: 'first', label: 'The one that came first' },
  { value: 'latest', label: 'The one that came last' },
];
/** What stands for several fields. */
const NAMES: Partial<Record<SurvivorField, string>> = { firstName: 'Name', street: 'Place' };

@Component({
  selector: 'cs-match-form',
  changeDetection: ChangeDetectionStrategy.OnPush,
  imports: [ReactiveFormsModule, MatFormFieldModule, MatInputModule, MatSelectModule, LinesChart, Select],
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
        ><mat-select formControlName="survivor">
          @for (rule of rules; track rule.value) {
            <mat-option [value]="rule.value">{{ rule.label }}</mat-option>
          }
        </mat-select></mat-form-field
      >
      <details class="wide" [open]="exceptions() > 0">
        <summary>By field{{ exceptions() > 0 ? ': ' + exceptions() + ' otherwise' : '' }}</summary>
        <div class="by-field">
          @for (field of fields; track field.value) {
            <span>{{ field.label }}</span>
            <cs-select
              [label]="'Value of ' + field.label + ' that is kept'"
              [options]="choices"
              [value]="ruleOf(field.value)"
              (picked)="keep(field.value, $event)"
            />
          }
        </div>
      </details>
    </ng-container>
  `,
  styles: `
    .by-field {
      display: grid;
      grid-template-columns: 80px 1fr 80px 1fr 80px 1fr;
      gap: 6px 10px;
      align-items: center;
      margin-top: 8px;
      color: var(--ink-2);
    }
    cs-select {
      max-width: none;
    }
    summary {
      cursor: pointer;
    }
  `,
})
export class MatchForm implements StepForm {
  protected readonly rules = RULES;
  protected readonly choices: { value: SurvivorRule | ''; label: string }[] = [
    { value: '', label: 'as all' },
    ...RULES,
  ];
  protected readonly fields = SURVIVOR_FIELDS.map((value) => ({ value, label: NAMES[value] ?? FIELD_WORDS[value] }));
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

  protected readonly survivorOf = signal(this.options.survivorOf);
  protected readonly exceptions = computed(() => Object.keys(this.survivorOf()).length);

  protected ruleOf = (field: SurvivorField): SurvivorRule | '' => this.survivorOf()[field] ?? '';

  protected keep(field: SurvivorField, rule: SurvivorRule | '') {
    this.survivorOf.update(({ [field]: _, ...others }) => (rule === '' ? others : { ...others, [field]: rule }));
  }

  /** A line that is set by hand takes the place of an accepted error. */
  protected mergeAt(line: number) {
    this.form.patchValue({ mergeFrom: line, wrongInThousand: null });
  }

  readonly value = () => {
    const { wrongInThousand, ...rest } = this.form.getRawValue();
    return { ...rest, survivorOf: this.survivorOf(), acceptedError: ofThousand(wrongInThousand) };
  };
}
