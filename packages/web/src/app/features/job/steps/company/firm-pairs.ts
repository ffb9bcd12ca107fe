import { ChangeDetectionStrategy, Component, computed, inject, input, linkedSignal, output } from '@angular/core';
import { MatButtonModule } from '@angular/material/button';
import { signalStore } from '@ngrx/signals';
import { valueOf, withAsked } from '../../../../state/asked';
import { CountPipe } from '../../../../ui/count';
import { Shortcuts } from '../../../../ui/shortcuts/shortcuts';
import { Status } from '../../../../ui/status/status';

const FirmPairsStore = signalStore(
  withAsked((api, { jobId, step }: { jobId: number; step: string; version: number }) => api.firmPairs(jobId, step)),
);

/** Companies that may be one: each pair with one key, the next one is next. */
@Component({
  selector: 'cs-firm-pairs',
  changeDetection: ChangeDetectionStrategy.OnPush,
  imports: [MatButtonModule, CountPipe, Status],
  providers: [FirmPairsStore],
  template: `
    @if (found(); as found) {
      @if (found.total > 0) {
        <p class="note">
          {{ found.total | count }} {{ found.total === 1 ? 'pair' : 'pairs' }} of companies may be one, least certain
          first. S: one company · D: two · J K move. Companies at two known domains stay apart until you say otherwise.
        </p>
      }
      <table class="lines fixed">
        <thead>
          <tr>
            <th>Company</th>
            <th>May be</th>
            <th class="chance r">Chance</th>
            <th class="acts"></th>
          </tr>
        </thead>
        <tbody>
          @for (pair of found.pairs; track pair.a.key + ' ' + pair.b.key) {
            <tr [class.on]="$index === at()" [attr.aria-selected]="$index === at()" (click)="at.set($index)">
              @for (side of [pair.a, pair.b]; track $index) {
                <td [title]="side.name + ' ' + side.domain">
                  <b>{{ side.name }}</b>
                  <small
                    >{{ side.domain || 'no domain' }} · {{ side.place || 'no place' }} · {{ side.people | count }} in
                    job</small
                  >
                </td>
              }
              <td class="r num">{{ pair.chance.toFixed(2) }}</td>
              <td class="acts">
                <button mat-stroked-button type="button" (click)="at.set($index); judge(true)">One</button>
                <button mat-button type="button" (click)="at.set($index); judge(false)">Two</button>
              </td>
            </tr>
          } @empty {
            <tr>
              <td colspan="4">No pair waits for you: what is likely one was put together, the rest is too unlike.</td>
            </tr>
          }
        </tbody>
      </table>
    }
    <cs-status [request]="request()" what="the pairs" />
  `,
  styles: `
    :host {
      flex: 1;
      min-height: 0;
      padding: 0 16px 16px;
      overflow: auto;
    }
    .note {
      margin: 10px 0;
      color: var(--ink-2);
      font-size: 12.5px;
    }
    td {
      height: 46px;
    }
    small {
      display: block;
      overflow: hidden;
      color: var(--ink-2);
      text-overflow: ellipsis;
    }
    .chance {
      width: 80px;
    }
    .acts {
      width: 160px;
      text-overflow: clip;
    }
    .on {
      background: var(--saffron-wash);
    }
  `,
})
export class FirmPairsList {
  private readonly store = inject(FirmPairsStore);
  readonly jobId = input.required<number>();
  readonly step = input.required<string>();
  readonly version = input.required<number>();
  readonly judged = output<{ a: string; b: string; same: boolean }>();
  protected readonly request = this.store.asked;
  protected readonly found = computed(() => valueOf(this.request()));
  /** The pair that the keys are on. */
  protected readonly at = linkedSignal<number, number>({
    source: () => this.found()?.pairs.length ?? 0,
    computation: (length, before) => Math.max(0, Math.min(length - 1, before?.value ?? 0)),
  });

  constructor() {
    this.store.load(computed(() => ({ jobId: this.jobId(), step: this.step(), version: this.version() })));
    const move = (by: 1 | -1) => () =>
      this.at.update((at) => Math.max(0, Math.min((this.found()?.pairs.length ?? 1) - 1, at + by)));
    inject(Shortcuts).use({
      s: () => this.judge(true),
      d: () => this.judge(false),
      j: move(1),
      k: move(-1),
      arrowdown: move(1),
      arrowup: move(-1),
    });
  }

  protected judge(same: boolean) {
    const pair = this.found()?.pairs[this.at()];
    if (!pair) return;
    this.judged.emit({ a: pair.a.key, b: pair.b.key, same });
    this.store.change((held) => ({ total: held.total - 1, pairs: held.pairs.filter((one) => one !== pair) }));
  }
}
