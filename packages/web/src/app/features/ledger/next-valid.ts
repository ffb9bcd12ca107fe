import { ChangeDetectionStrategy, Component, computed, inject, input } from '@angular/core';
import { max, sum } from 'd3-array';
import { scaleLinear } from 'd3-scale';
import { paidFor } from '@sieve/core/forecast/next-valid';
import type { NextValid } from '@sieve/contract';
import { MoneyPipe } from '../../ui/money';

const WIDTH = 520;
const HEIGHT = 168;
const LEFT = 44;
const RIGHT = 12;
const TOP = 20;
const FLOOR = 146;
/** About what a letter takes. Levels too narrow for their words say them when the pointer is on them. */
const LETTER = 6;

/** Valid emails one after the other and what each cost or likely costs: those of the job, those that looking up who waits brings, those that must be brought in. */
@Component({
  selector: 'cs-next-valid',
  changeDetection: ChangeDetectionStrategy.OnPush,
  providers: [MoneyPipe],
  template: `
    <svg viewBox="0 0 ${WIDTH} ${HEIGHT}" role="img" [attr.aria-label]="drawn().label">
      <defs>
        <pattern id="likely" width="6" height="6" patternUnits="userSpaceOnUse" patternTransform="rotate(35)">
          <rect width="6" height="6" />
          <line y2="6" />
        </pattern>
      </defs>
      @for (tick of drawn().ticks; track tick.words) {
        <line x1="${LEFT}" x2="${WIDTH - RIGHT}" [attr.y1]="tick.y" [attr.y2]="tick.y" class="tick" />
        <text x="${LEFT - 8}" [attr.y]="tick.y + 4" text-anchor="end">{{ tick.words }}</text>
      }
      @for (count of drawn().counts; track count.words) {
        <text [attr.x]="count.x" y="${HEIGHT - 6}" text-anchor="middle">{{ count.words }}</text>
      }
      @for (level of drawn().levels; track level.from) {
        <g [class]="level.kind">
          <rect [attr.x]="level.x" [attr.y]="level.y" [attr.width]="level.width" [attr.height]="level.height">
            <title>{{ level.words }}</title>
          </rect>
          <line [attr.x1]="level.x" [attr.x2]="level.x + level.width" [attr.y1]="level.y" [attr.y2]="level.y" />
          @if (level.isWide) {
            <text [attr.x]="level.x + level.width / 2" [attr.y]="level.y - 6" text-anchor="middle">
              {{ level.short }}
            </text>
          }
        </g>
      }
      @for (mark of drawn().marks; track mark.kind) {
        <g [class]="mark.kind">
          <line [attr.x1]="mark.x" [attr.x2]="mark.x" y1="${TOP - 6}" y2="${FLOOR}" />
          <text
            [attr.x]="mark.x + (mark.isLate ? -5 : 5)"
            [attr.y]="mark.y"
            [attr.text-anchor]="mark.isLate ? 'end' : 'start'"
          >
            {{ mark.words }}
          </text>
        </g>
      }
      <circle [attr.cx]="drawn().at" cy="${FLOOR}" r="5" />
    </svg>
  `,
  styles: `
    svg {
      display: block;
      width: 100%;
      max-width: 620px;
    }
    text {
      fill: var(--ink-2);
      font: 11px var(--ui);
      font-variant-numeric: tabular-nums;
    }
    line.tick {
      stroke: var(--line-soft);
    }
    .got rect {
      fill: var(--spruce-wash);
    }
    .likely > rect {
      fill: url(#likely);
    }
    .to-bring > rect {
      fill: none;
    }
    .got line,
    .likely line,
    .to-bring line {
      stroke: var(--spruce);
      stroke-width: 2;
    }
    .to-bring line {
      stroke-dasharray: 4 3;
    }
    pattern rect {
      fill: var(--paper);
    }
    pattern line {
      stroke: var(--spruce);
      stroke-width: 2;
      opacity: 0.4;
    }
    .money line {
      stroke: var(--plum);
      stroke-width: 2;
    }
    .money text {
      fill: var(--plum);
    }
    .aim line {
      stroke: var(--ink-2);
      stroke-dasharray: 2 3;
    }
    circle {
      fill: var(--saffron);
      stroke: var(--paper);
      stroke-width: 1.5;
    }
  `,
})
export class NextValidChart {
  private readonly money = inject(MoneyPipe);
  readonly said = input.required<NextValid>();
  /** What a valid email of the cheapest source cost, in cents; null while none was paid for. */
  readonly sourceCents = input.required<number | null>();
  readonly nameOf = input.required<(who: string) => string>();
  readonly price = input.required<(eachCents: number) => string>();

  protected readonly drawn = computed(() => {
    const { got, next, target, leftCents } = this.said();
    const sourceCents = this.sourceCents();
    const gotCount = sum(got, ({ count }) => count);
    const foreseen = gotCount + sum(next, ({ count }) => count);
    const missing = target - foreseen;
    const all = [
      ...got.map((priced) => ({ ...priced, kind: 'got' })),
      ...next.filter(({ count }) => count >= 0.5).map((priced) => ({ ...priced, kind: 'likely' })),
      ...(missing > 0 && sourceCents !== null
        ? [{ who: 'to bring in', count: missing, eachCents: sourceCents, kind: 'to-bring' }]
        : []),
    ];
    const x = scaleLinear([0, Math.max(1, target, foreseen)], [LEFT, WIDTH - RIGHT]);
    const y = scaleLinear([0, Math.max(1, max(all, ({ eachCents }) => eachCents) ?? 0)], [FLOOR, TOP + 10]).nice(4);
    let end = 0;
    const levels = all.map(({ who, count, eachCents, kind }) => {
      const from = end;
      end += count;
      const price = eachCents > 0 ? this.price()(eachCents) : 'free';
      const name = kind === 'to-bring' ? who : this.nameOf()(who);
      const of = who === '' ? '' : kind === 'to-bring' ? ` ${who}` : ` from ${name}`;
      const short = who === '' ? `${kind === 'got' ? '' : 'likely '}${price}` : `${name} ${price}`;
      return {
        ...{ from, kind, x: x(from), y: y(eachCents), height: FLOOR - y(eachCents), width: x(end) - x(from) },
        isWide: x(end) - x(from) > LETTER * short.length,
        short,
        words: `${kind === 'got' ? '' : 'about '}${Math.round(count)}${of}: ${price}`,
      };
    });
    const paid = paidFor(next, leftCents);
    const moneyEnds = gotCount + paid < foreseen - 0.5 ? gotCount + paid : null;
    const marks = [
      ...(moneyEnds === null
        ? []
        : [{ kind: 'money', at: moneyEnds, y: TOP + 6, words: `money ends, ${Math.floor(moneyEnds)}` }]),
      ...(target > 0 ? [{ kind: 'aim', at: target, y: TOP - 8, words: `aim ${target}` }] : []),
    ];
    return {
      label: levels.map(({ words }) => words).join('; '),
      levels,
      at: x(gotCount),
      ticks: y
        .ticks(4)
        .filter(Number.isInteger)
        .map((tick) => ({ y: y(tick), words: this.money.transform(tick) })),
      counts: x.ticks(6).map((tick) => ({ x: x(tick), words: tick.toLocaleString('en-GB') })),
      marks: marks.map(({ at, ...mark }) => ({ ...mark, x: x(at), isLate: x(at) > WIDTH / 2 })),
    };
  });
}
