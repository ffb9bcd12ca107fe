import {
  ChangeDetectionStrategy,
  Component,
  type ElementRef,
  inject,
  input,
  linkedSignal,
  signal,
  viewChild,
} from '@angular/core';
import { Router } from '@angular/router';
import { Shortcuts } from './shortcuts/shortcuts';

/** Filters the list of a screen by words; `/` goes to it. What is typed stands in the address, as `q`. */
@Component({
  selector: 'cs-filter-box',
  changeDetection: ChangeDetectionStrategy.OnPush,
  template: `
    <input
      #box
      class="field"
      type="search"
      placeholder="Filter  /"
      [attr.aria-label]="label()"
      [value]="text()"
      (input)="say(box.value)"
      (keydown.escape)="box.blur()"
    />
  `,
  styles: `
    input {
      width: var(--filter-width, 190px);
      padding: 0 8px;
    }
  `,
})
export class FilterBox {
  private readonly router = inject(Router);
  readonly label = input.required<string>();
  readonly q = input<string>();
  /** How many of its own changes of the address are under way. */
  private readonly underWay = signal(0);
  /** What stands in the box: the address comes behind what is typed, and is not to overwrite it. */
  protected readonly text = linkedSignal<{ q: string; behind: boolean }, string>({
    source: () => ({ q: this.q() ?? '', behind: this.underWay() > 0 }),
    computation: ({ q, behind }, before) => (behind && before ? before.value : q),
  });
  private readonly box = viewChild.required<ElementRef<HTMLInputElement>>('box');

  constructor() {
    inject(Shortcuts).use({ '/': () => this.box().nativeElement.focus() });
  }

  protected say(text: string) {
    this.text.set(text);
    this.underWay.update((n) => n + 1);
    void this.router
      .navigate([], { queryParams: { q: text || null }, queryParamsHandling: 'merge', replaceUrl: true })
      .finally(() => this.underWay.update((n) => n - 1));
  }
}

/** Whether all words of a filter stand somewhere in these texts. */
export function holds(q: string | undefined, ...texts: (string | null | undefined)[]): boolean {
  const all = texts.join(' ').toLowerCase();
  return (q ?? '')
    .toLowerCase()
    .split(/\s+/)
    .every((word) => all.includes(word));
}
