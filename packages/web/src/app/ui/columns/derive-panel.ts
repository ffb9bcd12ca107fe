import { ChangeDetectionStrategy, Component, computed, input, output, signal } from '@angular/core';
import { MatButtonModule } from '@angular/material/button';
import { SPLITS, type Column, type SplitBy, type Target } from '@sieve/core/model/target';
import { derivedValue, partsOf } from '@sieve/core/tidy/derived';
import { Select, type Option } from '../select/select';

const HOW_WORDS: Record<SplitBy['how'], string> = {
  separator: 'at each',
  pattern: 'by the pattern',
  name: 'as a name',
  'firm-title': 'as firm and title',
  'town-county': 'as town and county',
};
/** What the parts are, where the way to split says it. */
const PARTS: Partial<Record<SplitBy['how'], [name: string, target: Target][]>> = {
  name: [
    ['first name', 'firstName'],
    ['middle name', 'middleName'],
    ['last name', 'lastName'],
  ],
  'firm-title': [
    ['firm', 'company'],
    ['title', 'title'],
  ],
  'town-county': [
    ['town', 'city'],
    ['county', 'region'],
  ],
};
const PREVIEWED = 3;

/** Splits a column, or joins it with another, with the first rows as they will be. */
@Component({
  selector: 'cs-derive-panel',
  changeDetection: ChangeDetectionStrategy.OnPush,
  imports: [MatButtonModule, Select],
  template: `
    <p>
      <cs-select label="What is done" [options]="ways" [value]="way()" (picked)="way.set($event)" />
      @if (way() === 'join') {
        <cs-select
          label="Joined with"
          placeholder="which column…"
          [options]="others()"
          [value]="other()"
          (picked)="other.set($event)"
        />
        with
        <input #between class="field" aria-label="Between them" [value]="glue()" (input)="glue.set(between.value)" />
        between
      } @else if (way() === 'separator' || way() === 'pattern') {
        <input
          #text
          class="field"
          [attr.aria-label]="way() === 'pattern' ? 'The pattern, a star for each part' : 'The separator'"
          [value]="separator()"
          (input)="separator.set(text.value)"
        />
        @if (way() === 'pattern') {
          <small>a star for each part, as * (*)</small>
        }
      }
    </p>
    @if (shown().length > 0) {
      <table>
        @for (row of shown(); track $index) {
          <tr>
            <td class="dim">{{ row.was }}</td>
            @for (part of row.parts; track $index) {
              <td>{{ part || '–' }}</td>
            }
          </tr>
        }
      </table>
    }
    <button mat-stroked-button type="button" [disabled]="made().length === 0" (click)="done.emit(made())">
      {{ way() === 'join' ? 'Make one column' : 'Make ' + made().length + ' columns' }}
    </button>
    <button mat-button type="button" (click)="done.emit([])">Leave it</button>
  `,
  styles: `
    :host {
      display: block;
      padding: 9px 13px 11px;
      border-bottom: 1px solid var(--line-soft);
      background: color-mix(in srgb, var(--saffron-wash) 45%, var(--paper));
    }
    p {
      display: flex;
      flex-wrap: wrap;
      gap: 8px;
      align-items: center;
    }
    input {
      width: 110px;
      padding: 0 8px;
    }
    table {
      margin: 8px 0;
      border-collapse: collapse;
    }
    td {
      max-width: 240px;
      padding: 3px 14px 3px 0;
      overflow: hidden;
      text-overflow: ellipsis;
      white-space: nowrap;
    }
    .dim,
    small {
      color: var(--ink-2);
    }
  `,
})
export class DerivePanel {
  /** The columns of the table, and the one that is split or joined. */
  readonly columns = input.required<readonly Column[]>();
  readonly column = input.required<number>();
  readonly preview = input.required<readonly (readonly string[])[]>();
  /** The columns that are made; none when it is left. */
  readonly done = output<Column[]>();

  protected readonly ways: Option<SplitBy['how'] | 'join'>[] = [
    ...SPLITS.map((value) => ({ value, label: `Split ${HOW_WORDS[value]}` })),
    { value: 'join', label: 'Join it with' },
  ];
  protected readonly way = signal<SplitBy['how'] | 'join'>('separator');
  protected readonly separator = signal(', ');
  protected readonly glue = signal(' ');
  protected readonly other = signal<number | null>(null);
  protected readonly others = computed(() =>
    this.columns().flatMap(({ name, from }, value) =>
      from || value === this.column() ? [] : [{ value, label: name }],
    ),
  );
  private readonly rows = computed(() => this.preview().filter((cells) => (cells[this.column()] ?? '').trim() !== ''));
  protected readonly made = computed((): Column[] => {
    const { name } = this.columns()[this.column()]!;
    const way = this.way();
    if (way === 'join') {
      const other = this.other();
      if (other === null) return [];
      const from = { kind: 'join' as const, columns: [this.column(), other], between: this.glue() };
      return [{ name: `${name} and ${this.columns()[other]!.name}`, target: 'own', from }];
    }
    const by: SplitBy = { how: way, text: way === 'separator' || way === 'pattern' ? this.separator() : '' };
    const known = PARTS[way];
    const count =
      known?.length ?? Math.max(0, ...this.rows().map((cells) => partsOf(cells[this.column()]!, by).length));
    if (count < 2) return [];
    return Array.from({ length: count }, (_, part) => ({
      name: `${name}, ${known?.[part]?.[0] ?? part + 1}`,
      target: known?.[part]?.[1] ?? ('own' as const),
      from: { kind: 'part' as const, column: this.column(), by, part },
    }));
  });
  protected readonly shown = computed(() =>
    this.rows()
      .slice(0, PREVIEWED)
      .map((cells) => ({
        was: cells[this.column()]!,
        parts: this.made().map(({ from }) => derivedValue(cells, from!)),
      })),
  );
}
