import { CdkDrag, CdkDragHandle, type CdkDragDrop, CdkDropList, moveItemInArray } from '@angular/cdk/drag-drop';
import { ChangeDetectionStrategy, Component, computed, input, output } from '@angular/core';
import { TARGETS, type Target } from '@sieve/core/model/target';
import { TARGET_WORDS } from '@sieve/contract';
import { Icon } from '../../ui/icon/icon';
import { Select, type Option } from '../../ui/select/select';
import { tintOf } from './tints';

/** A field of the records as a column: what it is called, what it becomes, where it stands among the fields. */
export interface PageColumn {
  key: string;
  name: string;
  target: Target;
  /** Its place in the cells of a record. */
  field: number;
  filled: number;
}

/** The rows as they will come: columns are moved, renamed, left out and said what they are. */
@Component({
  selector: 'cs-page-columns',
  changeDetection: ChangeDetectionStrategy.OnPush,
  imports: [CdkDrag, CdkDragHandle, CdkDropList, Icon, Select],
  template: `
    <table>
      <thead>
        <tr
          cdkDropList
          cdkDropListOrientation="horizontal"
          [cdkDropListDisabled]="fixed()"
          (cdkDropListDropped)="drop($event)"
        >
          @for (column of shown(); track column.key) {
            <th cdkDrag cdkDragLockAxis="x" [style.border-top-color]="tint(column.field)">
              <span class="head">
                @if (!fixed()) {
                  <span cdkDragHandle class="grip"><cs-icon name="grip" [size]="13" /></span>
                }
                <input
                  #heading
                  [readOnly]="fixed()"
                  [attr.aria-label]="'Heading of ' + column.name + '; Alt and arrow keys move it'"
                  [value]="column.name"
                  (change)="change(column, { name: heading.value.trim() || column.name })"
                  (keydown.alt.arrowleft)="move($index, $index - 1); $event.preventDefault()"
                  (keydown.alt.arrowright)="move($index, $index + 1); $event.preventDefault()"
                />
                @if (!fixed()) {
                  <button
                    type="button"
                    [attr.aria-label]="'Leave out ' + column.name"
                    (click)="change(column, { target: 'skip' })"
                  >
                    <cs-icon name="close" [size]="12" />
                  </button>
                }
              </span>
              <cs-select
                [label]="'What ' + column.name + ' is'"
                [options]="targets"
                [value]="column.target"
                [disabled]="fixed()"
                (picked)="change(column, { target: $event })"
              />
              <small>{{ column.filled }} of {{ count() }}</small>
            </th>
          }
        </tr>
      </thead>
      <tbody>
        @for (row of rows(); track $index) {
          <tr>
            @for (column of shown(); track column.key) {
              @let cell = row[column.field];
              <td [class.mono]="isMono(column.target)" [title]="cell">
                @if (cell) {
                  {{ cell }}
                } @else {
                  <span class="none">–</span>
                }
              </td>
            }
          </tr>
        }
      </tbody>
    </table>
  `,
  styles: `
    :host {
      display: block;
      overflow: auto;
      border: 1px solid var(--line);
      border-radius: 9px;
      background: var(--paper);
    }
    table {
      border-collapse: collapse;
      min-width: 100%;
    }
    th {
      min-width: 118px;
      padding: 4px 7px 6px;
      border-top: 4px solid;
      border-bottom: 1px solid var(--line);
      background: color-mix(in srgb, var(--sunk) 35%, var(--paper));
      text-align: left;
      font-weight: 400;
    }
    .head {
      display: flex;
      align-items: center;
      gap: 2px;
    }
    .grip {
      color: var(--ink-3);
      cursor: grab;
    }
    input {
      flex: 1;
      width: 100%;
      min-width: 60px;
      padding: 2px 4px;
      border: 1px solid transparent;
      border-radius: 4px;
      background: none;
      color: var(--ink);
      font: 600 12.5px var(--ui);
      text-overflow: ellipsis;
    }
    input:hover:not([readonly]),
    input:focus {
      border-color: var(--line);
      background: var(--paper);
    }
    .head button {
      min-width: 24px;
      min-height: 24px;
      border: 0;
      padding: 2px;
      background: none;
      color: var(--ink-3);
      cursor: pointer;
    }
    cs-select {
      height: 25px;
      width: 100%;
      min-width: 0;
      padding: 1px 6px;
      font-size: 12px;
    }
    small {
      display: block;
      padding: 2px 5px 0;
      color: var(--ink-2);
      font-size: 11px;
    }
    td {
      max-width: 230px;
      height: 29px;
      padding: 0 11px;
      border-bottom: 1px solid var(--line-soft);
      overflow: hidden;
      text-overflow: ellipsis;
      white-space: nowrap;
    }
    .none {
      color: var(--ink-3);
    }
  `,
})
export class PageColumns {
  readonly columns = input.required<readonly PageColumn[]>();
  readonly rows = input.required<readonly (readonly string[])[]>();
  readonly count = input.required<number>();
  /** They come as they are; nothing is changed any more. */
  readonly fixed = input(false);
  readonly changed = output<PageColumn[]>();

  protected readonly tint = tintOf;
  protected readonly shown = computed(() => this.columns().filter(({ target }) => target !== 'skip'));
  protected readonly targets: Option<Target>[] = TARGETS.filter((target) => target !== 'skip').map((value) => ({
    value,
    label: value === 'own' ? 'a field of its own' : TARGET_WORDS[value],
  }));
  protected readonly isMono = (target: Target) => ['email', 'phone', 'website', 'profile'].includes(target);

  protected change(column: PageColumn, to: Partial<PageColumn>) {
    this.changed.emit(this.columns().map((one) => (one.key === column.key ? { ...one, ...to } : one)));
  }

  protected drop({ previousIndex, currentIndex }: CdkDragDrop<unknown>) {
    this.move(previousIndex, currentIndex);
  }

  /** Places are those of the shown columns; what is left out stays behind them. */
  protected move(from: number, to: number) {
    const shown = [...this.shown()];
    if (this.fixed() || to < 0 || to >= shown.length) return;
    moveItemInArray(shown, from, to);
    this.changed.emit([...shown, ...this.columns().filter(({ target }) => target === 'skip')]);
  }
}
