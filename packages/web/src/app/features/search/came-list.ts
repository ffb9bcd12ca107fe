import { ChangeDetectionStrategy, Component, computed, inject, signal } from '@angular/core';
import { MatButtonModule } from '@angular/material/button';
import type { Standing } from '@sieve/contract';
import { signalStore } from '@ngrx/signals';
import { EMPTY } from 'rxjs';
import { valueOf, withAsked } from '../../state/asked';
import { CountPipe } from '../../ui/count';
import { whenWords } from '../../ui/when';
import { SearchStore } from './search-store';
import { Select } from '../../ui/select/select';

const SearchesStore = signalStore(withAsked((api, wanted: boolean) => (wanted ? api.searches() : EMPTY)));

/** What came when, and how often the search is asked again. */
@Component({
  selector: 'cs-came-list',
  changeDetection: ChangeDetectionStrategy.OnPush,
  imports: [Select, MatButtonModule, CountPipe],
  providers: [SearchesStore],
  template: `
    <header>
      <div>
        <h2>What came when</h2>
        <p>A standing search is asked again by itself and brings only rows that its job does not have.</p>
      </div>
      @if (store.saved(); as saved) {
        <div class="when" role="group" aria-label="When it is asked again">
          <span class="named"
            >Ask again
            <cs-select
              label="Ask again"
              [options]="choices"
              [value]="kind()"
              [disabled]="store.jobId() === null"
              (picked)="choose($event)"
          /></span>
          @switch (kind()) {
            @case ('days') {
              <label
                ><input
                  #days
                  class="field num"
                  type="number"
                  min="1"
                  max="365"
                  aria-label="Days between"
                  [value]="everyDays()"
                  (change)="stand({ kind: 'days', everyDays: whole(days, 365) ?? 7, left: left() })"
                />
                days,</label
              >
              <label
                ><input
                  #times
                  class="field num"
                  type="number"
                  min="1"
                  placeholder="∞"
                  aria-label="Times; empty for no end"
                  [value]="left() ?? ''"
                  (change)="stand({ kind: 'days', everyDays: everyDays(), left: whole(times, 10000) })"
                />
                times</label
              >
            }
            @case ('once') {
              <input
                #at
                class="field"
                type="datetime-local"
                aria-label="When"
                [value]="onceAt()"
                (change)="once(at.value)"
              />
            }
            @case ('after') {
              <cs-select
                label="After which search"
                placeholder="choose a search…"
                [options]="otherOptions()"
                [value]="afterId()"
                (picked)="after($event)"
              />
            }
          }
        </div>
        @if (store.jobId() !== null && saved.batches > 0) {
          <button mat-stroked-button type="button" (click)="store.askNow()">Ask now</button>
        }
      }
    </header>
    @if (store.jobId() === null) {
      <p class="notice">Choose the job that the rows go to, in Split, before the search can stand.</p>
    } @else if (words()) {
      <p class="notice good">{{ words() }}</p>
    }
    @if (store.saved()?.pulls?.length) {
      <table class="lines">
        <thead>
          <tr>
            <th>When</th>
            <th>Batch</th>
            <th class="r">Promised</th>
            <th class="r">Came</th>
            <th class="r">New to the job</th>
            <th class="r">Yours elsewhere</th>
            <th class="r">Company full</th>
          </tr>
        </thead>
        <tbody>
          @for (pull of store.saved()!.pulls; track pull.id) {
            <tr>
              <td>
                {{ when(pull.startedAt) }}{{ pull.standing ? ' · standing' : ''
                }}{{
                  pull.takenBack ? ' · taken back' : pull.endedAt ? '' : pull.stopped ? ' · stopped' : ' · going on'
                }}
              </td>
              <td class="num">{{ pull.batch + 1 }}</td>
              <td class="r num">{{ pull.promised | count }}</td>
              <td class="r num">{{ pull.came | count }}</td>
              <td class="r num">
                <b>{{ pull.fresh | count }}</b>
              </td>
              <td class="r num">{{ pull.yours | count }}</td>
              <td class="r num">{{ pull.full | count }}</td>
            </tr>
          }
        </tbody>
      </table>
    } @else {
      <p class="wait">Nothing was pulled yet.</p>
    }
  `,
  styles: `
    :host {
      display: block;
      padding: 13px 18px;
      overflow: auto;
    }
    header {
      display: flex;
      flex-wrap: wrap;
      align-items: flex-start;
      gap: 10px;
      margin-bottom: 12px;
    }
    header div {
      flex: 1 1 230px;
    }
    h2 {
      font-size: 18px;
    }
    header .when {
      display: flex;
      flex: none;
      align-items: center;
      gap: 8px;
    }
    .when input[type='number'] {
      width: 58px;
    }
    p,
    label {
      color: var(--ink-2);
    }
    .notice {
      margin-bottom: 12px;
      color: var(--ink);
    }
    .wait {
      padding: 40px;
      text-align: center;
    }
  `,
})
export class CameList {
  protected readonly store = inject(SearchStore);
  protected readonly when = whenWords;
  protected readonly choices = [
    { value: 'never', label: 'never' },
    { value: 'once', label: 'once' },
    { value: 'days', label: 'every' },
    { value: 'after', label: 'after another search' },
  ] as const;
  private readonly searches = inject(SearchesStore);
  private readonly all = computed(() => valueOf(this.searches.asked()) ?? []);
  protected readonly others = computed(() => this.all().filter(({ id }) => id !== this.store.saved()?.id));
  private readonly standing = computed(() => this.store.saved()?.standing ?? null);
  /** A way that was chosen and still lacks its time or its search. */
  private readonly begun = signal<Standing['kind'] | null>(null);
  protected readonly kind = computed(() => this.begun() ?? this.standing()?.kind ?? 'never');
  protected readonly everyDays = computed(() => this.field('days')?.everyDays ?? 7);
  protected readonly left = computed(() => this.field('days')?.left ?? null);
  protected readonly afterId = computed(() => this.field('after')?.searchId ?? null);
  protected readonly otherOptions = computed(() => this.others().map(({ id, name }) => ({ value: id, label: name })));
  protected readonly onceAt = computed(() => localTime(this.field('once')?.at));
  protected readonly words = computed(() => {
    const standing = this.standing();
    if (standing?.kind === 'after')
      return `Asked again each time that ${this.others().find(({ id }) => id === standing.searchId)?.name ?? 'the other search'} was pulled.`;
    const next = this.store.saved()?.nextAt;
    return next ? `Asked again ${whenWords(next)}.` : '';
  });

