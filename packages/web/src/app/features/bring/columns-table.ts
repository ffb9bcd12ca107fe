import { ChangeDetectionStrategy, Component, computed, input, output, signal } from '@angular/core';
import type { Inspection } from '@sieve/contract';
import type { Column, OwnType, Target } from '@sieve/core/model/target';
import { derivedValue } from '@sieve/core/tidy/derived';
import { Icon } from '../../ui/icon/icon';
import { Select } from '../../ui/select/select';
import { targetOptions, typeOptions } from '../../ui/target-options';
import { DerivePanel } from './derive-panel';

const SAMPLES = 4;
const WHY_WORDS: Record<Inspection['columns'][number]['why'], string> = {
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
  readonly found = input.required<Inspection>();
  readonly columns = input.required<readonly Column[]>();
  readonly changed = output<Column[]>();

  protected readonly targetOptions = targetOptions;
  protected readonly typeOptions = typeOptions;
  protected readonly whyWords = WHY_WORDS;
  /** The column that is being split or joined. */
  protected readonly deriving = signal<number | null>(null);
  /** Columns made of others, with samples of what they hold. */
  protected readonly madeColumns = computed(() =>
    this.columns().flatMap((column, at) => {
      const { from } = column;
      if (!from) return [];
      const values = this.found().preview.map((cells) => derivedValue(cells, from));
      return [{ column, at, samples: [...new Set(values)].filter(Boolean).slice(0, SAMPLES).join(' · ') }];
    }),
  );

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
