import { NgTemplateOutlet } from '@angular/common';
import { OverlayModule, type ConnectedPosition } from '@angular/cdk/overlay';
import {
  afterNextRender,
  ApplicationRef,
  ChangeDetectionStrategy,
  Component,
  computed,
  DestroyRef,
  ElementRef,
  inject,
  Injector,
  input,
  linkedSignal,
  signal,
  viewChild,
} from '@angular/core';
import { MatAutocompleteModule, MatAutocompleteTrigger } from '@angular/material/autocomplete';
import type { MatOption } from '@angular/material/core';
import { of } from 'rxjs';
import { CountPipe } from '../count';
import {
  folded,
  proposals,
  type Apply,
  type Clause,
  type CountIf,
  type Proposal,
  type SentenceField,
  type ValuesOf,
} from './sentence-model';
import { TokenEditor } from './token-editor';

const MOST_LINES = 5;
/** Of this face at its size, about; it decides only when values are folded. */
const CHARACTER_PX = 9.6;

/**
 * What is asked for, as a sentence that is edited in place: values are buttons, one of them opens to be changed, and at the
 * end one goes on typing. Arrow keys move along it, Delete takes a value out.
 */
@Component({
  selector: 'cs-sentence',
  changeDetection: ChangeDetectionStrategy.OnPush,
  imports: [NgTemplateOutlet, OverlayModule, MatAutocompleteModule, CountPipe, TokenEditor],
  templateUrl: './sentence.html',
  styleUrl: './sentence.scss',
  host: { role: 'group', '[attr.aria-label]': 'label()', '(keydown)': 'walk($event)' },
})
export class Sentence {
  readonly label = input.required<string>();
  /** What it is about: the first word. */
  readonly subject = input.required<string>();
  readonly clauses = input.required<readonly Clause[]>();
  readonly fields = input.required<readonly SentenceField[]>();
  readonly count = input<number | null>(null);
  readonly apply = input.required<Apply>();
  readonly countIf = input.required<CountIf>();
  readonly valuesOf = input<ValuesOf>(() => of([]));

  /** The value that is edited, or one more (null), and the button that it hangs on. */
  protected readonly open = signal<{ clause: number; token: number | null; origin: HTMLElement } | null>(null);
  protected readonly below: ConnectedPosition[] = [
    { originX: 'start', originY: 'bottom', overlayX: 'start', overlayY: 'top', offsetY: 6 },
    { originX: 'end', originY: 'bottom', overlayX: 'end', overlayY: 'top', offsetY: 6 },
  ];
  protected readonly typed = signal('');
  protected readonly wrong = signal('');
  private readonly touched = linkedSignal<number, ReadonlySet<number>>({
    source: () => this.clauses().length,
    computation: () => new Set<number>(),
  });
  private readonly width = signal(900);
  protected readonly folds = computed(() =>
    folded(this.clauses(), (this.width() / CHARACTER_PX) * MOST_LINES, this.touched()),
  );
  /** The field that words are about when none is named: that of the last text clause, or the first there is. */
  private readonly usual = computed(() => {
    const texts = new Set(this.fields().flatMap(({ key, kind }) => (kind === 'text' ? [key] : [])));
    return this.clauses().findLast(({ field }) => texts.has(field))?.field ?? [...texts][0] ?? '';
  });
  protected readonly proposals = computed(() => proposals(this.typed(), this.fields(), this.usual()));
  protected readonly unused = computed(() => {
    const used = new Set(this.clauses().map(({ field }) => field));
    const left = this.fields().filter(({ key }) => !used.has(key));
    return left
      .slice(0, 5)
      .map(({ label }) => label.toLowerCase())
      .join(', ');
  });

  private readonly caret = viewChild.required<ElementRef<HTMLInputElement>>('caret');
  private readonly trigger = viewChild.required(MatAutocompleteTrigger);
  private readonly host = inject<ElementRef<HTMLElement>>(ElementRef).nativeElement;
  private readonly injector = inject(Injector);
  private readonly app = inject(ApplicationRef);

