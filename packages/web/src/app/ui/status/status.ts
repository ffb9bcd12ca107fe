import { ChangeDetectionStrategy, Component, input } from '@angular/core';
import type { Request } from '../../state/asked';

/** How a request stands, in words, where its answer is not there to be shown. */
@Component({
  selector: 'cs-status',
  changeDetection: ChangeDetectionStrategy.OnPush,
  template: `
    @switch (request().status) {
      @case ('asking') {
        <p role="status">Loading {{ what() }}…</p>
      }
      @case ('failed') {
        <p class="bad" role="alert">{{ words() }}</p>
      }
    }
  `,
  styles: `
    p {
      padding: 12px 16px;
      color: var(--ink-2);
    }
  `,
})
export class Status {
  readonly request = input.required<Request<unknown>>();
  /** What is asked for, as in “the companies”. */
  readonly what = input.required<string>();

  protected words(): string {
    const request = this.request();
    return request.status === 'failed' ? request.words : '';
  }
}
