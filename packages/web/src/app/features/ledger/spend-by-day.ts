import { ChangeDetectionStrategy, Component, computed, inject, input } from '@angular/core';
import { max, sum } from 'd3-array';
import { scaleBand, scaleLinear } from 'd3-scale';
import { utcDay } from 'd3-time';
import { utcFormat, utcParse } from 'd3-time-format';
import type { LedgerView } from '@sieve/contract';
import { MoneyPipe } from '../../ui/money';

const WIDTH = 900;
const HEIGHT = 170;
const LEFT = 46;
const RIGHT = 8;
const TOP = 12;
const FLOOR = 146;
const dayName = utcFormat('%Y-%m-%d');
const weekday = utcFormat('%a %-d');
const readDay = utcParse('%Y-%m-%d');

/** What was spent on each day of a month, by service; money given back stands below the line. */
@Component({
  selector: 'cs-spend-by-day',
  changeDetection: ChangeDetectionStrategy.OnPush,
  providers: [MoneyPipe],
  template: `
    <svg viewBox="0 0 ${WIDTH} ${HEIGHT}" role="img" [attr.aria-label]="drawn().label">
      @for (tick of drawn().ticks; track tick.words) {
        <line x1="${LEFT}" x2="${WIDTH - RIGHT}" [attr.y1]="tick.y" [attr.y2]="tick.y" class="tick" />
        <text x="${LEFT - 8}" [attr.y]="tick.y + 4" text-anchor="end">{{ tick.words }}</text>
      }
      @for (bar of drawn().bars; track bar.key) {
        <rect
          [attr.x]="bar.x"
          [attr.y]="bar.y"
          [attr.width]="bar.width"
          [attr.height]="bar.height"
          [attr.fill]="bar.fill"
        >
          <title>{{ bar.words }}</title>
        </rect>
      }
      @if (drawn().aDay; as line) {
        <line x1="${LEFT}" x2="${WIDTH - RIGHT}" [attr.y1]="line.y" [attr.y2]="line.y" class="limit" />
        <text x="${WIDTH - RIGHT}" [attr.y]="line.y - 4" text-anchor="end" class="limit">{{ line.words }}</text>
      }
      @for (day of drawn().mondays; track day.words) {
        <text [attr.x]="day.x" y="${HEIGHT - 6}" text-anchor="middle" [class.today]="day.isToday">{{ day.words }}</text>
      }
    </svg>
  `,
  styles: `
    svg {
      display: block;
      width: 100%;
    }
    text {
      fill: var(--ink-2);
      font: 11px var(--ui);
    }
    .tick {
      stroke: var(--line-soft);
    }
    line.limit {
      stroke: var(--plum);
      stroke-dasharray: 4 3;
    }
    text.limit {
      fill: var(--plum);
      paint-order: stroke;
      stroke: var(--paper);
      stroke-linejoin: round;
      stroke-width: 5px;
    }
    .today {
      fill: var(--saffron-ink);
      font-weight: 600;
    }
  `,
})
export class SpendByDay {
  private readonly money = inject(MoneyPipe);
  /** Like 2026-11. */
  readonly month = input.required<string>();
  /** Today, like 2026-11-26. */
  readonly today = input.required<string>();
  readonly days = input.required<LedgerView['days']>();
  readonly services = input.required<readonly { who: string; name: string; fill: string }[]>();
  /** What a day may cost from today on for the month's budget to last; null: no budget. */
  readonly centsADay = input<number | null>(null);

  protected readonly drawn = computed(() => {
    const first = readDay(`${this.month()}-01`)!;
    const next = new Date(Date.UTC(first.getUTCFullYear(), first.getUTCMonth() + 1, 1));
    const all = utcDay.range(first, next).map((date) => ({ day: dayName(date), date }));
    const cents = new Map(this.days().map(({ day, who, cents }) => [`${day} ${who}`, cents]));
    const services = this.services();
    const of = (day: string, who: string) => cents.get(`${day} ${who}`) ?? 0;
    const most = max(all, ({ day }) => sum(services, ({ who }) => Math.max(0, of(day, who)))) ?? 0;
    const least = Math.min(0, ...all.map(({ day }) => sum(services, ({ who }) => Math.min(0, of(day, who)))));
    const aDay = this.centsADay();
    const x = scaleBand(
      all.map(({ day }) => day),
      [LEFT, WIDTH - RIGHT],
    ).padding(0.25);
    const y = scaleLinear([least, Math.max(1, most, aDay ?? 0)], [FLOOR, TOP]).nice(4);
    return {
      label: `Spent by day: ${this.money.transform(sum(this.days(), ({ cents }) => cents))} in the month`,
      ticks: y.ticks(4).map((tick) => ({ y: y(tick), words: this.money.transform(tick) })),
      bars: all.flatMap(({ day }) => {
        // What was spent stands on the line, what was given back hangs under it.
        let [up, down] = [0, 0];
        return services.flatMap(({ who, name, fill }) => {
          const spent = of(day, who);
          if (spent === 0) return [];
          const [from, to] = spent > 0 ? [up, (up += spent)] : [(down += spent), down - spent];
          return {
            key: `${day} ${who}`,
            x: x(day)!,
            y: y(to),
            width: x.bandwidth(),
            height: y(from) - y(to),
            fill,
            words: `${day}, ${name}: ${this.money.transform(spent)}`,
          };
        });
      }),
      aDay:
        aDay === null
          ? null
          : { y: y(aDay), words: `${this.money.transform(Math.floor(aDay))} a day keeps the budget` },
      mondays: all
        .filter(({ date, day }) => date.getUTCDay() === 1 || day === this.today())
        .map(({ day, date }) => ({
          x: x(day)! + x.bandwidth() / 2,
          words: weekday(date),
          isToday: day === this.today(),
        })),
    };
  });
}