  constructor() {
    // Before the list of proposals hears of a key.
    this.host.addEventListener('keydown', (event) => this.catchUp(event), { capture: true });
    if (typeof ResizeObserver === 'undefined') return;
    const observer = new ResizeObserver(([entry]) => this.width.set(entry!.contentRect.width));
    observer.observe(this.host);
    inject(DestroyRef).onDestroy(() => observer.disconnect());
  }

  /** What stands in the field while a proposal is taken. */
  protected shown = (one: Proposal | string | null): string => (typeof one === 'object' ? (one?.text ?? '') : one);
  protected fieldOf = ({ field }: Clause) => this.fields().find(({ key }) => key === field);

  protected unfold(clause: number) {
    this.touched.update((touched) => new Set([...touched, clause]));
    this.focusOn(`[data-at="${clause} 0"]`);
  }

  protected close({ clause, token }: { clause: number; token: number | null }) {
    this.open.set(null);
    this.focusOn(`[data-at="${clause} ${token ?? 'more'}"], .caret`);
  }

  protected propose({ text, goesOn }: Proposal) {
    if (!goesOn) return this.say(text);
    this.typed.set(text);
    this.caret().nativeElement.value = text;
    // Its values are proposed once the list of fields has gone.
    afterNextRender(() => this.trigger().openPanel(), { injector: this.injector });
  }

  /** What was typed behind the sentence. */
  protected say(text: string) {
    if (text.trim() === '') return;
    this.wrong.set(this.apply()({ kind: 'type', text }));
    this.typed.set(this.wrong() ? text : '');
    this.caret().nativeElement.value = this.typed();
  }

  protected onEnter(event: Event, text: string) {
    if (event.defaultPrevented) return;
    this.trigger().closePanel();
    this.say(text);
  }

  /** A whole search, or several conditions, are pasted as text. */
  protected onPaste(event: ClipboardEvent) {
    const text = event.clipboardData?.getData('text/plain') ?? '';
    if (this.typed() !== '' || !text.includes(':')) return;
    event.preventDefault();
    this.say(text.replace(/\s+/g, ' '));
  }

  /** Keys come faster than frames: they are about what was said and typed, not about what is still drawn. */
  private catchUp(event: KeyboardEvent) {
    this.app.tick();
    const active = (this.trigger().activeOption as MatOption<Proposal> | null)?.value;
    if (event.key !== 'Enter' || event.target !== this.caret().nativeElement) return;
    if (!this.trigger().panelOpen || !active || this.proposals().includes(active)) return;
    event.preventDefault();
    this.trigger().closePanel();
    const [first] = this.proposals();
    if (first) this.propose(first);
    else this.say(this.typed());
  }

  protected walk(event: KeyboardEvent) {
    const target = event.target as HTMLElement;
    const stops = [...this.host.querySelectorAll<HTMLElement>('.token, .more, .caret')];
    const at = stops.indexOf(target);
    if (at < 0) return;
    const atCaret = target === this.caret().nativeElement;
    if (atCaret && (this.typed() !== '' || !['ArrowLeft', 'Backspace', 'Home'].includes(event.key))) return;
    const step = { ArrowLeft: -1, Backspace: -1, ArrowRight: 1, Home: -at, End: stops.length - 1 - at }[event.key];
    const position = target.dataset['at']?.split(' ').map(Number);
    if (!atCaret && (event.key === 'Delete' || event.key === 'Backspace')) {
      if (position && !Number.isNaN(position[1]!)) {
        this.apply()({ kind: 'remove', clause: position[0]!, token: position[1]! });
        this.focusOn(`[data-at="${position.join(' ')}"], .caret`);
      }
    } else if (step !== undefined) stops[at + step]?.focus();
    else return;
    event.preventDefault();
  }

  private focusOn(selector: string) {
    afterNextRender(() => this.host.querySelector<HTMLElement>(selector)?.focus(), { injector: this.injector });
  }
}
