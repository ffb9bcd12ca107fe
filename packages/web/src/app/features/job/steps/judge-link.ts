import { ChangeDetectionStrategy, Component, computed, input } from '@angular/core';
import { MatButtonModule } from '@angular/material/button';
import { RouterLink } from '@angular/router';
import type { SieveStep } from '@sieve/core';
import { MAY_BE_ELSEWHERE } from '@sieve/core/steps/screen/options';
import type { Job } from '@sieve/contract';
import { CountPipe } from '../../../ui/count';
import { Icon } from '../../../ui/icon/icon';

/** The way to the pairs that a step leaves in doubt: of this job where it matches, with other jobs where it screens. */
@Component({
  selector: 'cs-judge-link',
  changeDetection: ChangeDetectionStrategy.OnPush,
  imports: [RouterLink, MatButtonModule, Icon, CountPipe],
  styles: `
    :host:empty {
      display: none;
    }
  `,
  template: `
    @if (pairs() > 0) {
      <a mat-flat-button [routerLink]="['/jobs', job().id, 'judge']"
        ><cs-icon name="merge" /> Judge {{ pairs() | count }} {{ pairs() === 1 ? 'pair' : 'pairs' }}</a
      >
    }
  `,
})
export class JudgeLink {
  readonly job = input.required<Job>();
  readonly step = input.required<SieveStep>();
  protected readonly pairs = computed(() => {
    const { summary } = this.job();
    const { id, kind } = this.step();
    if (kind === 'match') return summary?.pairs ?? 0;
    const why = summary?.steps.find((step) => step.id === id)?.why ?? {};
    return MAY_BE_ELSEWHERE.reduce((sum, code) => sum + (why[code] ?? 0), 0);
  });
}
