import { NgComponentOutlet } from '@angular/common';
import { ChangeDetectionStrategy, Component, inject, Injector, signal, type Type, viewChild } from '@angular/core';
import { FormControl, ReactiveFormsModule } from '@angular/forms';
import { MatButtonModule } from '@angular/material/button';
import { MatCheckboxModule } from '@angular/material/checkbox';
import { MAT_DIALOG_DATA, MatDialogModule, MatDialogRef } from '@angular/material/dialog';
import type { SieveStep } from '@sieve/core';
import { stepWords } from '@sieve/contract';
import { Decisions } from '../../state/decisions';
import { viewOf } from './steps/registry';
import { STEP_JOB, STEP_OPTIONS } from './steps/step-options';
import type { StepForm } from './steps/step-view';

/** How one step works. Saving is a decision, so it can be taken back. */
@Component({
  selector: 'cs-step-dialog',
  changeDetection: ChangeDetectionStrategy.OnPush,
  imports: [ReactiveFormsModule, MatDialogModule, MatCheckboxModule, MatButtonModule, NgComponentOutlet],
  template: `
    <h2 mat-dialog-title>{{ name }}</h2>
    <mat-dialog-content>
      @if (view.about) {
        <p class="dim">{{ view.about }}</p>
      }
      @if (view.onWords) {
        <mat-checkbox [formControl]="on">{{ view.onWords }}</mat-checkbox>
      }
      @if (form(); as component) {
        <ng-container *ngComponentOutlet="component; injector: injector" />
      }
    </mat-dialog-content>
    <mat-dialog-actions align="end">
      <button mat-button type="button" mat-dialog-close>Close</button>
      <button mat-flat-button type="button" (click)="save()">Use</button>
    </mat-dialog-actions>
  `,
  styles: `
    p {
      margin: 4px 0 8px;
    }
    .dim {
      color: var(--ink-2);
    }
  `,
})
export class StepDialog {
  private readonly decisions = inject(Decisions);
  private readonly dialog = inject(MatDialogRef<StepDialog>);
  private readonly data = inject<{ jobId: number; step: SieveStep }>(MAT_DIALOG_DATA);
  protected readonly view = viewOf(this.data.step.kind);
  protected readonly name = stepWords(this.data.step.kind);
  protected readonly on = new FormControl(this.data.step.on, { nonNullable: true });
  protected readonly form = signal<Type<StepForm> | null>(null);
  protected readonly injector = Injector.create({
    providers: [
      { provide: STEP_OPTIONS, useValue: this.data.step.options },
      { provide: STEP_JOB, useValue: this.data.jobId },
    ],
    parent: inject(Injector),
  });
  private readonly outlet = viewChild<NgComponentOutlet<StepForm>>(NgComponentOutlet);

  constructor() {
    void this.view.form?.().then((form) => this.form.set(form));
  }

  protected save() {
    const form = this.outlet()?.componentInstance;
    if (form?.form.invalid) return form.form.markAllAsTouched();
    const { jobId, step } = this.data;
    this.decisions.configure(jobId, { ...step, on: this.on.value, options: form?.value() ?? step.options }, step);
    this.dialog.close();
  }
}
