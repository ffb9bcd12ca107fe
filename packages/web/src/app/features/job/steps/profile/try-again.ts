import { ChangeDetectionStrategy, Component, computed, inject, input } from '@angular/core';
import { MatButtonModule } from '@angular/material/button';
import type { SieveStep } from '@sieve/core';
import { LOOSER, profileOptions } from '@sieve/core/steps/profile/options';
import type { Job } from '@sieve/contract';
import { Decisions } from '../../../../state/decisions';
import { CountPipe } from '../../../../ui/count';
import { Icon } from '../../../../ui/icon/icon';
import { LOOSER_WORDS } from './looser-words';

/** Those without a profile, tried again in the next looser way. */
@Component({
  selector: 'cs-try-again',
  changeDetection: ChangeDetectionStrategy.OnPush,
  imports: [MatButtonModule, Icon, CountPipe],
  template: `
    @if (next(); as way) {
      @if (none() > 0) {
        <button mat-stroked-button type="button" (click)="loosen()">
          <cs-icon name="search" /> Try {{ none() | count }} again {{ words[way] }}
        </button>
      }
    }
  `,
})
export class TryAgain {
  private readonly decisions = inject(Decisions);
  readonly job = input.required<Job>();
  readonly step = input.required<SieveStep>();
  protected readonly words = LOOSER_WORDS;
  private readonly options = computed(() => profileOptions.parse(this.step().options));
  protected readonly next = computed(() =>
    this.step().on ? LOOSER.find((way) => !this.options().looser.includes(way)) : undefined,
  );
  protected readonly none = computed(
    () => this.job().summary?.steps.find(({ id }) => id === this.step().id)?.why['no-profile-found'] ?? 0,
  );

  protected loosen() {
    const options = this.options();
    const looser = LOOSER.filter((way) => way === this.next() || options.looser.includes(way));
    this.decisions.configure(this.job().id, { ...this.step(), options: { ...options, looser } }, this.step());
  }
}