  constructor() {
    this.searches.load(computed(() => this.kind() === 'after'));
  }

  protected choose(kind: string) {
    this.begun.set(null);
    if (kind === 'never') this.stand(null);
    else if (kind === 'days') this.stand({ kind, everyDays: 7, left: null });
    else this.begun.set(kind as 'once' | 'after');
  }

  protected once(value: string) {
    const at = new Date(value).getTime();
    if (!Number.isNaN(at)) this.stand({ kind: 'once', at });
  }

  protected after(searchId: number) {
    if (searchId > 0) this.stand({ kind: 'after', searchId });
  }

  protected stand(standing: Standing | null) {
    this.begun.set(null);
    this.store.patch({ standing });
  }

  /** The number typed, within its bounds; null for none. */
  protected whole(input: HTMLInputElement, most: number): number | null {
    const n = Math.round(input.valueAsNumber);
    return Number.isNaN(n) ? null : Math.min(most, Math.max(1, n));
  }

  private field<K extends Standing['kind']>(kind: K): Extract<Standing, { kind: K }> | null {
    const standing = this.standing();
    return standing?.kind === kind ? (standing as Extract<Standing, { kind: K }>) : null;
  }
}

/** As an input of date and time wants it, in the machine's own time zone. */
function localTime(at: number | undefined): string {
  if (at === undefined) return '';
  const date = new Date(at);
  return new Date(at - date.getTimezoneOffset() * 60_000).toISOString().slice(0, 16);
}
