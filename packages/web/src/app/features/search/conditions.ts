import { ChangeDetectionStrategy, Component, computed, inject, signal } from '@angular/core';
import { MatMenuModule } from '@angular/material/menu';
import { SEARCH_FIELDS, type Condition, type SearchField } from '@sieve/core/model/search';
import { printRange } from '@sieve/core/search/print';
import { Icon } from '../../ui/icon/icon';
import { SearchStore } from './search-store';
import { Select } from '../../ui/select/select';

interface Chip {
  condition: number;
  at: number;
  label: string;
  not: boolean;
  /** Null for what has no quotation marks: choices and numbers. */
  exact: boolean | null;
}

/** Shown before anything is chosen; the others are under "Anything else". */
const FIRST: Record<string, readonly string[]> = {
  people: ['title', 'sector', 'country', 'headcount', 'years'],
  companies: ['sector', 'country', 'employees', 'growth', 'technology'],
  postings: ['role', 'age', 'sector', 'country'],
};
/** Chips of one field that are shown before "and n more". */
const MOST = 12;

/** The conditions of a search as chips, field by field; values are typed in, with completion. */
@Component({
  selector: 'cs-conditions',
  changeDetection: ChangeDetectionStrategy.OnPush,
  imports: [Select, MatMenuModule, Icon],
  templateUrl: './conditions.html',
  styleUrl: './conditions.scss',
})
export class Conditions {
  protected readonly store = inject(SearchStore);
  protected readonly adding = signal<string | null>(null);
  protected readonly wrong = signal('');

  private readonly fields = computed(() => SEARCH_FIELDS.filter(({ of }) => of.includes(this.store.search().about)));
  protected readonly groups = computed(() => {
    const { about, conditions } = this.store.search();
    const first = FIRST[about]!;
    return this.fields()
      .filter(
        ({ key }) => first.includes(key) || this.adding() === key || conditions.some(({ field }) => field === key),
      )
      .map((field) => {
        const chips = conditions.flatMap((given, i) => (given.field === field.key ? chipsOf(given, i) : []));
        return { field, chips: chips.slice(0, MOST), more: Math.max(0, chips.length - MOST) };
      });
  });
  protected readonly otherOptions = computed(() => this.others().map(({ key, label }) => ({ value: key, label })));
  private readonly others = computed(() => {
    const shown = new Set(this.groups().map(({ field }) => field.key));
    return this.fields().filter(({ key }) => !shown.has(key));
  });

  protected hint(field: SearchField): string {
    if (field.kind === 'number') return '1..10';
    if (field.kind === 'choice') return field.values?.slice(0, 2).join(', ') ?? 'a value';
    return '"a phrase", or words';
  }

  protected start(key: string) {
    this.wrong.set('');
    this.adding.set(key);
    setTimeout(() => document.querySelector<HTMLInputElement>('cs-conditions input')?.focus());
  }

  protected add(field: SearchField, box: HTMLInputElement) {
    if (box.value.trim() === '') return this.adding.set(null);
    if (this.store.add(field.key, box.value)) {
      box.value = '';
      this.wrong.set('');
    } else {
      this.wrong.set(
        field.kind === 'number'
          ? 'A whole number, or a range such as 1..10, 8.. or ..-20'
          : field.values
            ? `One of: ${field.values.join(', ')}`
            : 'A quotation mark is never closed',
      );
    }
  }
}

function chipsOf(given: Condition, condition: number): Chip[] {
  const choice = SEARCH_FIELDS.some(({ key, kind }) => key === given.field && kind === 'choice');
  return 'terms' in given
    ? given.terms.map(({ text, exact }, at) => ({
        condition,
        at,
        label: exact && !choice ? `“${text}”` : text,
        not: given.not,
        exact: choice ? null : exact,
      }))
    : given.ranges.map((range, at) => ({
        condition,
        at,
        label: printRange(range).replace(/^\.\./, 'up to ').replace(/\.\.$/, ' and up').replace('..', ' to '),
        not: given.not,
        exact: null,
      }));
}
