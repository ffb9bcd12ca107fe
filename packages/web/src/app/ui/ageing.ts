import { ChangeDetectionStrategy, Component, computed, input } from '@angular/core';

const DAY_MS = 86_400_000;

/** How old a fact is, of the days that it is fresh: a bar that fills, saffron in its last quarter. */
@Component({
  selector: 'cs-ageing',
  changeDetection: ChangeDetectionStrategy.OnPush,
  template: `
    <span class="bar" aria-hidden="true"><i [class.old]="share() > 0.75" [style.width.%]="share() * 100"></i></span>
    <span class="num"
      >day <b>{{ day() }}</b> of {{ days() }}</span
    >
  `,
  styles: `
    :host {
      display: flex;
      align-items: center;
      gap: 9px;
      color: var(--ink-2);
      font-size: 11.5px;
    }
    .bar {
      width: 150px;
      height: 5px;
      border-right: 2px solid var(--ink-3);
      background: var(--sunk);
    }
    i {
      display: block;
      height: 100%;
      background: var(--spruce);
    }
    i.old {
      background: var(--saffron);
    }
  `,
})
export class Ageing {
  /** ms since 1970. */
  readonly from = input.required<number>();
  readonly until = input.required<number>();
  readonly now = input(Date.now());
  protected readonly days = computed(() => Math.round((this.until() - this.from()) / DAY_MS));
  protected readonly day = computed(() => Math.max(0, Math.floor((this.now() - this.from()) / DAY_MS)));
  protected readonly share = computed(() =>
    Math.min(1, Math.max(0, (this.now() - this.from()) / (this.until() - this.from()))),
  );
}
