import { ChangeDetectionStrategy, Component, computed, inject } from '@angular/core';
import { NonNullableFormBuilder, ReactiveFormsModule, Validators } from '@angular/forms';
import { MatFormFieldModule } from '@angular/material/form-field';
import { MatInputModule } from '@angular/material/input';
import { ownerOptions } from '@sieve/core/steps/owner/options';
import { Session } from '../../../../state/session';
import { lookupOrder } from '../lookup-order';
import { ServiceOrder } from '../service-order';
import { STEP_OPTIONS } from '../step-options';
import type { StepForm } from '../step-view';

/** Which finders are asked whose an address is, in which order, and from when on they are believed. */
@Component({
  selector: 'cs-owner-form',
  changeDetection: ChangeDetectionStrategy.OnPush,
  imports: [ReactiveFormsModule, MatFormFieldModule, MatInputModule, ServiceOrder],
  host: { class: 'step-fields' },
  template: `
    <mat-form-field [formGroup]="form"
      ><mat-label>Taken from, % sure; below, it wants a look</mat-label
      ><input matInput type="number" min="50" max="100" formControlName="takeFrom"
    /></mat-form-field>
    <cs-service-order
      class="all"
      [order]="order.ids()"
      [known]="known()"
      about="The first finder is asked; where it does not know, or is not sure enough, the next."
      nobody="No finder is asked: addresses keep the names that they say for themselves."
      (orderChange)="order.set($event)"
    />
  `,
  styles: `
    .all {
      grid-column: 1 / -1;
    }
  `,
})
export class OwnerForm implements StepForm {
  private readonly options = ownerOptions.parse(inject(STEP_OPTIONS));
  private readonly settings = inject(Session).settings;
  /** One that is paid for addresses which verify is paid for each person that it names. */
  protected readonly known = computed(() =>
    (this.settings()?.finders ?? []).map((finder) => ({
      ...finder,
      pays: finder.pays === 'valid' ? ('answer' as const) : finder.pays,
    })),
  );
  readonly form = inject(NonNullableFormBuilder).group({
    takeFrom: [this.options.takeFrom * 100, [Validators.required, Validators.min(50), Validators.max(100)]],
    finders: [this.options.finders],
  });
  readonly value = () => {
    const { takeFrom, finders } = this.form.getRawValue();
    return { finders, takeFrom: takeFrom / 100 };
  };
  protected readonly order = lookupOrder(this.form.controls.finders);
}
