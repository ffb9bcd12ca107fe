import { ChangeDetectionStrategy, Component, inject } from '@angular/core';
import { NonNullableFormBuilder, ReactiveFormsModule, Validators } from '@angular/forms';
import { MatFormFieldModule } from '@angular/material/form-field';
import { MatInputModule } from '@angular/material/input';
import { tidyOptions } from '@sieve/core/steps/tidy/options';
import { STEP_OPTIONS } from '../step-options';
import type { StepForm } from '../step-view';

@Component({
  selector: 'cs-tidy-form',
  changeDetection: ChangeDetectionStrategy.OnPush,
  imports: [ReactiveFormsModule, MatFormFieldModule, MatInputModule],
  host: { class: 'step-fields' },
  template: `
    <ng-container [formGroup]="form">
      <mat-form-field
        ><mat-label>Country of phones without one</mat-label
        ><input matInput maxlength="2" formControlName="phoneCountry" /><mat-hint
          >Two letters, such as GB or IE</mat-hint
        ></mat-form-field
      >
    </ng-container>
  `,
})
export class TidyForm implements StepForm {
  private readonly options = tidyOptions.parse(inject(STEP_OPTIONS));
  readonly form = inject(NonNullableFormBuilder).group({
    phoneCountry: [this.options.phoneCountry, [Validators.required, Validators.pattern(/^[A-Za-z]{2}$/)]],
  });
  readonly value = () => ({ phoneCountry: this.form.getRawValue().phoneCountry.toUpperCase() });
}
