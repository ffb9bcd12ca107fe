import { ChangeDetectionStrategy, Component, computed, inject, input, output } from '@angular/core';
import { MatButtonModule } from '@angular/material/button';
import { signalStore } from '@ngrx/signals';
import type { FinderSetting, LookupOrder, Sought } from '@sieve/contract';
import { valueOf, withAsked } from '../../../state/asked';
import { CountPipe } from '../../../ui/count';
import { MoneyPipe } from '../../../ui/money';
import { Status } from '../../../ui/status/status';

const OrdersStore = signalStore(
  withAsked((api, { order, of }: { order: readonly string[]; of: Sought }) => api.lookupOrders(order, of)),
);
const ABOUT: Record<Sought, Record<'asked' | 'they' | 'hundred' | 'right' | 'wrong', string>> = {
  addresses: {
    asked: 'people whom patterns did not find',
    they: 'people',
    hundred: 'For 100 people',
    right: 'Valid',
    wrong: 'Not valid',
  },
  phones: {
    asked: 'questions, of all passes',
    they: 'questions',
    hundred: 'For 100 questions',
    right: 'Listed',
    wrong: 'Not usable',
  },
};
/** Answers about fewer people say too little. */
const LEAST_PEOPLE = 30;

/** What earlier answers say of a lookup order: what it finds and costs, and which order does as much for less, or more for as much. */
@Component({
  selector: 'cs-order-advice',
  changeDetection: ChangeDetectionStrategy.OnPush,
  imports: [MatButtonModule, CountPipe, MoneyPipe, Status],
  providers: [OrdersStore],
  template: `
    @if (said(); as said) {
      @if (said.people < least) {
        <p class="dim">
          Which order is cheapest is computed from what was answered:
          <b class="num">{{ said.people | count }}</b> of at least {{ least }} {{ about().they }} so far.
        </p>
      } @else {
        <table>
          <caption>
            By what they answered about
            {{
              said.people | count
            }}
            {{
              about().asked
            }}
          </caption>
          <thead>
            <tr>
              <th scope="col">Order</th>
              <th scope="col" class="r">Finds</th>
              <th scope="col" class="r">{{ about().hundred }}</th>
              <th></th>
            </tr>
          </thead>
          <tbody>
            @for (row of rows(); track row.label) {
              <tr>
                <th scope="row">
                  {{ row.label }}
                  <small>{{ names(row.order) }}</small>
                </th>
                <td class="r">
                  <b class="num">{{ percent(row.order.found) }} %</b>
                  <small class="num"
                    >{{ percent(row.order.foundRange.low) }}–{{ percent(row.order.foundRange.high) }}</small
                  >
                </td>
                <td class="r">
                  <b class="num">{{ hundred(row.order.cents) | money }}</b>
                  <small class="num"
                    >{{ hundred(row.order.centsRange.low) | money }}–{{
                      hundred(row.order.centsRange.high) | money
                    }}</small
                  >
                </td>
                <td>
                  @if (row.differs) {
                    <button mat-stroked-button type="button" (click)="used.emit(row.order.ids)">Use it</button>
                  }
                </td>
              </tr>
            }
          </tbody>
        </table>
        <p class="dim">{{ verdict() }}</p>
        <details>
          <summary>What each answered</summary>
          <table>
            <caption>
              Times and outages of the last 30 days
            </caption>
            <thead>
              <tr>
                <th scope="col">Service</th>
                <th scope="col" class="r">Asked about</th>
                <th scope="col" class="r">{{ about().right }}</th>
                <th scope="col" class="r">{{ about().wrong }}</th>
                <th scope="col" class="r">Takes</th>
              </tr>
            </thead>
            <tbody>
              @for (one of each(); track one.id) {
                <tr>
                  <th scope="row">
                    {{ namesOf([one.id]) }}
                    @if (one.creditsLeft > 0) {
                      <small
                        ><b class="num">{{ one.creditsLeft | count }}</b> credits left this month</small
                      >
                    }
                    @if (one.outages > 0) {
                      <small class="out" [title]="'The last time: ' + one.lastOutage"
                        >could not be asked {{ one.outages === 1 ? 'once' : (one.outages | count) + ' times' }}</small
                      >
                    }
                  </th>
                  <td class="r num">{{ one.asked | count }}</td>
                  @if (one.asked > 0) {
                    <td class="r">
                      <b class="num">{{ percent(one.right / one.asked) }} %</b>
                      <small class="num">{{ percent(one.low) }}–{{ percent(one.high) }}</small>
                    </td>
                    <td class="r num">{{ percent(one.wrong / one.asked) }} %</td>
                  } @else {
                    <td></td>
                    <td></td>
                  }
                  <td class="r num">{{ one.ms === null ? '' : seconds(one.ms) }}</td>
                </tr>
              }
            </tbody>
          </table>
        </details>
        @if (said.seldom.length > 0) {
          <p class="dim">
            Asked about too few to be counted on: {{ namesOf(said.seldom) }}. Put behind the others, a finder is asked
            about those whom they lack.
          </p>
        }
      }
    }
    <cs-status [request]="store.asked()" what="what finders answered" />
  `,
  styles: `
    :host {
      display: block;
      margin-top: 12px;
    }
    table {
      width: 100%;
      border-collapse: collapse;
    }
    caption {
      padding: 0 8px 4px;
      color: var(--ink-2);
      font-size: 12px;
      text-align: left;
    }
    th,
    td {
      padding: 5px 8px;
      border-bottom: 1px solid var(--line-soft);
      font-weight: 400;
      text-align: left;
      vertical-align: top;
    }
    thead th {
      color: var(--ink-2);
      font-size: 12px;
    }
    .r {
      text-align: right;
    }
    small {
      display: block;
      color: var(--ink-2);
      font-size: 11.5px;
    }
    .out {
      color: var(--plum);
    }
    summary {
      margin-top: 6px;
      color: var(--spruce);
      cursor: pointer;
    }
    .dim {
      margin: 6px 0 0;
      color: var(--ink-2);
      font-size: 12px;
    }
  `,
})
export class OrderAdvice {
  readonly order = input.required<readonly string[]>();
  readonly of = input<Sought>('addresses');
  readonly finders = input.required<readonly Pick<FinderSetting, 'id' | 'name'>[]>();
  readonly used = output<string[]>();
  protected readonly store = inject(OrdersStore);
  protected readonly about = computed(() => ABOUT[this.of()]);
  protected readonly least = LEAST_PEOPLE;
  protected readonly said = computed(() => valueOf(this.store.asked()));

