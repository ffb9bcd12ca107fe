import { A11yModule } from '@angular/cdk/a11y';
import {
  ChangeDetectionStrategy,
  Component,
  computed,
  effect,
  type ElementRef,
  inject,
  input,
  type OnInit,
  output,
  signal,
  viewChild,
  DestroyRef,
} from '@angular/core';
import { takeUntilDestroyed } from '@angular/core/rxjs-interop';
import { MatSlideToggleModule } from '@angular/material/slide-toggle';
import { CountPipe } from '../count';
import { Icon } from '../icon/icon';
import type { Apply, Clause, CountIf, HeldValue, SentenceField, ValuesOf } from './sentence-model';

/** One value of a sentence, or one more: typed anew, put in quotation marks, turned round, taken out. */
@Component({
  selector: 'cs-token-editor',
  changeDetection: ChangeDetectionStrategy.OnPush,
  imports: [A11yModule, MatSlideToggleModule, CountPipe, Icon],
  host: { role: 'dialog', '[attr.aria-label]': 'clause().name', '(keydown.escape)': 'closed.emit()' },
  template: `
    <div cdkTrapFocus>
      <div class="write">
        <input
          #box
          class="field"
          [attr.aria-label]="clause().name"
          [attr.list]="field()?.values ? 'token-values' : null"
          [value]="token()?.text ?? ''"
          [placeholder]="token() ? '' : 'or …'"
          (keydown.enter)="write(box.value)"
        />
        @if (field()?.values; as values) {
          <datalist id="token-values">
            @for (value of values; track value) {
              <option [value]="value"></option>
            }
          </datalist>
        }
        @if (token()) {
          <button type="button" class="out" aria-label="Take it out" title="Take it out" (click)="act('remove')">
            <cs-icon name="close" [size]="15" />
          </button>
        }
      </div>
      @if (wrong()) {
        <p class="bad" role="alert">{{ wrong() }}</p>
      } @else {
        <p class="hint">{{ hint() }}</p>
      }
      @if (token(); as one) {
        @if (one.exact !== null) {
          <div class="row">
            <mat-slide-toggle hideIcon [checked]="one.exact" (change)="act('exact')"
              >as an exact phrase</mat-slide-toggle
            >
          </div>
          @if (turned() !== null) {
            <p class="effect">
              {{ one.exact ? 'off' : 'on' }}:
              <span class="num"
                >{{ now() | count }} → <b>{{ turned()! | count }}</b></span
              >
            </p>
          }
        }
        @if (held().length > 0) {
          <div class="row held">
            <p class="hint">
              <span>{{ clause().many }} that hold it</span> <span>{{ clause().not ? 'kept out' : 'here' }}</span>
            </p>
            @for (one of held(); track one.value) {
              <button type="button" (click)="write(inMarks(one.value))">
                <span>{{ one.value }}</span>
                <i [style.width.px]="(one.count / held()[0]!.count) * 40"></i>
                <span class="num">{{ one.count | count }}</span>
              </button>
            }
          </div>
        }
        <div class="row">
          <mat-slide-toggle hideIcon [checked]="clause().not" (change)="act('turn')"
            >turned into “but not”</mat-slide-toggle
          >
        </div>
      }
    </div>
  `,
  styles: `
    :host {
      display: block;
      width: 262px;
      padding: 11px 12px 10px;
      border: 1px solid var(--line);
      border-radius: 9px;
      background: var(--paper);
      box-shadow: 0 6px 22px color-mix(in srgb, var(--ink) 20%, transparent);
    }
    .write {
      display: flex;
      gap: 6px;
    }
    input {
      flex: 1;
      min-width: 0;
      padding: 0 8px;
    }
    .out {
      border: 0;
      border-radius: 5px;
      background: none;
      cursor: pointer;
    }
    .out:hover {
      background: var(--sunk);
    }
    .hint {
      color: var(--ink-3);
      font-size: 11.5px;
      margin: 4px 0;
    }
    .bad {
      margin: 4px 0;
    }
    .row {
      padding: 5px 0;
      border-top: 1px solid var(--line-soft);
    }
    .held .hint {
      display: flex;
      justify-content: space-between;
      margin: 0 0 2px;
    }
    .held .hint span {
      display: inline-block;
    }
    .held .hint span:first-child::first-letter {
      text-transform: uppercase;
    }
    .held button {
      display: grid;
      grid-template-columns: 1fr 40px 44px;
      gap: 8px;
      align-items: center;
      width: 100%;
      padding: 3px 4px;
      border: 0;
      border-radius: 4px;
      background: none;
      text-align: left;
      cursor: pointer;
    }
    .held button:hover {
      background: var(--sunk);
    }
    .held button span:first-child {
      overflow: hidden;
      text-overflow: ellipsis;
      white-space: nowrap;
    }
    .held i {
      height: 5px;
      border-radius: 3px;
      background: var(--spruce);
      opacity: 0.5;
    }
    .held .num {
      text-align: right;
    }
    .effect {
      margin: 2px 0 7px;
      padding: 4px 9px;
      border-radius: 5px;
      background: var(--saffron-wash);
    }
  `,
})
export class TokenEditor implements OnInit {
  readonly clause = input.required<Clause>();
  readonly clauseAt = input.required<number>();
  /** Null: one more value. */
  readonly tokenAt = input.required<number | null>();
  readonly field = input<SentenceField>();
  readonly now = input<number | null>(null);
  readonly apply = input.required<Apply>();
  readonly countIf = input.required<CountIf>();
  readonly valuesOf = input.required<ValuesOf>();
  readonly closed = output();

