import { inject, Pipe, type PipeTransform } from '@angular/core';
import { Session } from '../state/session';

/** Cents as money of the settings' currency. */
@Pipe({ name: 'money' })
export class MoneyPipe implements PipeTransform {
  private readonly session = inject(Session);

  transform(cents: number): string {
    return new Intl.NumberFormat('en-GB', {
      style: 'currency',
      currency: this.session.currency(),
      minimumFractionDigits: cents % 100 === 0 ? 0 : 2,
    }).format(cents / 100);
  }
}
