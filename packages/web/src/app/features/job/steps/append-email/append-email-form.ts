import { ChangeDetectionStrategy, Component, inject } from '@angular/core';
import { NonNullableFormBuilder, ReactiveFormsModule, Validators } from '@angular/forms';
import { MatFormFieldModule } from '@angular/material/form-field';
import { MatInputModule } from '@angular/material/input';
import { MatSelectModule } from '@angular/material/select';
import { appendEmailOptions } from '@sieve/core/steps/append-email/options';
import { Session } from '../../../../state/session';
import { STEP_OPTIONS } from '../step-options';
import type { StepForm } from '../step-view';

@Component({
  selector: 'cs-append-email-form',
  changeDetection: ChangeDetectionStrategy.OnPush,
  imports: [ReactiveFormsModule, MatFormFieldModule, MatInputModule, MatSelectModule],
  host: { class: 'step-fields' },
  template: `
    <ng-container [formGroup]="form">
      <mat-form-field
        ><mat-label>Addresses tried from patterns</mat-label
        ><input matInput type="number" min="0" max="12" formControlName="candidates"
      /></mat-form-field>
      <mat-form-field
        ><mat-label>Finders, in lookup order</mat-label
        ><mat-select multiple formControlName="finders">
          @for (finder of settings()?.finders; track finder.id) {
            <mat-option [value]="finder.id">{{ finder.name }}</mat-option>
          }
        </mat-select></mat-form-field
      >
    </ng-container>
  `,
})
export class AppendEmailForm implements StepForm {
  private readonly options = appendEmailOptions.parse(inject(STEP_OPTIONS));
  protected readonly settings = inject(Session).settings;
  readonly form = inject(NonNullableFormBuilder).group({
    candidates: [this.options.candidates, [Validators.min(0), Validators.max(12)]],
    finders: [this.options.finders],
  });
  readonly value = () => this.form.getRawValue();
}