  protected readonly wrong = signal('');
  /** How many there would be with quotation marks, or without them. */
  protected readonly turned = signal<number | null>(null);
  /** What its words let in, the most common first. */
  protected readonly held = signal<readonly HeldValue[]>([]);
  protected readonly inMarks = (value: string) => `"${value}"`;
  protected readonly token = computed(() =>
    this.tokenAt() === null ? null : (this.clause().tokens[this.tokenAt()!] ?? null),
  );
  protected readonly hint = computed(() => {
    const field = this.field();
    if (field?.hint) return field.hint;
    if (field?.kind === 'number') return 'A number, or a range: 1..10, 8.., ..-20';
    if (field?.kind === 'choice')
      return field.values ? `One of ${field.values.length} values` : 'A value; “or” between several';
    return 'Words in any order, “or” between several';
  });
  private readonly box = viewChild.required<ElementRef<HTMLInputElement>>('box');
  private readonly destroyed = inject(DestroyRef);

  constructor() {
    effect(() => {
      const box = this.box().nativeElement;
      box.focus();
      box.select();
    });
  }

  ngOnInit() {
    const token = this.token();
    if (!token || token.exact === null) return;
    this.countIf()({ kind: 'exact', clause: this.clauseAt(), token: this.tokenAt()! })
      .pipe(takeUntilDestroyed(this.destroyed))
      .subscribe((count) => this.turned.set(count));
    this.valuesOf()(this.clauseAt(), this.tokenAt()!)
      .pipe(takeUntilDestroyed(this.destroyed))
      .subscribe((held) => this.held.set(held));
  }

  protected write(text: string) {
    const [clause, token] = [this.clauseAt(), this.tokenAt()];
    if (text.trim() === '') return token === null ? this.closed.emit() : this.act('remove');
    this.wrong.set(
      this.apply()(token === null ? { kind: 'add', clause, text } : { kind: 'write', clause, token, text }),
    );
    if (!this.wrong()) this.closed.emit();
  }

  protected act(kind: 'exact' | 'turn' | 'remove') {
    this.apply()({ kind, clause: this.clauseAt(), token: this.tokenAt()! });
    this.closed.emit();
  }
}
