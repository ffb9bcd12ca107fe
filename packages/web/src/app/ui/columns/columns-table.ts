import { ChangeDetectionStrategy, Component, computed, input, output, signal } from '@angular/core';
import type { SourceColumns } from '@sieve/contract';
import type { Column, OwnType, Target } from '@sieve/core/model/target';
import { derivedValue } from '@sieve/core/tidy/derived';
import { Icon } from '../icon/icon';
import { Select } from '../select/select';
import { targetOptions, typeOptions } from '../target-options';
import { DerivePanel } from './derive-panel';

const SAMPLES = 4;
type Seen = SourceColumns['columns'][number];
const WHY_WORDS: Record<Seen['why'], string> = {
  heading: 'by its heading',
  values: 'by its values',
  both: 'by heading and values',
  beside: 'by what is beside it',
  nothing: '',
};

/** The columns of a file: what each is, how sure that is, and those that are made of others. */
@Component({
  selector: 'cs-columns-table',
  changeDetection: ChangeDetectionStrategy.OnPush,
  imports: [Icon, Select, DerivePanel],
  templateUrl: './columns-table.html',
  styleUrl: './columns-table.scss',
})
export class ColumnsTable {
  readonly found = input.required<SourceColumns & { remembered?: boolean }>();
  readonly columns = input.required<readonly Column[]>();
  readonly changed = output<Column[]>();

  protected readonly targetOptions = targetOptions;
  protected readonly typeOptions = typeOptions;
  protected readonly whyWords = WHY_WORDS;
  /** The column that is being split or joined. */
  protected readonly deriving = signal<number | null>(null);
  /** Each column with samples of what it holds, and as it was recognised; null for one that is made of others. */
  protected readonly lines = computed(() =>
    this.columns().map((column, at) => ({ column, ...this.seenOf(column, at) })),
  );

  private seenOf({ from }: Column, at: number): { samples: string; seen: Seen | null } {
    const seen = from ? null : (this.found().columns[at] ?? null);
    const values = from ? this.found().preview.map((cells) => derivedValue(cells, from)) : (seen?.samples ?? []);
    return { seen, samples: [...new Set(values)].filter(Boolean).slice(0, SAMPLES).join(' · ') };
  }

  protected noteOf({ target, filled }: Seen): string {
    if (target === 'fullName') return '; split into its parts';
    if (target === 'website') return '; gives the domain';
    return filled < 0.5 ? `, filled in ${(filled * 100).toFixed(0)} %` : '';
  }

  /** What becomes of what is held is said of what a column was. */
  protected map(at: number, target: Target) {
    const type = target === 'own' ? this.found().columns[at]?.type : undefined;
    const change = ({ name, from }: Column): Column => ({
      name,
      target,
      ...(type && type !== 'text' && { type }),
      ...(from && { from }),
    });
    this.changed.emit(this.columns().map((known, i) => (i === at ? change(known) : known)));
  }

  /** Empty: as its column. */
  protected setName(at: number, typed: string) {
    const called = typed.trim();
    this.changed.emit(this.columns().map((known, i) => (i === at ? { ...known, own: called || known.name } : known)));
  }

  protected setType(at: number, type: OwnType) {
    this.changed.emit(this.columns().map((known, i) => (i === at ? { ...known, type } : known)));
  }

  protected derive(made: Column[]) {
    this.deriving.set(null);
    if (made.length > 0) this.changed.emit([...this.columns(), ...made]);
  }

  protected underive(at: number) {
    this.changed.emit(this.columns().filter((_, i) => i !== at));
  }
}
