import { ChangeDetectionStrategy, Component, computed, input } from '@angular/core';
import type { PairGroup } from '@sieve/contract';
import { roundedDown } from '../../ui/rounded-down';

const WIDTH = 720;
const CARD = { width: 176, height: 42 };

/** Records that hang together, in a ring: lines between those that were merged, dashed where it is in doubt, bold where it is asked. */
@Component({
  selector: 'cs-group-picture',
  changeDetection: ChangeDetectionStrategy.OnPush,
  template: `
    <svg [attr.viewBox]="'0 0 720 ' + drawn().height" role="img" [attr.aria-label]="drawn().words">
      @for (line of drawn().lines; track $index) {
        <line
          [class.doubtful]="!line.merged"
          [class.asked]="line.asked"
          [attr.x1]="line.from.x"
          [attr.y1]="line.from.y"
          [attr.x2]="line.to.x"
          [attr.y2]="line.to.y"
        />
      }
      @for (card of drawn().cards; track card.id) {
        <g [class.asked]="card.asked" [attr.transform]="'translate(' + (card.x - 88) + ' ' + (card.y - 21) + ')'">
          <title>{{ card.name }}, {{ card.company }}: {{ card.source }} line {{ card.line }}</title>
          <rect width="176" height="42" rx="6" />
          <text class="name" x="10" y="17">{{ cut(card.name, 24) }}</text>
          <text x="10" y="33">{{ cut(card.company || card.source + ' ' + card.line, 27) }}</text>
        </g>
      }
      @for (line of drawn().lines; track $index) {
        <g [attr.transform]="'translate(' + line.x + ' ' + line.y + ')'">
          <rect class="chance" x="-19" y="-9" width="38" height="18" rx="9" />
          <text class="num" text-anchor="middle" y="4">{{ roundedDown(line.chance, 2) }}</text>
        </g>
      }
    </svg>
  `,
  styles: `
    svg {
      display: block;
      width: 100%;
      max-width: 720px;
      max-height: 300px;
    }
    line {
      stroke: var(--spruce);
      stroke-width: 2;
    }
    line.doubtful {
      stroke: var(--saffron);
      stroke-dasharray: 5 4;
    }
    line.asked {
      stroke-width: 4;
    }
    rect {
      fill: var(--paper);
      stroke: var(--line);
    }
    .asked > rect {
      stroke: var(--saffron);
      stroke-width: 2;
    }
    .chance {
      stroke: none;
    }
    text {
      fill: var(--ink-2);
      font-size: 11.5px;
    }
    .name {
      fill: var(--ink);
      font-weight: 600;
    }
  `,
})
export class GroupPicture {
  readonly group = input.required<PairGroup>();
  /** The pair that is asked about. */
  readonly a = input.required<number>();
  readonly b = input.required<number>();

  protected readonly drawn = computed(() => {
    const { records, links } = this.group();
    const height = Math.max(150, 76 + Math.ceil(records.length / 2) * 52);
    const asked = new Set([this.a(), this.b()]);
    const cards = this.ordered(records).map((record, i, all) => {
      const angle = -Math.PI / 2 + Math.PI / all.length + (2 * Math.PI * i) / all.length;
      return {
        ...record,
        asked: asked.has(record.id),
        x: WIDTH / 2 + (WIDTH / 2 - CARD.width / 2 - 8) * Math.sin(angle),
        y: height / 2 - (height / 2 - CARD.height / 2 - 6) * Math.cos(angle),
      };
    });
    const at = new Map(cards.map((card) => [card.id, card]));
    const lines = links.flatMap(({ a, b, chance, merged }) => {
      const [from, to] = [at.get(a), at.get(b)];
      if (!from || !to) return [];
      const isAsked = asked.has(a) && asked.has(b);
      return [{ from, to, chance, merged, asked: isAsked, x: (from.x + to.x) / 2, y: (from.y + to.y) / 2 }];
    });
    const merged = links.filter((link) => link.merged).length;
    return {
      height,
      cards,
      lines,
      words: `${records.length} records hang together: ${merged} pairs are merged, ${links.length - merged} in doubt`,
    };
  });

  /** The two that are asked about stand opposite each other, and beside each those that are merged with it. */
  private ordered(records: PairGroup['records']): PairGroup['records'] {
    const merged = this.group().links.filter((link) => link.merged);
    const side = new Set([this.a()]);
    for (const one of side)
      for (const { a, b } of merged) {
        if (a === one) side.add(b);
        if (b === one) side.add(a);
      }
    return [...records.filter(({ id }) => side.has(id)), ...records.filter(({ id }) => !side.has(id))];
  }

  protected readonly roundedDown = roundedDown;

  protected cut = (text: string, most: number) => (text.length > most ? `${text.slice(0, most - 1)}…` : text);
}
