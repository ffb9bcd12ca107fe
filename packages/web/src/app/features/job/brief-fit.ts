import { ChangeDetectionStrategy, Component, input } from '@angular/core';
import { FIELD_WORDS, type ContactView } from '@sieve/contract';

type Part = ContactView['brief'][number];

/** How somebody fits each part of the job's brief: yes, near, no or not known, with what is known of them. */
@Component({
  selector: 'cs-brief-fit',
  changeDetection: ChangeDetectionStrategy.OnPush,
  template: `
    <ul>
      @for (part of parts(); track part.part) {
        <li [class]="part.fit">
          <span>{{ label(part) }}</span> <small>{{ said(part) }}</small>
        </li>
      }
    </ul>
  `,
  styles: `
    ul {
      margin: 0;
      padding: 0;
      list-style: none;
    }
    li {
      display: flex;
      gap: 8px;
      justify-content: space-between;
    }
    small {
      color: var(--ink-2);
      text-align: right;
    }
    .yes small {
      color: var(--spruce);
    }
    .no small {
      color: var(--plum);
    }
  `,
})
export class BriefFit {
  readonly parts = input.required<readonly Part[]>();
  protected label = ({ part }: Part) => (part === 'place' ? 'Place' : FIELD_WORDS[part]);

  protected said({ part, fit, is, near }: Part): string {
    const known = part === 'title' || is === '' ? '' : `${is}: `;
    if (fit === 'near') return `near “${near}”`;
    if (fit === 'unknown') return 'not known';
    return `${known}${fit === 'yes' ? 'fits' : 'does not fit'}`;
  }
}
