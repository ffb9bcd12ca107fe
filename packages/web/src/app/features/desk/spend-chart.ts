import { ChangeDetectionStrategy, Component, computed, inject, input } from '@angular/core';
import { max } from 'd3-array';
import { scaleBand, scaleLinear } from 'd3-scale';
import { timeDay } from 'd3-time';
import { timeFormat } from 'd3-time-format';
import type { SpendDay } from '@sieve/contract';
import { MoneyPipe } from '../../ui/money';

const WIDTH = 284;
const HEIGHT = 62;

/** What was spent on each of the last 24 days. */
@Component({
  selector: 'cs-spend-chart',
  changeDetection: ChangeDetectionStrategy.OnPush,
  providers: [MoneyPipe],
  template: `
    <svg viewBox="0 0 ${WIDTH} ${HEIGHT}" role="img" [attr.aria-label]="label()">
      @for (bar of bars(); track bar.day) {
        <rect
          [attr.x]="bar.x"
          [attr.y]="bar.y"
          [attr.width]="bar.width"
          [attr.height]="bar.height"
          rx="1"
          [attr.fill]="bar.today ? 'var(--saffron)' : 'color-mix(in srgb, var(--spruce) 45%, var(--paper))'"
        >
          <title>{{ bar.words }}</title>
        </rect>
      }
    </svg>
    <small>{{ label() }}</small>
  `,
  styles: `
    svg {
      display: block;
      width: 100%;
    }
    small {
      color: var(--ink-2);
    }
  `,
})
export class SpendChart {
  private readonly money = inject(MoneyPipe);
  readonly days = input.required<SpendDay[]>();

  protected readonly bars = computed(() => {
    const day = timeFormat('%Y-%m-%d');
    const today = timeDay.floor(new Date());
    const all = timeDay.range(timeDay.offset(today, -23), timeDay.offset(today, 1)).map((d) => day(d));
    const cents = new Map(this.days().map((d) => [d.day, d.cents]));
    const x = scaleBand(all, [0, WIDTH]).paddingInner(0.25);
    const y = scaleLinear([0, Math.max(1, max([...cents.values()]) ?? 1)], [0, HEIGHT - 4]);
    return all.map((d) => {
      const height = Math.max(1.5, y(cents.get(d) ?? 0));
      return {
        day: d,
        x: x(d)!,
        width: x.bandwidth(),
        y: HEIGHT - height,
        height,
        today: d === day(today),
        words: `${d}: ${this.money.transform(cents.get(d) ?? 0)}`,
      };
    });
  });
  protected readonly label = computed(() => {
    const bought = this.days().reduce((sum, d) => sum + d.bought, 0);
    const cents = this.days().reduce((sum, d) => sum + d.cents, 0);
    return bought === 0
      ? 'Nothing was bought in the last 31 days'
      : `${this.money.transform(cents)} for ${bought.toLocaleString('en-GB')} ${bought === 1 ? 'charge' : 'charges'} in 31 days`;
  });
}
