import { ChangeDetectionStrategy, Component, computed, inject, input } from '@angular/core';
import { runName, runWords, type Run } from '@sieve/contract';
import { Store } from '@ngrx/store';
import { workActions } from '../state/work';
import { CountPipe } from './count';
import { Icon } from './icon/icon';
import { whenWords } from './when';

/** One run: how far, how fast, how long still; paused, resumed and cancelled here. */
@Component({
  selector: 'cs-run-line',
  changeDetection: ChangeDetectionStrategy.OnPush,
  imports: [Icon, CountPipe],
  template: `
    <div class="words">
      <span
        ><b>{{ name() }}</b> {{ run().jobName }}</span
      >
      <small>{{ detail() }}</small>
      <div
        class="bar"
        role="progressbar"
        [class.open]="run().total === 0 && run().done > 0"
        [attr.aria-valuenow]="run().total > 0 ? run().done : null"
        aria-valuemin="0"
        [attr.aria-valuemax]="run().total > 0 ? run().total : null"
        [attr.aria-label]="name()"
      >
        <i [style.width.%]="share()"></i>
      </div>
      @if (run().total > 0) {
        <span class="visually-hidden">{{ run().done | count }} of {{ run().total | count }}</span>
      }
    </div>
    @if (run().input.kind !== 'sift') {
      @if (run().state === 'paused') {
        <button type="button" aria-label="Go on" title="Go on" (click)="act('resume')"><cs-icon name="play" /></button>
      } @else {
        <button type="button" aria-label="Pause" title="Pause" (click)="act('pause')"><cs-icon name="pause" /></button>
      }
      <button type="button" aria-label="Stop for good" title="Stop for good" (click)="act('cancel')">
        <cs-icon name="close" />
      </button>
    }
  `,
  styles: `
    :host {
      display: flex;
      gap: 6px;
      align-items: flex-start;
      padding: 10px 0;
      border-bottom: 1px solid var(--line);
    }
    .words {
      flex: 1;
      min-width: 0;
    }
    small {
      display: block;
      color: var(--ink-2);
    }
    .bar {
      height: 5px;
      margin-top: 5px;
      border-radius: 3px;
      background: var(--sunk);
      overflow: hidden;
    }
    .bar i {
      display: block;
      height: 100%;
      background: var(--saffron);
    }
    .open {
      background: repeating-linear-gradient(115deg, var(--saffron-wash) 0 6px, var(--sunk) 6px 12px);
    }
    button {
      border: 0;
      padding: 3px;
      background: none;
      cursor: pointer;
      border-radius: 4px;
    }
    button:hover {
      background: var(--sunk);
    }
  `,
})
export class RunLine {
  private readonly store = inject(Store);
  readonly run = input.required<Run>();
  protected readonly name = computed(() => runName(this.run().input));
  protected readonly share = computed(() => (this.run().total > 0 ? (this.run().done / this.run().total) * 100 : 0));
  protected readonly detail = computed(() => {
    const { state, done, total, rate, notBefore, input } = this.run();
    const message = runWords(this.run());
    if (notBefore !== null) return `goes on ${whenWords(notBefore)}`;
    if (state !== 'running') return message ? `${state}: ${message}` : state;
    const far = done.toLocaleString('en-GB');
    // How many questions a split needs nobody can know: it is said how many were asked.
    const isOpen = input.kind === 'split' && done > 0;
    const parts = [
      total > 0
        ? `${far} of ${total.toLocaleString('en-GB')}`
        : isOpen
          ? `${far} ${done === 1 ? 'question' : 'questions'} asked`
          : 'starting',
    ];
    if (rate > 0.05)
      parts.push(rate >= 10 ? `${Math.round(rate).toLocaleString('en-GB')} a second` : `${rate.toFixed(1)} a second`);
    if (rate > 0.05 && total > done) parts.push(timeLeft((total - done) / rate));
    if (message) parts.push(message);
    return parts.join(' · ');
  });

  protected act(action: 'pause' | 'resume' | 'cancel') {
    this.store.dispatch(workActions.runAsked({ id: this.run().id, action }));
  }
}

export const timeLeft = (seconds: number): string =>
  seconds < 90
    ? `${Math.ceil(seconds)} s left`
    : seconds < 5400
      ? `${Math.round(seconds / 60)} min left`
      : `${(seconds / 3600).toFixed(1)} h left`;
