import { computed, inject, Pipe, type PipeTransform } from '@angular/core';
import { Session } from '../state/session';

/** Cents as money of the settings' currency; not pure, since the settings may come after the amount. */
@Pipe({ name: 'money', pure: false })
export class MoneyPipe implements PipeTransform {
  private readonly session = inject(Session);
  private readonly formats = computed(() =>
    [0, 2].map(
      (minimumFractionDigits) =>
        new Intl.NumberFormat('en-GB', {
          style: 'currency',
          currency: this.session.currency(),
          minimumFractionDigits,
        }),
    ),
  );

  transform(cents: number): string {
    const [whole, exact] = this.formats();
    return (cents % 100 === 0 ? whole! : exact!).format(cents / 100);
  }
}
