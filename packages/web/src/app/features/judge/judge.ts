import { ChangeDetectionStrategy, Component, computed, inject, input, numberAttribute, signal } from '@angular/core';
import { MatButtonModule } from '@angular/material/button';
import { RouterLink } from '@angular/router';
import type { PersonField } from '@sieve/core';
import { FIELD_WORDS, type PairView } from '@sieve/contract';
import { signalStore } from '@ngrx/signals';
import { Store } from '@ngrx/store';
import { valueOf, withAsked } from '../../state/asked';
import { Decisions } from '../../state/decisions';
import { work } from '../../state/work';
import { bringInto } from '../../ui/bring-into';
import { Icon } from '../../ui/icon/icon';
import { Status } from '../../ui/status/status';
import { Shortcuts } from '../../ui/shortcuts/shortcuts';

const LEVEL_WORDS = ['one side is empty', 'different', 'near', 'nearly the same', 'the same'];

/** Where a level of a field means more than how alike two values are. */
const FIELD_LEVELS: Record<string, Record<number, string>> = {
  email: { 1: 'another mailbox of the same firm', 2: 'another firm, or an office’s mailbox' },
  phone: { 2: 'a line that others have too' },
  suffix: { 2: 'only one has it' },
};

const PairsStore = signalStore(withAsked((api, job: number) => api.pairs(job)));

/** Two records, what speaks for and against, one key for each answer. */
@Component({
  selector: 'cs-judge',
  host: { class: 'panes' },
  changeDetection: ChangeDetectionStrategy.OnPush,
  imports: [RouterLink, MatButtonModule, Icon, Status],
  providers: [PairsStore],
  templateUrl: './judge.html',
  styleUrl: './judge.scss',
})
export class Judge {
  private readonly pairsStore = inject(PairsStore);
  private readonly decisions = inject(Decisions);
  private readonly entities = inject(Store).selectSignal(work.selectJobEntities);
  readonly id = input.required<number, unknown>({ transform: numberAttribute });
  protected readonly job = computed(() => this.entities()[this.id()]);
  protected readonly request = this.pairsStore.asked;
  protected readonly pairs = computed(() => valueOf(this.request())?.pairs ?? null);
  protected readonly at = signal(0);
  protected readonly pair = computed(() => this.pairs()?.[this.at()]);

  protected readonly lines = computed(() => {
    const pair = this.pair();
    if (!pair) return [];
    return pair.evidence.map(({ field, level, bits }) => ({
      field: FIELD_WORDS[field as PersonField],
      a: shown(pair.a, field),
      b: shown(pair.b, field),
      words: wordsOf(pair, field, level),
      share: Math.min(1, Math.abs(bits) / 12) * 50,
      against: bits < 0,
    }));
  });

  constructor() {
    bringInto(this.id);
    const subject = () => ({ subject: 'job', subjectId: this.id() }) as const;
    inject(Shortcuts).use({
      'ctrl+z': () => this.decisions.undo(subject(), () => this.load()),
      'ctrl+shift+z': () => this.decisions.redo(subject(), () => this.load()),
      s: () => this.answer('same'),
      d: () => this.answer('different'),
      l: () => this.later(),
      j: () => this.later(),
      k: () => this.at.update((at) => Math.max(0, at - 1)),
    });
    this.pairsStore.load(this.id);
  }

  private load() {
    this.pairsStore.load(this.id());
  }

  protected answer(kind: 'same' | 'different') {
    const pair = this.pair();
    if (!pair) return;
    this.decisions.decide(this.id(), { kind, a: pair.a.id, b: pair.b.id }, () => {
      this.pairsStore.change(({ total, pairs }) => ({ total, pairs: pairs.filter((known) => known !== pair) }));
      this.at.update((at) => Math.max(0, Math.min(at, (this.pairs()?.length ?? 1) - 1)));
    });
  }

  protected later() {
    this.at.update((at) => (at + 1) % Math.max(1, this.pairs()?.length ?? 1));
  }
}

/** Two equal initials are no equal names. */
function wordsOf({ a, b }: PairView, field: string, level: number): string {
  const isInitial = ({ person }: PairView['a']) => /^\p{L}\.?$/u.test(person.firstName);
  if (field === 'firstName' && level > 1 && (isInitial(a) || isInitial(b)))
    return isInitial(a) && isInitial(b) ? 'the same initial only' : 'its initial';
  return FIELD_LEVELS[field]?.[level] ?? LEVEL_WORDS[level]!;
}

const shown = (record: PairView['a'], field: string): string => record.person[field as PersonField] || '—';
