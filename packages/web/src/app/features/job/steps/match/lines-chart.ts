import { ChangeDetectionStrategy, Component, computed, input, output } from '@angular/core';
import { chanceAt, LEAST_LINE, LINE_STEP, logit, type LinePoint } from '@sieve/core/match/error-curve';
import { bisector, max } from 'd3-array';
import { scaleLinear, scalePow } from 'd3-scale';

const WIDTH = 860;
const HEIGHT = 150;
const TOP = 16;
const FLOOR = 124;
const SIDE = 14;
const MERGE = { least: LEAST_LINE, most: 0.999 };
const JUDGE = { least: 0.01, most: 0.999 };
const TICKS = [0.01, 0.02, 0.05, 0.1, 0.2, 0.3, 0.5, 0.7, 0.8, 0.9, 0.95, 0.98, 0.99, 0.999];

/** Most chances stand near 1, so they are drawn by log-odds. */
const x = scaleLinear([logit(JUDGE.least), logit(0.9991)], [SIDE, WIDTH - SIDE]).clamp(true);
const xOf = (chance: number) => x(logit(Math.min(0.9999, Math.max(0.0001, chance))));

/** What a line between two that were counted would merge. */
function at(points: readonly LinePoint[], line: number): LinePoint {
  const i = bisector(({ line }: LinePoint) => line).left(points, line);
  const [below, above] = [points[i - 1], points[i]];
  if (!below || !above) return { ...(above ?? { pairs: 0, wrong: 0 }), line };
  const share = (logit(line) - logit(below.line)) / (logit(above.line) - logit(below.line));
  const between = (a: number, b: number) => a + (b - a) * share;
  return { line, pairs: Math.round(between(below.pairs, above.pairs)), wrong: between(below.wrong, above.wrong) };
}

/** The lowest line over which at most a share of the merges is wrong; 1 where there is none. */
export const lineFor = (points: readonly LinePoint[], share: number): number =>
  points.find(({ line, pairs, wrong }) => line >= MERGE.least && wrong <= share * pairs)?.line ?? 1;

const errorOf = ({ pairs, wrong }: LinePoint) => (pairs === 0 ? 0 : wrong / pairs);

/** The lines of merging and judging over the pairs that they would take and the error they imply; both can be dragged. */
@Component({
  selector: 'cs-lines-chart',
  changeDetection: ChangeDetectionStrategy.OnPush,
  template: `
    <svg #svg viewBox="0 0 ${WIDTH} ${HEIGHT}">
      <g aria-hidden="true">
        <path [attr.d]="drawn().pairs" class="pairs" />
        <path [attr.d]="drawn().error" class="error" />
        <line x1="${SIDE}" x2="${WIDTH - SIDE}" y1="${FLOOR}" y2="${FLOOR}" class="floor" />
        @for (tick of ticks; track tick.words) {
          <text [attr.x]="tick.x" y="${FLOOR + 15}" text-anchor="middle">{{ tick.words }}</text>
        }
        <text x="${SIDE}" y="10">pairs at least so likely, and of 1,000 the wrong ones</text>
      </g>
      @for (handle of handles(); track handle.id) {
        <g
          class="handle"
          role="slider"
          tabindex="0"
          [class.judge]="handle.id === 'judge'"
          [attr.aria-label]="handle.label"
          [attr.aria-valuemin]="handle.least"
          [attr.aria-valuemax]="handle.most"
          [attr.aria-valuenow]="handle.value"
          [attr.transform]="'translate(' + handle.x + ' 0)'"
          (pointerdown)="grab($event)"
          (pointermove)="drag($event, handle.id, svg)"
          (keydown)="step($event, handle.id)"
        >
          <rect x="-9" y="${TOP}" width="18" height="${FLOOR - TOP}" class="catch" />
          <line y1="${TOP}" y2="${FLOOR}" />
          <rect x="-5" y="${(TOP + FLOOR) / 2 - 12}" width="10" height="24" rx="3" class="grip" />
        </g>
      }
    </svg>
    <p role="status">{{ words() }}</p>
  `,
  styles: `
    :host {
      display: block;
    }
    svg {
      display: block;
      width: 100%;
      touch-action: none;
    }
    text {
      fill: var(--ink-2);
      font-size: 11px;
    }
    .pairs {
      fill: var(--spruce-wash);
    }
    .error {
      fill: none;
      stroke: var(--plum);
      stroke-width: 1.8;
    }
    .floor {
      stroke: var(--line);
    }
    .handle {
      cursor: ew-resize;
      outline: none;
    }
    .catch {
      fill: transparent;
    }
    .handle line {
      stroke: var(--spruce);
      stroke-width: 2;
    }
    .grip {
      fill: var(--spruce);
    }
    .judge line {
      stroke: var(--saffron);
      stroke-dasharray: 4 3;
    }
    .judge .grip {
      fill: var(--saffron);
    }
    .handle:focus-visible .grip {
      stroke: var(--ink);
      stroke-width: 2;
    }
    p {
      margin: 4px 0 8px;
      color: var(--ink-2);
    }
  `,
})
export class LinesChart {
  readonly points = input.required<readonly LinePoint[]>();
  readonly mergeFrom = input.required<number>();
  readonly judgeFrom = input.required<number>();
  /** A line was moved: the chance from which pairs are merged, or judged. */
  readonly merge = output<number>();
  readonly judge = output<number>();

