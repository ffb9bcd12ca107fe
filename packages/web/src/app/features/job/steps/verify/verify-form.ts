import { ChangeDetectionStrategy, Component, inject } from '@angular/core';
import { NonNullableFormBuilder, ReactiveFormsModule, Validators } from '@angular/forms';
import { MatFormFieldModule } from '@angular/material/form-field';
import { MatInputModule } from '@angular/material/input';
import { verifyOptions } from '@sieve/core/steps/verify/options';
import { STEP_OPTIONS } from '../step-options';
import type { StepForm } from '../step-view';

@Component({
  selector: 'cs-verify-form',
  changeDetection: ChangeDetectionStrategy.OnPush,
  imports: [ReactiveFormsModule, MatFormFieldModule, MatInputModule],
  host: { class: 'step-fields' },
  template: `
    <ng-container [formGroup]="form">
      <mat-form-field
        ><mat-label>Days that a verdict is fresh</mat-label
        ><input matInput type="number" min="1" max="3650" formControlName="freshDays" /><mat-hint
          >Older ones are asked again before they leave</mat-hint
        ></mat-form-field
      >
    </ng-container>
  `,
})
export class VerifyForm implements StepForm {
  private readonly options = verifyOptions.parse(inject(STEP_OPTIONS));
  readonly form = inject(NonNullableFormBuilder).group({
    freshDays: [this.options.freshDays, [Validators.required, Validators.min(1), Validators.max(3650)]],
  });
  readonly value = () => this.form.getRawValue();
}
