import { ChangeDetectionStrategy, Component, computed, inject } from '@angular/core';
import { NonNullableFormBuilder, ReactiveFormsModule, Validators } from '@angular/forms';
import { MatFormFieldModule } from '@angular/material/form-field';
import { MatInputModule } from '@angular/material/input';
import { appendEmailOptions } from '@sieve/core/steps/append-email/options';
import { Session } from '../../../../state/session';
import { lookupOrder } from '../lookup-order';
import { ServiceOrder } from '../service-order';
import { STEP_OPTIONS } from '../step-options';
import type { StepForm } from '../step-view';
import { OrderAdvice } from '../order-advice';

/** How many patterns are tried, and which finders are asked, in which order. */
@Component({
  selector: 'cs-append-email-form',
  changeDetection: ChangeDetectionStrategy.OnPush,
  imports: [ReactiveFormsModule, MatFormFieldModule, MatInputModule, ServiceOrder, OrderAdvice],
  host: { class: 'step-fields' },
  template: `
    <mat-form-field [formGroup]="form"
      ><mat-label>Addresses tried from patterns</mat-label
      ><input matInput type="number" min="0" max="12" formControlName="candidates"
    /></mat-form-field>
    <mat-form-field [formGroup]="form"
      ><mat-label>Not tried when less likely than, %</mat-label
      ><input matInput type="number" min="0" max="100" step="0.5" formControlName="leastChance"
    /></mat-form-field>
    <mat-form-field [formGroup]="form"
      ><mat-label>Days until who was not found is asked about again</mat-label
      ><input matInput type="number" min="0" max="3650" formControlName="againDays" /><mat-hint
        >0: never</mat-hint
      ></mat-form-field
    >
    <div class="order">
      <cs-service-order
        [order]="order.ids()"
        [known]="known()"
        about="Who is still without an address is asked of the first finder, then of the next."
        nobody="No finder is asked: addresses come from patterns alone."
        (orderChange)="order.set($event)"
      />
      <cs-order-advice [order]="order.ids()" [finders]="known()" (used)="order.set($event)" />
    </div>
  `,
  styles: `
    .order {
      grid-column: 1 / -1;
    }
  `,
})
export class AppendEmailForm implements StepForm {
  private readonly options = appendEmailOptions.parse(inject(STEP_OPTIONS));
  private readonly settings = inject(Session).settings;
  protected readonly known = computed(() => this.settings()?.finders ?? []);
  readonly form = inject(NonNullableFormBuilder).group({
    candidates: [this.options.candidates, [Validators.min(0), Validators.max(12)]],
    leastChance: [this.options.leastChance * 100, [Validators.required, Validators.min(0), Validators.max(100)]],
    finders: [this.options.finders],
    againDays: [this.options.againDays, [Validators.required, Validators.min(0), Validators.max(3650)]],
  });
  readonly value = () => {
    const { leastChance, ...form } = this.form.getRawValue();
    return { ...form, leastChance: leastChance / 100 };
  };
  protected readonly order = lookupOrder(this.form.controls.finders);
}
