import { ChangeDetectionStrategy, Component, inject } from '@angular/core';
import { NonNullableFormBuilder, ReactiveFormsModule, Validators } from '@angular/forms';
import { MatButtonModule } from '@angular/material/button';
import { MatDialogModule, MatDialogRef } from '@angular/material/dialog';
import { MatFormFieldModule } from '@angular/material/form-field';
import { MatInputModule } from '@angular/material/input';
import { Store } from '@ngrx/store';
import { workActions } from '../state/work';

/** A new job: its name, its target and its budget. */
@Component({
  selector: 'cs-new-job',
  changeDetection: ChangeDetectionStrategy.OnPush,
  imports: [ReactiveFormsModule, MatDialogModule, MatFormFieldModule, MatInputModule, MatButtonModule],
  template: `
    <form [formGroup]="form" (ngSubmit)="create()">
      <h2 mat-dialog-title>New job</h2>
      <mat-dialog-content class="fields">
        <mat-form-field class="wide"
          ><mat-label>Name</mat-label><input matInput formControlName="name" placeholder="Cheese makers, UK & Ireland"
        /></mat-form-field>
        <mat-form-field class="wide"
          ><mat-label>Whom it is for</mat-label
          ><input matInput formControlName="note" placeholder="Quality and production leads"
        /></mat-form-field>
        <mat-form-field><mat-label>Folder</mat-label><input matInput formControlName="folder" /></mat-form-field>
        <mat-form-field
          ><mat-label>Valid emails wanted</mat-label
          ><input matInput type="number" min="0" formControlName="targetValid"
        /></mat-form-field>
        <mat-form-field
          ><mat-label>Budget</mat-label><input matInput type="number" min="0" step="0.01" formControlName="budget"
        /></mat-form-field>
      </mat-dialog-content>
      <mat-dialog-actions align="end">
        <button mat-button type="button" mat-dialog-close>Close</button>
        <button mat-flat-button type="submit" [disabled]="form.invalid">Create and bring in a file</button>
      </mat-dialog-actions>
    </form>
  `,
  styles: `
    .fields {
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
export class NewJobDialog {
  private readonly store = inject(Store);
  private readonly dialog = inject(MatDialogRef<NewJobDialog>);
  protected readonly form = inject(NonNullableFormBuilder).group({
    name: ['', [Validators.required, Validators.maxLength(200)]],
    note: [''],
    folder: [''],
    targetValid: [0, [Validators.min(0)]],
    budget: [0, [Validators.min(0)]],
  });

  protected create() {
    if (this.form.invalid) return;
    const { budget, ...job } = this.form.getRawValue();
    this.store.dispatch(
      workActions.jobWanted({ job: { ...job, budgetCents: Math.round(budget * 100) }, thenBringIn: true }),
    );
    this.dialog.close();
  }
}