  protected readonly ticks = TICKS.map((tick) => ({ x: xOf(tick), words: String(tick) }));
  protected readonly drawn = computed(() => {
    const points = this.points();
    const high = scaleLinear([0, max(points, ({ pairs }) => pairs) ?? 1], [FLOOR, TOP + 6]);
    // Most errors are small; the root shows them apart.
    const error = scalePow([0, max(points, errorOf) || 1], [FLOOR, TOP + 6]).exponent(0.5);
    const line = (y: (point: LinePoint) => number) => points.map((point) => `${xOf(point.line)} ${y(point)}`).join('L');
    const [first, last] = [points[0]!, points.at(-1)!];
    return {
      pairs: `M${xOf(first.line)} ${FLOOR}L${line(({ pairs }) => high(pairs))}L${xOf(last.line)} ${FLOOR}Z`,
      error: `M${line((point) => error(errorOf(point)))}`,
    };
  });
  protected readonly handles = computed(() => [
    { id: 'judge' as const, label: 'Judge from', value: this.judgeFrom(), x: xOf(this.judgeFrom()), ...JUDGE },
    { id: 'merge' as const, label: 'Merge from', value: this.mergeFrom(), x: xOf(this.mergeFrom()), ...MERGE },
  ]);
  protected readonly words = computed(() => {
    const merged = at(this.points(), this.mergeFrom());
    const known = this.points()[0]!.line;
    const judged = at(this.points(), Math.max(known, Math.min(this.judgeFrom(), this.mergeFrom())));
    const [pairs, same] = [judged.pairs - merged.pairs, judged.pairs - judged.wrong - (merged.pairs - merged.wrong)];
    const n = (count: number) => Math.round(count).toLocaleString('en-GB');
    const below = this.judgeFrom() < known - 0.005 ? `; how many below ${shown(known)} is known once it is used` : '';
    return (
      `From ${shown(this.mergeFrom())}: ${n(merged.pairs)} pairs are merged, about ${(errorOf(merged) * 1000).toFixed(1)} in 1,000 wrongly. ` +
      `Between the lines about ${n(pairs)} to judge, ${n(same)} of them the same person${below}.`
    );
  });

  protected grab(event: PointerEvent) {
    (event.currentTarget as Element).setPointerCapture(event.pointerId);
  }

  protected drag(event: PointerEvent, id: 'merge' | 'judge', svg: Element) {
    if (!(event.currentTarget as Element).hasPointerCapture(event.pointerId)) return;
    const box = svg.getBoundingClientRect();
    this.move(id, x.invert(((event.clientX - box.left) / box.width) * WIDTH));
  }

  protected step(event: KeyboardEvent, id: 'merge' | 'judge') {
    const by = { ArrowLeft: -1, ArrowDown: -1, ArrowRight: 1, ArrowUp: 1, PageDown: -6, PageUp: 6 }[event.key];
    if (by === undefined) return;
    event.preventDefault();
    this.move(id, logit(Math.min(0.9999, id === 'merge' ? this.mergeFrom() : this.judgeFrom())) + by * LINE_STEP);
  }

  private move(id: 'merge' | 'judge', odds: number) {
    const { least, most } = id === 'merge' ? MERGE : JUDGE;
    const chance = Math.min(most, Math.max(least, chanceAt(odds)));
    this[id].emit(Number(chance.toFixed(chance > 0.95 ? 3 : 2)));
  }
}

const shown = (chance: number) => chance.toFixed(chance > 0.95 ? 3 : 2);
