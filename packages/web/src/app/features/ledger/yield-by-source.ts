import { ChangeDetectionStrategy, Component, computed, input } from '@angular/core';
import { sum } from 'd3-array';
import { scaleLinear } from 'd3-scale';
import { wilson } from '@sieve/core/forecast/wilson';
import type { HitRate } from '@sieve/contract';
import { CountPipe } from '../../ui/count';

const MOST = 6;
/** What rests on fewer is drawn as doubtful. Common practice, no source. */
const FEW = 30;
const percent = scaleLinear([0, 1], [0, 100]);

/** Of those who came by each source and were looked up, the share with a valid email, and where it may lie by chance. */
@Component({
  selector: 'cs-yield-by-source',
  changeDetection: ChangeDetectionStrategy.OnPush,
  imports: [CountPipe],
  template: `
    <div class="rows" [style.--mean]="mean() + '%'">
      @for (row of rows(); track $index) {
        <span class="name" [title]="row.name">{{ row.name }}</span>
        <span class="track" [class.few]="row.isFew" [title]="row.words">
          <i class="range" [style.left.%]="row.low" [style.width.%]="row.high - row.low"></i>
          <i class="dot" [style.left.%]="row.share"></i>
          <span class="visually-hidden">{{ row.words }}</span>
        </span>
        <span class="num"
          ><b>{{ row.valid | count }}</b> of {{ row.asked | count }}</span
        >
      }
      @if (rows().length > 0) {
        <span></span>
        <span class="axis" aria-hidden="true"
          ><span>0 %</span><span>25 %</span><span>50 %</span><span>75 %</span><span>100 %</span></span
        >
        <span></span>
      }
    </div>
    @if (rows().length === 0) {
      <p>Nobody of this job was looked up yet.</p>
    }
  `,
  styles: `
    .rows {
      display: grid;
      grid-template-columns: minmax(70px, 34%) 1fr max-content;
      gap: 0 12px;
      align-items: center;
      font-size: 12px;
    }
    p {
      margin: 0;
      color: var(--ink-2);
    }
    .name {
      overflow: hidden;
      text-align: right;
      text-overflow: ellipsis;
      white-space: nowrap;
    }
    .track {
      position: relative;
      height: 22px;
      background:
        linear-gradient(var(--ink-3), var(--ink-3)) var(--mean) 0 / 1px 100% no-repeat,
        repeating-linear-gradient(to right, var(--line) 0 1px, transparent 1px 25%);
      border-right: 1px solid var(--line);
    }
    .range {
      position: absolute;
      top: 7px;
      height: 8px;
      border: solid var(--spruce);
      border-width: 0 2px;
      background: linear-gradient(var(--spruce), var(--spruce)) center / 100% 2px no-repeat;
    }
    .few .range {
      background: repeating-linear-gradient(to right, var(--spruce) 0 3px, transparent 3px 6px) center / 100% 2px
        no-repeat;
    }
    .dot {
      position: absolute;
      top: 6px;
      width: 10px;
      height: 10px;
      margin-left: -5px;
      border: 2px solid var(--spruce);
      border-radius: 50%;
      background: var(--spruce);
    }
    .few .dot {
      background: var(--paper);
    }
    .axis {
      display: flex;
      justify-content: space-between;
      margin: 3px -14px 0 -8px;
      color: var(--ink-2);
      font-size: 11px;
    }
  `,
})
export class YieldBySource {
  readonly rates = input.required<readonly HitRate[]>();
  private readonly asked = computed(() => this.rates().filter(({ asked }) => asked > 0));
  /** The share over all sources, in percent. */
  protected readonly mean = computed(() =>
    percent(
      sum(this.asked(), ({ valid }) => valid) /
        Math.max(
          1,
          sum(this.asked(), ({ asked }) => asked),
        ),
    ),
  );
  /** Those that brought most, the best first. */
  protected readonly rows = computed(() =>
    [...this.asked()]
      .sort((a, b) => b.asked - a.asked)
      .slice(0, MOST)
      .map(({ name, valid, asked }) => {
        const { low, high } = wilson(valid, asked);
        const [share, from, to] = [valid / asked, low, high].map(percent) as [number, number, number];
        const words = `${Math.round(share)} %, ${Math.round(from)} to ${Math.round(to)} % by chance`;
        return { name, valid, asked, share, low: from, high: to, isFew: asked < FEW, words };
      })
      .sort((a, b) => b.share - a.share),
  );
}
