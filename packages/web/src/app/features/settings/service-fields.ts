import { booleanAttribute, ChangeDetectionStrategy, Component, inject, input, output } from '@angular/core';
import { type FormGroup, ReactiveFormsModule } from '@angular/forms';
import { MatButtonModule } from '@angular/material/button';
import { MatFormFieldModule } from '@angular/material/form-field';
import { MatInputModule } from '@angular/material/input';
import { MatSelectModule } from '@angular/material/select';
import type { Pays } from '@sieve/core';
import { PAYS_WORDS } from '@sieve/contract';
import { Session } from '../../state/session';
import { Icon } from '../../ui/icon/icon';
import { TryServiceButton } from './try-service';

/** A service that sells: its address, key, price, what it charges for, its pace, what it may be paid at most, and its plan. */
@Component({
  selector: 'cs-service-fields',
  changeDetection: ChangeDetectionStrategy.OnPush,
  imports: [
    ReactiveFormsModule,
    MatButtonModule,
    MatFormFieldModule,
    MatInputModule,
    MatSelectModule,
    Icon,
    TryServiceButton,
  ],
  template: `
    <div class="all" [formGroup]="form()">
      <mat-form-field><mat-label>Name</mat-label><input matInput formControlName="name" /></mat-form-field>
      <mat-form-field
        ><mat-label>{{ optional() ? 'Address; empty: none' : 'Address' }}</mat-label
        ><input matInput class="mono" formControlName="url"
      /></mat-form-field>
      <mat-form-field
        ><mat-label>Key</mat-label><input matInput type="password" autocomplete="off" formControlName="key"
      /></mat-form-field>
      @if (form().contains('model')) {
        <mat-form-field
          ><mat-label>Model</mat-label><input matInput class="mono" formControlName="model"
        /></mat-form-field>
      }
      @if (pays().length > 0) {
        <mat-form-field
          ><mat-label>Charged for</mat-label
          ><mat-select formControlName="pays">
            @for (one of pays(); track one) {
              <mat-option [value]="one">{{ paysWords[one] }}</mat-option>
            }
          </mat-select></mat-form-field
        >
      }
      <mat-form-field
        ><mat-label>{{ price() }}, {{ currency() }}</mat-label
        ><input matInput type="number" step="0.01" min="0" formControlName="price"
      /></mat-form-field>
      <mat-form-field
        ><mat-label>Questions a second</mat-label
        ><input matInput type="number" min="0.01" step="any" formControlName="perSecond"
      /></mat-form-field>
      <mat-form-field
        ><mat-label>At most a day; 0: no cap</mat-label
        ><input matInput type="number" step="0.01" min="0" formControlName="capDay"
      /></mat-form-field>
      <mat-form-field
        ><mat-label>At most a month; 0: no cap</mat-label
        ><input matInput type="number" step="0.01" min="0" formControlName="capMonth"
      /></mat-form-field>
      @if (form().contains('credits')) {
        <mat-form-field
          ><mat-label>Credits of its plan a month; 0: none</mat-label
          ><input matInput type="number" step="1" min="0" formControlName="credits"
        /></mat-form-field>
        <mat-form-field
          ><mat-label>Its plan costs a month</mat-label
          ><input matInput type="number" step="0.01" min="0" formControlName="planPrice"
        /></mat-form-field>
      }
      <cs-try-service
        [kind]="form().contains('model') ? 'model' : 'account'"
        [name]="form().value.name"
        [url]="form().value.url"
        [key]="form().value.key"
      />
    </div>
    <div class="side">
      @if (!optional()) {
        <button mat-button type="button" [attr.aria-label]="'Remove ' + form().value.name" (click)="removed.emit()">
          <cs-icon name="trash" />
        </button>
      }
      @if (form().value.simulated) {
        <span class="chip">simulated</span>
      }
    </div>
  `,
  styles: `
    :host {
      display: grid;
      grid-template-columns: minmax(0, 1fr) 96px;
      gap: 8px;
    }
    :host(:not(:last-child)) {
      margin-bottom: 14px;
      padding-bottom: 10px;
      border-bottom: 1px solid var(--line-soft);
    }
    .all {
      display: grid;
      grid-template-columns: repeat(4, minmax(0, 1fr));
      gap: 14px 8px;
      align-items: center;
    }
    cs-try-service {
      grid-column: span 2;
    }
    .side {
      display: flex;
      flex-direction: column;
      gap: 24px;
      align-items: center;
      padding-top: 8px;
    }
  `,
})
export class ServiceFields {
  /** Of `ServiceControls`; those of a plan, what it charges for and a model are shown where it holds them. */
  readonly form = input.required<FormGroup>();
  /** What it may charge for; none where that is always the same. */
  readonly pays = input<readonly Pays[]>([]);
  readonly price = input('Price');
  /** There is one of it, or none. */
  readonly optional = input(false, { transform: booleanAttribute });
  readonly removed = output();
  protected readonly currency = inject(Session).currency;
  protected readonly paysWords: Record<Pays, string> = PAYS_WORDS;
}
