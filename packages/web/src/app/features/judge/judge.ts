import {
  ChangeDetectionStrategy,
  Component,
  computed,
  effect,
  inject,
  input,
  numberAttribute,
  signal,
} from '@angular/core';
import { MatButtonModule } from '@angular/material/button';
import { RouterLink } from '@angular/router';
import type { PersonField } from '@sieve/core';
import { FIELD_WORDS, type PairView } from '@sieve/contract';
import { Store } from '@ngrx/store';
import { Api, wordsOf } from '../../api/api';
import { Decisions } from '../../state/decisions';
import { work } from '../../state/work';
import { Icon } from '../../ui/icon/icon';
import { Notices } from '../../ui/notices';

const LEVEL_WORDS = ['one side is empty', 'different', 'near', 'nearly the same', 'the same'];

/** Two records, what speaks for and against, one key for each answer. */
@Component({
  selector: 'cs-judge',
  changeDetection: ChangeDetectionStrategy.OnPush,
  imports: [RouterLink, MatButtonModule, Icon],
  host: { '(document:keydown)': 'onKey($event)' },
  templateUrl: './judge.html',
  styleUrl: './judge.scss',
})
export class Judge {
  private readonly api = inject(Api);
  private readonly decisions = inject(Decisions);
  private readonly notices = inject(Notices);
  private readonly entities = inject(Store).selectSignal(work.selectJobEntities);
  readonly id = input.required<number, unknown>({ transform: numberAttribute });
  protected readonly job = computed(() => this.entities()[this.id()]);
  protected readonly pairs = signal<PairView[] | null>(null);
  protected readonly at = signal(0);
  protected readonly pair = computed(() => this.pairs()?.[this.at()]);

  protected readonly lines = computed(() => {
    const pair = this.pair();
    if (!pair) return [];
    return pair.evidence.map(({ field, level, bits }) => ({
      field: FIELD_WORDS[field as PersonField],
      a: valueOf(pair.a, field),
      b: valueOf(pair.b, field),
      words: LEVEL_WORDS[level]!,
      share: Math.min(1, Math.abs(bits) / 12) * 50,
      against: bits < 0,
    }));
  });

  constructor() {
    effect(() => this.load());
  }

  private load() {
    this.api.pairs(this.id()).subscribe({
      next: ({ pairs }) => this.pairs.set(pairs),
      error: (error: unknown) => {
        this.pairs.set([]);
        this.notices.bad(wordsOf(error));
      },
    });
  }

  protected answer(kind: 'same' | 'different') {
    const pair = this.pair();
    if (!pair) return;
    this.decisions.decide(this.id(), { kind, a: pair.a.id, b: pair.b.id }, () => {
      this.pairs.update((pairs) => pairs?.filter((known) => known !== pair) ?? null);
      this.at.update((at) => Math.max(0, Math.min(at, (this.pairs()?.length ?? 1) - 1)));
    });
  }

  protected later() {
    this.at.update((at) => (at + 1) % Math.max(1, this.pairs()?.length ?? 1));
  }

  protected onKey(event: KeyboardEvent) {
    if (/^(INPUT|TEXTAREA)$/.test((event.target as HTMLElement).tagName)) return;
    const key = event.key.toLowerCase();
    if ((event.ctrlKey || event.metaKey) && key === 'z') {
      const subject = { subject: 'job', subjectId: this.id() } as const;
      if (event.shiftKey) this.decisions.redo(subject, () => this.load());
      else this.decisions.undo(subject, () => this.load());
    } else if (event.ctrlKey || event.metaKey) return;
    else if (key === 's') this.answer('same');
    else if (key === 'd') this.answer('different');
    else if (key === 'l' || key === 'j') this.later();
    else if (key === 'k') this.at.update((at) => Math.max(0, at - 1));
    else return;
    event.preventDefault();
  }
}

const valueOf = (record: PairView['a'], field: string): string => record.person[field as PersonField] || '—';
