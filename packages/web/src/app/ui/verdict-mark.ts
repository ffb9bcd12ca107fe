import { ChangeDetectionStrategy, Component, computed, input } from '@angular/core';

/** A verdict as a shape and a colour: full dot valid, half dot risky, crossed ring invalid, dotted ring not known. */
@Component({
  selector: 'cs-verdict-mark',
  changeDetection: ChangeDetectionStrategy.OnPush,
  host: { role: 'img', '[attr.aria-label]': 'label()', '[attr.title]': 'label()' },
  template: `
    <svg width="12" height="12" viewBox="0 0 12 12" fill="none">
      @switch (kind()) {
        @case ('valid') {
          <circle cx="6" cy="6" r="5" fill="var(--spruce)" />
        }
        @case ('risky') {
          <circle cx="6" cy="6" r="4.6" stroke="var(--saffron)" stroke-width="1.4" />
          <path d="M1.4 6a4.6 4.6 0 0 0 9.2 0z" fill="var(--saffron)" />
        }
        @case ('invalid') {
          <circle cx="6" cy="6" r="4.6" stroke="var(--brick)" stroke-width="1.4" />
          <path d="M2.9 2.9l6.2 6.2" stroke="var(--brick)" stroke-width="1.4" />
        }
        @case ('none') {
          <path d="M2 6h8" stroke="var(--ink-3)" stroke-width="1.4" />
        }
        @default {
          <circle cx="6" cy="6" r="4.6" stroke="var(--ink-3)" stroke-width="1.3" stroke-dasharray="1.6 1.7" />
        }
      }
    </svg>
  `,
  styles: `
    :host {
      display: inline-flex;
      vertical-align: -1px;
    }
  `,
})
export class VerdictMark {
  readonly verdict = input.required<string>();
  protected readonly kind = computed(() => this.verdict());
  protected readonly label = computed(() => (this.verdict() === 'none' ? 'no email' : this.verdict() || 'not known'));
}
