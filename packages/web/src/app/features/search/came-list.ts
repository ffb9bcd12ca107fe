import { ChangeDetectionStrategy, Component, inject } from '@angular/core';
import { MatButtonModule } from '@angular/material/button';
import { CountPipe } from '../../ui/count';
import { whenWords } from '../../ui/when';
import { SearchStore } from './search-store';

/** What came when, and how often the search is asked again. */
@Component({
  selector: 'cs-came-list',
  changeDetection: ChangeDetectionStrategy.OnPush,
  imports: [MatButtonModule, CountPipe],
  template: `
    <header>
      <div>
        <h2>What came when</h2>
        <p>A standing search is asked again by itself and brings only rows that its job does not have.</p>
      </div>
      @if (store.saved(); as saved) {
        <label
          >Ask again
          <select #stands class="field" [disabled]="store.jobId() === null" (change)="stand(+stands.value)">
            @for (choice of schedule; track choice.days) {
              <option [value]="choice.days" [selected]="(saved.standing?.everyDays ?? 0) === choice.days">
                {{ choice.words }}
              </option>
            }
          </select></label
        >
        @if (store.jobId() !== null && saved.batches > 0) {
          <button mat-stroked-button type="button" (click)="store.askNow()">Ask now</button>
        }
      }
    </header>
    @if (store.jobId() === null) {
      <p class="notice">Choose the job that the rows go to, in Split, before the search can stand.</p>
    } @else if (store.saved()?.nextAt) {
      <p class="notice good">Asked again {{ when(store.saved()!.nextAt!) }}.</p>
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
          </tr>
        </thead>
        <tbody>
          @for (pull of store.saved()!.pulls; track pull.id) {
            <tr>
              <td>
                {{ when(pull.startedAt) }}{{ pull.standing ? ' · standing' : ''
                }}{{ pull.endedAt ? '' : ' · going on' }}
              </td>
              <td class="num">{{ pull.batch + 1 }}</td>
              <td class="r num">{{ pull.promised | count }}</td>
              <td class="r num">{{ pull.came | count }}</td>
              <td class="r num">
                <b>{{ pull.fresh | count }}</b>
              </td>
              <td class="r num">{{ pull.yours | count }}</td>
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
      align-items: flex-start;
      gap: 10px;
      margin-bottom: 12px;
    }
    header div {
      flex: 1;
    }
    h2 {
      font-size: 18px;
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
  protected readonly schedule = [
    { days: 0, words: 'never' },
    { days: 1, words: 'every day' },
    { days: 7, words: 'every week' },
    { days: 14, words: 'every two weeks' },
    { days: 30, words: 'every 30 days' },
  ];

  protected stand(everyDays: number) {
    this.store.patch({ standing: everyDays > 0 ? { everyDays, left: null } : null });
  }
}
