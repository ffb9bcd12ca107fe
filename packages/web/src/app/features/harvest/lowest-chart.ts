import { ChangeDetectionStrategy, Component, computed, input } from '@angular/core';
import { extent, max } from 'd3-array';
import { scaleLinear } from 'd3-scale';
import type { HarvestPageRow } from '@sieve/contract';
import { zeroNear } from '@sieve/core/harvest/stop-rules';

const WIDTH = 230;
const HEIGHT = 98;
const FLOOR = 74;

/** The lowest value of the watched column on each page, and where it will likely be at zero. */
@Component({
  selector: 'cs-lowest-chart',
  changeDetection: ChangeDetectionStrategy.OnPush,
  template: `
    <p>
      <b>Lowest {{ name() }} on each page</b><span>{{ now() }}</span>
    </p>
    <svg viewBox="0 0 ${WIDTH} ${HEIGHT}" role="img" [attr.aria-label]="label()">
      <line x1="0" x2="${WIDTH}" y1="${FLOOR}" y2="${FLOOR}" class="floor" />
      <path [attr.d]="drawn().path" class="came" />
      @if (drawn().zero; as zero) {
        <path [attr.d]="zero.path" class="to-come" />
        <circle [attr.cx]="zero.x" cy="${FLOOR}" r="3.4" class="zero" />
        <text [attr.x]="zero.textX" y="93" class="plum">{{ zero.words }}</text>
      }
      @if (drawn().last; as last) {
        <circle [attr.cx]="last.x" [attr.cy]="last.y" r="4" class="here" />
      }
      <text x="0" y="93">page 1</text>
      <text x="${WIDTH}" y="93" text-anchor="end">{{ pages() }}</text>
    </svg>
  `,
  styles: `
    p {
      display: flex;
    }
    p b {
      font-weight: 600;
    }
    p span {
      margin-left: auto;
      color: var(--ink-2);
    }
    svg {
      display: block;
      width: 100%;
    }
    .floor {
      stroke: var(--plum);
      stroke-dasharray: 3 2.5;
    }
    .came {
      fill: none;
      stroke: var(--spruce);
      stroke-width: 1.8;
    }
    .to-come {
      fill: none;
      stroke: var(--spruce);
      stroke-width: 1.3;
      stroke-dasharray: 2 3;
    }
    .here {
      fill: var(--saffron);
      stroke: var(--flour);
      stroke-width: 1.5;
    }
    .zero {
      fill: var(--flour);
      stroke: var(--plum);
      stroke-width: 1.6;
    }
    text {
      fill: var(--ink-2);
      font-size: 11px;
    }
    .plum {
      fill: var(--plum);
      text-anchor: middle;
    }
  `,
})
export class LowestChart {
  readonly name = input.required<string>();
  readonly visited = input.required<readonly HarvestPageRow[]>();
  /** The page that it goes to at most. */
  readonly pages = input.required<number>();

  private readonly points = computed(() =>
    this.visited().flatMap(({ number, lowest }) => (lowest === null ? [] : [{ number, lowest }])),
  );
  protected readonly now = computed(() => {
    const last = this.points().at(-1);
    return last ? `${last.lowest} now` : '';
  });
  protected readonly label = computed(() => `${this.name()}: ${this.now() || 'no figures yet'}`);
  protected readonly drawn = computed(() => {
    const points = this.points();
    const x = scaleLinear([1, Math.max(2, this.pages())], [4, WIDTH - 4]).clamp(true);
    const top = max(points, ({ lowest }) => lowest) ?? 1;
    const [bottom = 0] = extent(points, ({ lowest }) => lowest);
    const y = scaleLinear([Math.min(0, bottom), Math.max(1, top)], [FLOOR, 8]);
    const path = points.map(({ number, lowest }) => `${x(number)} ${y(lowest)}`).join('L');
    const last = points.at(-1);
    const near = zeroNear(this.visited().map(({ lowest }) => lowest));
    const at = near !== null && last && last.lowest > 0 ? x(near) : null;
    return {
      path: path && `M${path}`,
      last: last ? { x: x(last.number), y: y(last.lowest) } : null,
      zero:
        at !== null && last
          ? {
              path: `M${x(last.number)} ${y(last.lowest)}L${at} ${FLOOR}`,
              x: at,
              textX: Math.min(WIDTH - 75, Math.max(85, at)),
              words: near! > this.pages() ? `zero after page ${this.pages()}` : `zero near page ${near}`,
            }
          : null,
    };
  });
}
