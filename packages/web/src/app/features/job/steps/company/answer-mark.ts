import { ChangeDetectionStrategy, Component, input } from '@angular/core';
import type { FirmRow } from '@sieve/contract';

export const ANSWER_WORDS: Record<FirmRow['answer'], string> = { yes: 'yes', no: 'no', unclear: 'cannot tell', '': '' };

/** What a website answers, by shape and word. */
@Component({
  selector: 'cs-answer-mark',
  changeDetection: ChangeDetectionStrategy.OnPush,
  template: `
    <svg width="12" height="12" viewBox="0 0 12 12" aria-hidden="true">
      @switch (answer()) {
        @case ('yes') {
          <circle cx="6" cy="6" r="4.6" fill="var(--spruce)" />
        }
        @case ('no') {
          <circle cx="6" cy="6" r="4.4" fill="none" stroke="var(--plum)" stroke-width="1.4" />
          <path d="M3.1 8.9l5.8-5.8" stroke="var(--plum)" stroke-width="1.4" />
        }
        @case ('unclear') {
          <circle
            cx="6"
            cy="6"
            r="4.4"
            fill="none"
            stroke="var(--ink-3)"
            stroke-width="1.3"
            stroke-dasharray="1.6 1.7"
          />
        }
      }
    </svg>
    {{ words[answer()] }}
  `,
  styles: `
    :host {
      display: inline-flex;
      align-items: center;
      gap: 7px;
      white-space: nowrap;
    }
    svg {
      flex: none;
    }
  `,
})
export class AnswerMark {
  readonly answer = input.required<FirmRow['answer']>();
  protected readonly words = ANSWER_WORDS;
}
