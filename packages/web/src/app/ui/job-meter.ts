import { ChangeDetectionStrategy, Component, computed, input } from '@angular/core';
import type { Job } from '@sieve/contract';
import { CountPipe } from './count';
import { Meter } from './meter';
import { MoneyPipe } from './money';

/** How far a job is from its target, and what was spent of its budget. */
@Component({
  selector: 'cs-job-meter',
  changeDetection: ChangeDetectionStrategy.OnPush,
  imports: [Meter, CountPipe, MoneyPipe],
  template: `
    <div class="line">
      <span
        ><b class="num">{{ valid() | count }}</b>
        @if (job().targetValid > 0) {
          of <span class="num">{{ job().targetValid | count }}</span>
        }
        valid emails</span
      >
      <span
        class="num"
        [class.dim]="!nearlySpent()"
        [class.high]="nearlySpent()"
        [title]="nearlySpent() ? 'Four fifths of the budget are spent' : 'Spent of the budget'"
        >{{ job().spentCents | money }} / {{ job().budgetCents | money }}</span
      >
    </div>
    <cs-meter [value]="valid()" [likely]="likely()" [whole]="job().targetValid || likely() || 1" label="valid emails" />
    @if (likely() > valid()) {
      <div class="line dim">
        <span
          >likely to reach <b class="num">{{ likely() | count }}</b></span
        >
      </div>
    }
  `,
  styles: `
    :host {
      display: grid;
      gap: 4px;
      font-size: 12px;
    }
    .line {
      display: flex;
      justify-content: space-between;
      gap: 10px;
    }
    .dim {
      color: var(--ink-2);
    }
    .high {
      color: var(--saffron-ink);
      font-weight: 600;
    }
  `,
})
export class JobMeter {
  readonly job = input.required<Job>();
  protected readonly nearlySpent = computed(
    () => this.job().budgetCents > 0 && this.job().spentCents >= 0.8 * this.job().budgetCents,
  );
  protected readonly valid = computed(() => this.job().summary?.verdicts.valid ?? 0);
  protected readonly likely = computed(() => this.job().summary?.likelyValid ?? 0);
}
