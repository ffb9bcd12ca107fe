import { ChangeDetectionStrategy, Component, computed, input, output } from '@angular/core';
import { RouterLink } from '@angular/router';
import { FIELD_WORDS, TARGET_WORDS, WHO_COMES, type Inspection, type WhoComes } from '@sieve/contract';
import type { SuppressionKind } from '@sieve/core/model/suppression';
import type { Column, HeldRule } from '@sieve/core/model/target';
import { CountPipe } from '../../ui/count';
import { Select, type Option } from '../../ui/select/select';
import { whenWords } from '../../ui/when';

const BY_WORDS: Record<SuppressionKind, string> = {
  email: 'address',
  profile: 'profile',
  phone: 'phone',
  person: 'name and company',
  domain: 'domain',
  company: 'company',
};
const TAKE_WORDS: Record<WhoComes, string> = {
  all: 'All',
  new: 'Only those new to you',
  'not-exported': 'Only those never exported',
};
const RULES: Option<HeldRule | 'rule'>[] = [
  { value: 'rule', label: 'matching chooses' },
  { value: 'fill', label: 'fill blanks only' },
  { value: 'overwrite', label: 'overwrite' },
  { value: 'keep', label: 'keep what is held' },
];

/** How many rows of a file come in. */
export const comesOf = ({ rows, held }: Inspection, take: WhoComes): number =>
  take === 'new' ? held.fresh : take === 'not-exported' ? rows - held.exported : rows;

/** Who of a file is held already, which of its rows come in, and what becomes of what is held. */
@Component({
  selector: 'cs-held-pane',
  changeDetection: ChangeDetectionStrategy.OnPush,
  imports: [RouterLink, Select, CountPipe],
  templateUrl: './held-pane.html',
  styleUrl: './held-pane.scss',
})
export class HeldPane {
  readonly found = input.required<Inspection>();
  readonly columns = input.required<readonly Column[]>();
  readonly take = input.required<WhoComes>();
  readonly taken = output<WhoComes>();
  readonly ruled = output<{ column: number; rule: HeldRule | 'rule' }>();

  protected readonly when = whenWords;
  protected readonly ruleOptions = RULES;
  protected readonly fieldWords = (field: string) => FIELD_WORDS[field as keyof typeof FIELD_WORDS] ?? field;
  protected readonly cut = computed(() => this.found().columns.reduce((sum, column) => sum + column.lostDigits, 0));
  /** ': 3 by address, 1 by domain'. */
  protected readonly suppressedWords = computed(() => {
    const by = Object.entries(this.found().heldDetails.suppressedBy);
    return by.length === 0
      ? ''
      : `: ${by.map(([kind, n]) => `${n} by ${BY_WORDS[kind as SuppressionKind]}`).join(', ')}`;
  });
  protected readonly takes = computed(() =>
    WHO_COMES.map((value) => ({ value, label: TAKE_WORDS[value], rows: comesOf(this.found(), value) })).filter(
      ({ value, rows }) => value === 'all' || rows < this.found().rows,
    ),
  );
  /** The fields that a file has, with what becomes of those that are held already. */
  protected readonly fieldRules = computed(() =>
    this.found().held.thisJob === 0
      ? []
      : this.columns().flatMap(({ name, target, held }, column) =>
          target === 'own' || target === 'skip'
            ? []
            : [{ column, name: TARGET_WORDS[target] || name, held: held ?? ('rule' as const) }],
        ),
  );
  protected readonly heldRows = computed(() => {
    const { held } = this.found();
    return [
      { label: 'New to you', count: held.fresh, colour: 'var(--spruce)' },
      {
        label: 'In this job already',
        count: held.thisJob,
        colour: 'color-mix(in srgb, var(--spruce) 45%, var(--paper))',
      },
      { label: 'In another job', count: held.otherJobs, colour: '#cfc58f' },
      { label: 'On the suppression list', count: held.suppressed, colour: 'var(--plum)' },
    ];
  });
}