  protected readonly rows = computed(() => {
    const said = this.said();
    if (!said) return [];
    const rows = [
      { label: 'Yours', order: said.byHand },
      {
        label: said.byHand.ids.length === 0 ? 'Most, for the least money' : 'As many for the least money',
        order: said.cheapest,
      },
      { label: 'Most for the same money', order: said.most },
    ];
    const first = (ids: readonly string[]) => rows.find(({ order }) => order.ids.join() === ids.join());
    return rows.filter((row) => first(row.order.ids) === row).map((row, i) => ({ ...row, differs: i > 0 }));
  });
  protected readonly each = computed(() => this.said()?.each.filter(({ asked, outages }) => asked + outages > 0) ?? []);
  protected readonly verdict = computed(() => {
    const said = this.said();
    if (!said) return '';
    const { byHand, cheapest } = said;
    if (this.rows().length === 1) return 'No other order does as much for less, or more for as much.';
    if (byHand.cents === 0 || cheapest.cents >= byHand.cents) return '';
    const share = (cents: number) => Math.round((100 * cents) / byHand.cents);
    return `The cheapest saves ${share(byHand.cents - cheapest.cents)} % of what yours costs, nine times of ten ${share(cheapest.less.low)} to ${share(cheapest.less.high)} %.`;
  });

  constructor() {
    this.store.load(computed(() => ({ order: this.order(), of: this.of() })));
  }

  /** Cents of a hundred people, from those of one. */
  protected hundred = (cents: number): number => Math.round(cents * 100);
  protected seconds = (ms: number): string => `${(ms / 1000).toFixed(1)} s`;
  protected percent = (share: number): number => Math.round(share * 100);
  protected namesOf = (ids: readonly string[]): string =>
    ids.map((id) => this.finders().find((finder) => finder.id === id)?.name ?? id).join(', ');
  protected names = ({ ids }: LookupOrder): string => this.namesOf(ids) || 'nobody is asked';
}
