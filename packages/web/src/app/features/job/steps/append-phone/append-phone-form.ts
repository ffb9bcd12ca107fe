import { ChangeDetectionStrategy, Component, computed, inject } from '@angular/core';
import { NonNullableFormBuilder, ReactiveFormsModule, Validators } from '@angular/forms';
import { MatCheckboxModule } from '@angular/material/checkbox';
import { MatFormFieldModule } from '@angular/material/form-field';
import { MatInputModule } from '@angular/material/input';
import { PHONE_PASSES } from '@sieve/core/model/phone';
import { appendPhoneOptions } from '@sieve/core/steps/append-phone/options';
import { PASS_WORDS } from '@sieve/contract';
import { Session } from '../../../../state/session';
import { OrderAdvice } from '../order-advice';
import { lookupOrder } from '../lookup-order';
import { ServiceOrder } from '../service-order';
import { STEP_OPTIONS } from '../step-options';
import type { StepForm } from '../step-view';

const ABOUT: Record<(typeof PHONE_PASSES)[number], string> = {
  full: 'as they are named',
  last: 'Bill is listed as William, or a partner holds the line',
  earlier: 'the last two, of an earlier-address column or of merged records',
};

/** In which passes phones are looked for, and which services are asked, in which order. */
@Component({
  selector: 'cs-append-phone-form',
  changeDetection: ChangeDetectionStrategy.OnPush,
  imports: [ReactiveFormsModule, MatCheckboxModule, MatFormFieldModule, MatInputModule, ServiceOrder, OrderAdvice],
  host: { class: 'step-fields' },
  template: `
    <fieldset class="all" [formGroup]="form.controls.passes">
      <legend>Passes</legend>
      <p class="dim">Each asks about those whom the one before it left without a phone.</p>
      @for (pass of passes; track pass) {
        <mat-checkbox [formControlName]="pass"
          >{{ $index + 1 }}. By {{ passWords[pass] }} <small>{{ about[pass] }}</small></mat-checkbox
        >
      }
    </fieldset>
    <cs-service-order
      class="all"
      [order]="order.ids()"
      [known]="known()"
      about="In each pass the first service is asked, then the next, until one lists a number that can be dialled."
      nobody="No service is asked: only the phones that came with people are told apart."
      (orderChange)="order.set($event)"
    />
    <cs-order-advice class="all" of="phones" [order]="order.ids()" [finders]="known()" (used)="order.set($event)" />
    <mat-form-field class="again" [formGroup]="form"
      ><mat-label>Days until who was not found is asked about again</mat-label
      ><input matInput type="number" min="0" max="3650" formControlName="againDays" /><mat-hint
        >0: never</mat-hint
      ></mat-form-field
    >
    <mat-checkbox class="all" [formControl]="form.controls.needed">Set aside who has no phone in the end</mat-checkbox>
  `,
  styles: `
    .all {
      display: grid;
      grid-column: 1 / -1;
      margin: 0;
      padding: 0;
      border: 0;
    }
    legend {
      padding: 0;
      font-size: 13px;
      font-weight: 600;
    }
    small,
    .dim {
      margin: 2px 0 0;
      color: var(--ink-2);
      font-size: 12px;
    }
  `,
})
export class AppendPhoneForm implements StepForm {
  private readonly options = appendPhoneOptions.parse(inject(STEP_OPTIONS));
  private readonly settings = inject(Session).settings;
  protected readonly known = computed(() => this.settings()?.phoneServices ?? []);
  protected readonly passes = PHONE_PASSES;
  protected readonly passWords = PASS_WORDS;
  protected readonly about = ABOUT;
  private readonly builder = inject(NonNullableFormBuilder);
  private readonly isOn = (pass: (typeof PHONE_PASSES)[number]) => this.options.passes.includes(pass);
  readonly form = this.builder.group({
    passes: this.builder.group({ full: this.isOn('full'), last: this.isOn('last'), earlier: this.isOn('earlier') }),
    services: [this.options.services],
    needed: [this.options.needed],
    againDays: [this.options.againDays, [Validators.required, Validators.min(0), Validators.max(3650)]],
  });
  readonly value = () => {
    const { passes, ...form } = this.form.getRawValue();
    return { ...form, passes: PHONE_PASSES.filter((pass) => passes[pass]) };
  };
  protected readonly order = lookupOrder(this.form.controls.services);
}
