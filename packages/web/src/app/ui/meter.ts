import { ChangeDetectionStrategy, Component, computed, input } from '@angular/core';

/** How far something is: reached, likely to be reached (hatched), and the whole. */
@Component({
  selector: 'cs-meter',
  changeDetection: ChangeDetectionStrategy.OnPush,
  host: {
    role: 'meter',
    '[attr.aria-valuenow]': 'value()',
    'aria-valuemin': '0',
    '[attr.aria-valuemax]': 'whole()',
    '[attr.aria-label]': 'label()',
  },
  template: `<i class="likely" [style.width.%]="likelyShare()"></i><i [style.width.%]="share()"></i>`,
  styles: `
    :host {
      position: relative;
      display: block;
      height: 7px;
      border-radius: 4px;
      overflow: hidden;
      background: var(--sunk);
    }
    i {
      position: absolute;
      inset: 0 auto 0 0;
      background: var(--spruce);
      transition: width 0.3s;
    }
    .likely {
      background: repeating-linear-gradient(
        115deg,
        color-mix(in srgb, var(--spruce) 45%, var(--paper)) 0 3px,
        color-mix(in srgb, var(--spruce) 15%, var(--paper)) 3px 6px
      );
    }
  `,
})
export class Meter {
  readonly value = input.required<number>();
  readonly whole = input.required<number>();
  readonly likely = input(0);
  readonly label = input('');
  protected readonly share = computed(() => percent(this.value(), this.whole()));
  protected readonly likelyShare = computed(() => percent(this.likely(), this.whole()));
}

const percent = (part: number, whole: number) => (whole > 0 ? Math.min(100, (part / whole) * 100) : 0);
