import { ChangeDetectionStrategy, Component, inject } from '@angular/core';
import { NonNullableFormBuilder, ReactiveFormsModule, Validators } from '@angular/forms';
import { MatButtonModule } from '@angular/material/button';
import { MAT_DIALOG_DATA, MatDialogModule, MatDialogRef } from '@angular/material/dialog';
import { MatFormFieldModule } from '@angular/material/form-field';
import { MatInputModule } from '@angular/material/input';
import type { ChargeRow } from '@sieve/contract';
import { Api } from '../../api/api';
import { Doing } from '../../state/doing';
import { Session } from '../../state/session';
import { Notices } from '../../ui/notices';
import { MoneyPipe } from '../../ui/money';

export interface GivesBack {
  charge: ChargeRow;
  service: string;
}

/** Writes that a service gave a charge back, in whole or in part. */
@Component({
  selector: 'cs-give-back',
  changeDetection: ChangeDetectionStrategy.OnPush,
  imports: [ReactiveFormsModule, MatButtonModule, MatDialogModule, MatFormFieldModule, MatInputModule, MoneyPipe],
  template: `
    <h2 mat-dialog-title>Given back by {{ data.service }}</h2>
    <mat-dialog-content [formGroup]="form">
      <p class="dim">
        {{ data.charge.name ? data.charge.name + ', ' : '' }}{{ data.charge.reason }}: {{ leftCents | money }} of
        {{ data.charge.cents | money }} can be given back. The job has it to spend again.
      </p>
      <mat-form-field
        ><mat-label>Amount, {{ currency() }}</mat-label
        ><input
          matInput
          type="number"
          min="0.01"
          step="0.01"
          [max]="leftCents / 100"
          formControlName="amount"
        /><mat-error>From 0.01 to {{ leftCents | money }}</mat-error></mat-form-field
      >
      <mat-form-field
        ><mat-label>Why</mat-label><input matInput maxlength="300" formControlName="why" /><mat-error
          >Say why, for whoever reads the ledger</mat-error
        ></mat-form-field
      >
    </mat-dialog-content>
    <mat-dialog-actions align="end">
      <button mat-button type="button" mat-dialog-close>Close</button>
      <button mat-flat-button type="button" (click)="save()">Write it down</button>
    </mat-dialog-actions>
  `,
  styles: `
    mat-dialog-content {
      display: grid;
      gap: 8px;
      min-width: 380px;
    }
    .dim {
      margin: 0 0 6px;
      color: var(--ink-2);
    }
  `,
})
export class GiveBack {
  private readonly api = inject(Api);
  private readonly doing = inject(Doing);
  private readonly notices = inject(Notices);
  private readonly dialog = inject(MatDialogRef<GiveBack>);
  protected readonly data = inject<GivesBack>(MAT_DIALOG_DATA);
  protected readonly currency = inject(Session).currency;
  protected readonly leftCents = this.data.charge.cents - this.data.charge.givenBack;
  protected readonly form = inject(NonNullableFormBuilder).group({
    amount: [this.leftCents / 100, [Validators.required, Validators.min(0.01), Validators.max(this.leftCents / 100)]],
    why: ['', Validators.required],
  });

  protected save() {
    if (this.form.invalid) return this.form.markAllAsTouched();
    const { amount, why } = this.form.getRawValue();
    this.doing.run(this.api.giveBack({ chargeId: this.data.charge.id, cents: Math.round(amount * 100), why }), () => {
      this.notices.say('Written down. Ctrl Z takes it back.');
      this.dialog.close(true);
    });
  }
}
