import { ChangeDetectionStrategy, Component, computed, input, model } from '@angular/core';
import type { PageSet } from '@sieve/contract';
import { tintOf } from './tints';

/** As the template has it. */
const WIDTH = 208;
const LINE = 7;

/** The sets of records of a page, best first. A line is a record, a bar a field: as long as its text, a gap where it is blank. */
@Component({
  selector: 'cs-set-list',
  changeDetection: ChangeDetectionStrategy.OnPush,
  template: `
    <p class="head">
      <b>{{ sets().length }} {{ sets().length === 1 ? 'set' : 'sets' }}</b> of records found
      @if (sets().length > 1) {
        <span><kbd>J</kbd> <kbd>K</kbd></span>
      }
    </p>
    @for (set of drawn(); track $index) {
      <button
        type="button"
        [class.on]="$index === chosen()"
        [attr.aria-pressed]="$index === chosen()"
        (click)="chosen.set($index)"
      >
        <span class="name"
          ><small>{{ $index + 1 }}</small> <b>{{ set.name }}</b><small class="n">{{ set.size }}</small></span
        >
        <svg width="208" [attr.height]="set.height" [attr.viewBox]="'0 0 208 ' + set.height" aria-hidden="true">
          @for (bar of set.bars; track $index) {
            <rect
              [attr.x]="bar.x"
              [attr.y]="bar.y"
              [attr.width]="bar.width"
              height="4.5"
              rx="1"
              [attr.fill]="bar.fill"
            />
          }
        </svg>
        @if (set.words) {
          <small>{{ set.words }}</small>
        }
      </button>
    }
  `,
  styles: `
    :host {
      display: block;
      flex: 1;
      margin: 0 -18px;
      overflow: auto;
    }
    .head {
      display: flex;
      gap: 4px;
      padding: 0 18px 8px;
      border-bottom: 1px solid var(--line-soft);
      color: var(--ink-2);
    }
    .head b {
      color: var(--ink);
      font-weight: 600;
    }
    .head span {
      margin-left: auto;
    }
    button {
      display: block;
      width: 100%;
      padding: 9px 16px 10px 13px;
      border: 0;
      border-left: 3px solid transparent;
      border-bottom: 1px solid var(--line-soft);
      background: none;
      text-align: left;
      cursor: pointer;
    }
    button.on {
      border-left-color: var(--saffron);
      background: var(--saffron-wash);
    }
    .name {
      display: flex;
      align-items: baseline;
      gap: 7px;
    }
    .name b {
      overflow: hidden;
      font-weight: 600;
      text-overflow: ellipsis;
      white-space: nowrap;
    }
    .n {
      flex: none;
      margin-left: auto;
    }
    small {
      color: var(--ink-2);
      font-size: 11.5px;
    }
    svg {
      display: block;
      max-width: 100%;
      margin: 6px 0 5px 14px;
    }
    button > small {
      display: block;
      margin-left: 14px;
    }
    button:not(.on) svg {
      opacity: 0.65;
    }
  `,
})
export class SetList {
  readonly sets = input.required<readonly PageSet[]>();
  readonly chosen = model.required<number>();

  protected readonly drawn = computed(() =>
    this.sets().map((set) => ({
      name: nameOfSet(set),
      size: `${set.count}, ${filledFields(set).length} ${filledFields(set).length === 1 ? 'field' : 'fields'}`,
      words: wordsOf(set),
      ...barsOf(set),
    })),
  );
}

const filledFields = ({ fields }: PageSet) => fields.filter(({ filled }) => filled > 0);

/** What a set is called: by what stands over it, else by its first fields. */
export const nameOfSet = (set: PageSet): string =>
  set.heading ||
  filledFields(set)
    .slice(0, 3)
    .map(({ name }) => name)
    .join(', ') ||
  'Records';

/** What it seems to list, by what was recognised in it. */
function wordsOf({ fields }: PageSet): string {
  const filled = (...targets: string[]) =>
    Math.max(0, ...fields.filter(({ target }) => targets.includes(target)).map((field) => field.filled));
  const parts = (
    [
      [filled('fullName', 'lastName'), 'names'],
      [filled('company'), 'firms'],
      [filled('email'), 'addresses'],
      [filled('phone'), 'phones'],
    ] as const
  ).filter(([n]) => n > 0);
  if (parts.length > 0) return parts.map(([n, what]) => `${n} ${what}`).join(', ');
  const longest = Math.max(0, ...fields.flatMap(({ lengths }) => lengths));
  return longest > 80 ? 'long texts' : '';
}

function barsOf(set: PageSet) {
  const shown = set.fields
    .map((field, i) => ({ ...field, i }))
    .filter(({ filled }) => filled > 0)
    .slice(0, 8);
  const longest = shown.map(({ lengths }) => Math.max(1, ...lengths.map((length) => Math.min(length, 40))));
  const sum = longest.reduce((all, length) => all + length, 0);
  const lines = Math.min(7, Math.max(0, ...shown.map(({ lengths }) => lengths.length)));
  let x = 0;
  const bars = shown.flatMap(({ lengths, i }, at) => {
    const width = (longest[at]! / sum) * (WIDTH - 4 * shown.length);
    const left = x;
    x += width + 4;
    return lengths.slice(0, lines).flatMap((length, line) =>
      length === 0
        ? []
        : [
            {
              x: left,
              y: line * LINE,
              width: Math.max(2, (Math.min(length, 40) / longest[at]!) * width),
              fill: tintOf(i),
            },
          ],
    );
  });
  return { bars, height: Math.max(5, lines * LINE - 2) };
}
