import { ChangeDetectionStrategy, Component, computed, input, output } from '@angular/core';
import { describeCondition } from '@sieve/core/search/describe';
import { SEARCH_FIELDS } from '@sieve/core/model/search';
import type { SplitPart, SplitView } from '@sieve/contract';
import { hierarchy, partition } from 'd3-hierarchy';

const WIDTH = 620;
const ROW = 46;
const FILLS = ['var(--level-1)', 'var(--level-2)', 'var(--level-3)', 'var(--level-4)'];

/** A split drawn from the whole down to its batches, each as wide as it is large; what is over the cap is hatched. */
@Component({
  selector: 'cs-icicle',
  changeDetection: ChangeDetectionStrategy.OnPush,
  template: `
    <svg [attr.viewBox]="'0 0 ${WIDTH} ' + height()" role="img" [attr.aria-label]="label()">
      <defs>
        <pattern id="over-cap" width="6" height="6" patternUnits="userSpaceOnUse" patternTransform="rotate(45)">
          <rect width="6" height="6" fill="var(--plum-wash)" />
          <line x1="0" y1="0" x2="0" y2="6" stroke="var(--plum)" stroke-width="2" />
        </pattern>
      </defs>
      @for (cell of cells(); track $index) {
        <g
          [class.on]="cell.batch !== null && cell.batch === chosen()"
          (click)="cell.batch !== null && picked.emit(cell.batch)"
        >
          <title>{{ cell.title }}</title>
          <rect
            [attr.x]="cell.x"
            [attr.y]="cell.y"
            [attr.width]="cell.width"
            height="${ROW - 4}"
            rx="4"
            [attr.fill]="cell.fill"
          />
          @if (cell.width > 46) {
            <text [attr.x]="cell.x + 8" [attr.y]="cell.y + 17" class="t">{{ cell.name }}</text>
            <text [attr.x]="cell.x + 8" [attr.y]="cell.y + 33" class="n">{{ cell.count }}</text>
          }
        </g>
      }
    </svg>
    <p>
      @for (row of rows(); track row) {
        <span>{{ row }}</span>
      }
      <span class="end">Used only to split: they never narrow the search</span>
    </p>
  `,
  styles: `
    :host {
      --level-1: light-dark(#e3d7b4, #4d472f);
      --level-2: light-dark(#d9d3ae, #434a30);
      --level-3: light-dark(#bfcba9, #38503a);
      --level-4: light-dark(#9dbb9f, #2e574a);
      display: block;
    }
    svg {
      display: block;
      width: 100%;
    }
    .t {
      font: 600 12px var(--ui);
      fill: var(--ink);
    }
    .n {
      font-size: 11.5px;
      font-variant-numeric: tabular-nums;
      fill: var(--ink-2);
    }
    g.on rect {
      stroke: var(--saffron);
      stroke-width: 2;
    }
    p {
      display: flex;
      flex-wrap: wrap;
      gap: 4px 18px;
      margin-top: 8px;
      color: var(--ink-3);
      font-size: 11.5px;
    }
    .end {
      margin-left: auto;
    }
  `,
})
export class Icicle {
  readonly split = input.required<SplitView>();
  readonly cap = input.required<number>();
  readonly chosen = input<number | null>(null);
  readonly picked = output<number>();

  private readonly root = computed(() => {
    const root = hierarchy<SplitPart>(this.split().top, ({ parts }) => parts).sum((part) =>
      part.parts.length === 0 ? Math.max(part.count, 1) : 0,
    );
    return partition<SplitPart>().size([WIDTH, 1])(root);
  });
  protected readonly height = computed(() => (this.root().height + 1) * ROW - 4);
  protected readonly cells = computed(() =>
    this.root()
      .descendants()
      .map((node) => {
        const { by, count, batch } = node.data;
        const width = Math.max(1, node.x1 - node.x0 - 2);
        const name = by?.not ? 'every other' : by ? describeCondition(by, 2).replace(/^[^:]+: /, '') : 'All matches';
        const room = Math.floor((width - 12) / 6.4);
        return {
          x: node.x0,
          y: node.depth * ROW,
          width,
          batch,
          name: name.length > room ? `${name.slice(0, Math.max(1, room - 1))}…` : name,
          count: count.toLocaleString('en-GB'),
          title: `${by ? describeCondition(by, 8) : name}: ${count.toLocaleString('en-GB')}`,
          fill: batch !== null && count > this.cap() ? 'url(#over-cap)' : FILLS[Math.min(node.depth, 3)],
        };
      }),
  );
  protected readonly rows = computed(() => {
    const out: string[] = [];
    for (const node of this.root().descendants()) {
      const field = SEARCH_FIELDS.find(({ key }) => key === node.data.by?.field);
      const words = field && `Row ${node.depth + 1} splits by ${field.label.toLowerCase()}`;
      if (words && !out.includes(words)) out.push(words);
    }
    return out.slice(0, 4);
  });
  protected readonly label = computed(
    () => `${this.split().count} matches in ${this.root().leaves().length} batches, as in the list below`,
  );
}
