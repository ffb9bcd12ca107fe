import { ChangeDetectionStrategy, Component, computed, inject, input } from '@angular/core';
import { DatePipe } from '@angular/common';
import { RouterLink } from '@angular/router';
import { signalStore } from '@ngrx/signals';
import type { HitRate, Job } from '@sieve/contract';
import { valueOf, withAsked } from '../../state/asked';
import { CountPipe } from '../../ui/count';
import { MoneyPipe } from '../../ui/money';
import { Status } from '../../ui/status/status';
import { statesOf, viewOf } from './steps/registry';

const HitRatesStore = signalStore(
  withAsked((api, { jobId }: { jobId: number; version: number }) => api.hitRates(jobId)),
);
/** Reasons that are shown; the rest are summed up. */
const MOST_REASONS = 4;
const FIELD_WORDS: Record<HitRate['tighter'][number]['field'], string> = {
  title: 'in the title',
  company: 'in the company’s name',
  sector: 'as the sector',
  region: 'as the region',
  country: 'as the country',
};

/** How much of what each search and source brought passes the screen, why the rest does not, and what to do about it. */
@Component({
  selector: 'cs-hit-rates',
  changeDetection: ChangeDetectionStrategy.OnPush,
  imports: [DatePipe, RouterLink, CountPipe, MoneyPipe, Status],
  providers: [HitRatesStore],
  template: `
    @for (rate of rates(); track $index) {
      @if ($first) {
        <h3>How much of it fits</h3>
      }
      <section>
        <div class="what">
          <b>{{ rate.name }}</b>
          <small
            ><span class="num">{{ rate.came | count }}</span> people of
            <span class="num">{{ rate.rows | count }}</span> rows{{ rate.searchId === null ? '' : ', a search' }}</small
          >
        </div>
        <div class="share">
          <div class="bar" aria-hidden="true">
            <i [style.width.%]="(rate.fits / rate.came) * 100"></i>
            <u [style.left.%]="rate.low * 100" [style.width.%]="(rate.high - rate.low) * 100"></u>
          </div>
          <span
            ><b class="num">{{ percent(rate.fits / rate.came) }} %</b> fit
            <small>{{ percent(rate.low) }} to {{ percent(rate.high) }} % by chance</small></span
          >
        </div>
        <ul>
          @for (reason of reasonsOf(rate); track $index) {
            <li>
              <span class="num">−{{ reason.count | count }}</span> {{ reason.words }}
            </li>
          }
        </ul>
        <div class="advice">
          @for (tighter of rate.tighter; track $index) {
            <p>
              Without “{{ tighter.text }}” {{ fieldWords[tighter.field] }} about
              <b class="num">{{ tighter.misfits | count }}</b> that do not fit stay away, and
              <b class="num">{{ tighter.fits | count }}</b> that fit.
              <a routerLink="/search" [queryParams]="{ q: tighter.q }">Search so</a>
            </p>
          }
          @if (rate.toGo; as toGo) {
            <p>
              About <b class="num">{{ toGo.likely | count }}</b> more rows like these bring the
              <b class="num">{{ missing() | count }}</b> valid emails that are missing ({{ toGo.low | count }} to
              {{ toGo.high | count }}).
              @if (rate.doneAt; as at) {
                At the pace that is set they are here and looked up by {{ at | date: 'EEEE d MMMM' }}.
              }
              @if (rate.eachCents; as each) {
                That costs about <b class="num">{{ missing() * each.likely | money }}</b> ({{
                  missing() * each.low | money
                }}
                to {{ missing() * each.high | money }}).
              }
            </p>
          }
          @if (rate.eachCents; as each) {
            <p>
              <b class="num">{{ rate.valid | count }}</b> valid emails for
              <b class="num">{{ rate.spentCents | money }}</b>: <b class="num">{{ each.likely * 100 | money }}</b> for a
              hundred ({{ each.low * 100 | money }} to {{ each.high * 100 | money }} by chance).
              @if (rate === cheapest()) {
                <b>The cheapest source of the next one.</b>
              }
            </p>
          }
        </div>
      </section>
    }
    <cs-status [request]="request()" what="how much of it fits" />
  `,
  styles: `
    :host {
      display: block;
      margin: 0 16px 16px;
    }
    h3 {
      margin: 4px 0 6px;
      font-size: 14px;
    }
    section {
      display: grid;
      grid-template-columns: minmax(0, 1.1fr) minmax(0, 1fr) minmax(0, 1.2fr);
      gap: 6px 18px;
      padding: 10px 14px;
      border: 1px solid var(--line);
      border-bottom-width: 0;
      background: var(--paper);
    }
    section:first-of-type {
      border-radius: 9px 9px 0 0;
    }
    section:last-of-type {
      border-bottom-width: 1px;
      border-radius: 0 0 9px 9px;
    }
    section:only-of-type {
      border-radius: 9px;
    }
    .what b {
      display: block;
      overflow: hidden;
      text-overflow: ellipsis;
    }
    small {
      color: var(--ink-2);
      font-size: 11.5px;
    }
    .bar {
      position: relative;
      height: 9px;
      margin: 5px 0 4px;
      border-radius: 5px;
      background: var(--plum-wash);
    }
    .bar i {
      display: block;
      height: 100%;
      border-radius: 5px 0 0 5px;
      background: var(--spruce);
    }
    .bar u {
      position: absolute;
      top: -3px;
      height: 13px;
      border: solid var(--ink);
      border-width: 0 1.5px;
      background: linear-gradient(var(--ink), var(--ink)) center / 100% 1.5px no-repeat;
    }
    ul {
      margin: 0;
      padding: 0;
      list-style: none;
      font-size: 12px;
    }
    li {
      overflow: hidden;
      text-overflow: ellipsis;
      white-space: nowrap;
    }
    li .num {
      display: inline-block;
      min-width: 44px;
      color: var(--plum);
    }
    .advice {
      grid-column: 1 / -1;
    }
    .advice p {
      margin: 2px 0 0;
      font-size: 12.5px;
    }
  `,
})
export class HitRates {
  private readonly store = inject(HitRatesStore);
  readonly job = input.required<Job>();
  protected readonly request = this.store.asked;
  protected readonly rates = computed(() => valueOf(this.request()) ?? []);
  protected readonly missing = computed(() => this.job().targetValid - (this.job().summary?.likelyValid ?? 0));
  /** Of several that valid emails were paid for of, the one whose cost least. */
  protected readonly cheapest = computed(() => {
    const paid = this.rates().flatMap((rate) => (rate.eachCents ? [{ rate, cents: rate.eachCents.likely }] : []));
    return paid.length > 1 ? paid.sort((a, b) => a.cents - b.cents)[0]!.rate : null;
  });
  protected readonly fieldWords = FIELD_WORDS;
  protected readonly percent = (share: number) => Math.round(share * 100);
  /** What the screen calls its reasons. */
  private readonly words = computed(() => {
    const state = statesOf(this.job()).find(({ step }) => step.kind === 'screen');
    const chips = state ? viewOf('screen').chips(state, (id) => id) : [];
    return new Map([
      ['title-near-brief', 'Title near the brief’s: wants a look'],
      ...chips.flatMap(({ why, words, kind }) =>
        why ? [[why, kind === 'keep' ? `not: ${words}` : words] as const] : [],
      ),
    ]);
  });

  constructor() {
    const jobId = computed(() => this.job().id);
    const version = computed(() => this.job().version);
    // A job moves with each run; its rates only with its outcome.
    this.store.load(computed(() => ({ jobId: jobId(), version: version() })));
  }

  protected reasonsOf({ why }: HitRate): { words: string; count: number }[] {
    const sorted = Object.entries(why)
      .map(([reason, count]) => ({ words: this.words().get(reason) ?? reason, count }))
      .sort((a, b) => b.count - a.count);
    const rest = sorted.slice(MOST_REASONS).reduce((sum, { count }) => sum + count, 0);
    return [...sorted.slice(0, MOST_REASONS), ...(rest > 0 ? [{ words: 'for other reasons', count: rest }] : [])];
  }
}
