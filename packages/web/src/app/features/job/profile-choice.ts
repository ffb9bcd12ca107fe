import { ChangeDetectionStrategy, Component, computed, inject, input, linkedSignal, output } from '@angular/core';
import type { PossibleProfile } from '@sieve/contract';
import { Shortcuts } from '../../ui/shortcuts/shortcuts';
import { sureWords } from '../../ui/sure-words';

const FIELD: Record<PossibleProfile['speaks'][number]['field'], string> = {
  firstName: 'first name',
  lastName: 'last name',
  company: 'company',
  past: 'earlier company',
  city: 'town',
  country: 'country',
  title: 'title',
};
const LEVEL = ['', 'differs', 'is near', 'is nearly the same', 'is the same'];

/** The profiles that could be somebody's, with what speaks for each and against; taken with one key. */
@Component({
  selector: 'cs-profile-choice',
  changeDetection: ChangeDetectionStrategy.OnPush,
  template: `
    <h3>{{ profiles().length === 1 ? 'One profile could be theirs' : 'Which profile is theirs?' }}</h3>
    <ol>
      @for (one of profiles(); track one.link; let i = $index) {
        <li>
          <button type="button" (click)="taken.emit(one.link)">
            <kbd>{{ i + 1 }}</kbd>
            <span class="who">
              <span
                ><b>{{ one.name }}</b
                >&ngsp;<span class="num">{{ sure(one.chance) }}</span></span
              >
              <span>{{ one.title }}{{ one.title && one.company ? ', ' : '' }}{{ one.company }}</span>
              @if (one.past.length > 0) {
                <small>earlier {{ one.past.join(', ') }}</small>
              }
              <small>{{ one.place }}</small>
              <small class="mono">{{ one.link }}</small>
            </span>
          </button>
          <p class="speaks">
            @if (said()[i]!.for) {
              <span class="for">{{ said()[i]!.for }}</span>
            }
            @if (said()[i]!.against) {
              <span class="against">{{ said()[i]!.against }}</span>
            }
          </p>
        </li>
      }
    </ol>
    <button type="button" class="link" (click)="taken.emit('')"><kbd>0</kbd> None of them</button>
  `,
  styles: `
    :host {
      display: block;
      clear: both;
      margin: 10px 0 4px;
      padding: 9px 10px;
      border: 1px solid var(--line);
      border-radius: 8px;
      background: var(--paper);
    }
    h3 {
      margin: 0 0 6px;
      font-size: 13px;
    }
    ol {
      list-style: none;
      margin: 0 0 6px;
      padding: 0;
    }
    li {
      padding: 5px 0 6px;
      border-top: 1px solid var(--line-soft);
    }
    li button {
      display: grid;
      grid-template-columns: auto minmax(0, 1fr);
      gap: 8px;
      width: 100%;
      padding: 3px 4px;
      border: 0;
      border-radius: 5px;
      background: none;
      color: inherit;
      font: inherit;
      text-align: left;
      cursor: pointer;
    }
    li button:hover {
      background: var(--saffron-wash);
    }
    kbd {
      align-self: start;
    }
    .who > * {
      display: block;
      overflow-wrap: anywhere;
    }
    small,
    .speaks {
      color: var(--ink-2);
      font-size: 11.5px;
    }
    .speaks {
      margin: 2px 4px 0 32px;
    }
    .speaks span {
      display: block;
    }
    .for {
      color: var(--spruce);
    }
    .against {
      color: var(--plum);
    }
    .num {
      color: var(--ink-2);
      white-space: nowrap;
    }
  `,
})
export class ProfileChoice {
  readonly profiles = input.required<readonly PossibleProfile[]>();
  /** The link that is theirs; '': none of them. */
  readonly taken = output<string>();
  /** A key was pressed: until what came of it is shown, keys are the list's. */
  private readonly answered = linkedSignal({ source: this.profiles, computation: () => false });
  protected readonly sure = sureWords;
  protected readonly said = computed(() =>
    this.profiles().map(({ speaks }) => ({
      for: wordsOf(speaks.filter(({ level }) => level > 1)),
      against: wordsOf(speaks.filter(({ level }) => level === 1)),
    })),
  );

  constructor() {
    const take = (link: string | undefined) => {
      if (link === undefined || this.answered()) return false;
      this.answered.set(true);
      return this.taken.emit(link);
    };
    inject(Shortcuts).use({
      ...Object.fromEntries(Array.from({ length: 9 }, (_, i) => [String(i + 1), () => take(this.profiles()[i]?.link)])),
      '0': () => take(''),
    });
  }
}

/** Fields by how alike they are: 'last name and company are the same, town is near'. */
function wordsOf(speaks: PossibleProfile['speaks']): string {
  const parts = [4, 3, 2, 1].flatMap((level) => {
    const fields = speaks.filter((one) => one.level === level).map(({ field }) => FIELD[field]);
    if (fields.length === 0) return [];
    const verb = fields.length === 1 ? LEVEL[level]! : LEVEL[level]!.replace('is', 'are').replace('differs', 'differ');
    return `${fields.join(', ').replace(/, ([^,]*)$/, ' and $1')} ${verb}`;
  });
  return parts.join('; ');
}
