import { ChangeDetectionStrategy, Component, input, output } from '@angular/core';
import { MatSelectModule } from '@angular/material/select';

export interface Option<T> {
  value: T;
  label: string;
}

/** One of some values, small enough to stand in a line of words. Material's select in our size. */
@Component({
  selector: 'cs-select',
  changeDetection: ChangeDetectionStrategy.OnPush,
  imports: [MatSelectModule],
  template: `
    <mat-select
      panelWidth=""
      [value]="value()"
      [placeholder]="placeholder()"
      [disabled]="disabled()"
      [aria-label]="label()"
      (selectionChange)="picked.emit($event.value); keeps() || ($event.source.value = null)"
    >
      @for (option of options(); track option.value) {
        <mat-option [value]="option.value">{{ option.label }}</mat-option>
      }
    </mat-select>
  `,
  styles: `
    :host {
      display: inline-block;
      height: 30px;
      overflow: hidden;
      min-width: 90px;
      max-width: 260px;
      padding: 4px 9px;
      border: 1px solid var(--line);
      border-radius: 7px;
      background: var(--paper);
      line-height: 20px;
      vertical-align: middle;
    }
    :host:focus-within {
      outline: 2px solid var(--spruce);
      outline-offset: 1px;
    }
  `,
})
export class Select<T> {
  readonly options = input.required<readonly Option<T>[]>();
  readonly value = input<T | null>(null);
  /** What it is called, for those who do not see where it stands. */
  readonly label = input.required<string>();
  readonly placeholder = input('');
  readonly disabled = input(false);
  /** Shows what was picked; without, it is a list to pick from again and again. */
  readonly keeps = input(true);
  readonly picked = output<T>();
}
