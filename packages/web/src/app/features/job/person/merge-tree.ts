import { ChangeDetectionStrategy, Component, computed, input } from '@angular/core';
import type { ContactView } from '@sieve/contract';

const ROW = 46;
const CARD = 168;
const STEP = 34;

interface Joint {
  x: number;
  y: number;
  chance: number;
}

/** How the records of a contact came together: the surest pair first, each joint with how sure it is. */
@Component({
  selector: 'cs-merge-tree',
  changeDetection: ChangeDetectionStrategy.OnPush,
  template: `
    <svg [attr.width]="tree().width" [attr.height]="tree().height" aria-hidden="true">
      @for (path of tree().paths; track $index) {
        <path [attr.d]="path" />
      }
      @for (joint of tree().joints; track $index) {
        <circle [attr.cx]="joint.x" [attr.cy]="joint.y" r="4" [class.doubtful]="joint.chance < 0.99" />
        <text class="num" [attr.x]="joint.x + 5" [attr.y]="joint.y - 7">{{ joint.chance.toFixed(3) }}</text>
      }
    </svg>
    <ol>
      @for (record of tree().records; track record.id) {
        <li>
          <b>{{ record.source }}, row {{ record.line }}</b>
          <span>{{ record.name }}</span>
        </li>
      }
    </ol>
  `,
  styles: `
    :host {
      position: relative;
      display: block;
    }
    svg {
      position: absolute;
      inset: 0;
      overflow: visible;
    }
    path {
      fill: none;
      stroke: var(--spruce);
      stroke-width: 1.5;
    }
    circle {
      fill: var(--spruce);
    }
    circle.doubtful {
      fill: var(--saffron);
    }
    text {
      fill: var(--ink-2);
      font-size: 10.5px;
    }
    ol {
      position: relative;
      display: grid;
      gap: 6px;
      margin: 0 0 10px;
      padding: 0;
      list-style: none;
    }
    li {
      width: 168px;
      height: 40px;
      padding: 3px 9px;
      border: 1px solid var(--line);
      border-radius: 6px;
      background: var(--paper);
      font-size: 11.5px;
      line-height: 1.4;
    }
    li > * {
      display: block;
      overflow: hidden;
      text-overflow: ellipsis;
      white-space: nowrap;
    }
    li span {
      color: var(--ink-2);
    }
  `,
})
export class MergeTree {
  readonly contact = input.required<ContactView>();

  protected readonly tree = computed(() => {
    const { recordViews, evidence } = this.contact();
    const records = recordViews.map(({ id, source, line, cells, person }) => ({
      id,
      source,
      line,
      name: [person.firstName, person.lastName].join(' ').trim() || (cells.find(({ value }) => value)?.value ?? ''),
    }));
    const ends = new Map(records.map(({ id }, i) => [id, { x: CARD, y: i * ROW + 20, group: i }]));
    const joints: Joint[] = [];
    const paths: string[] = [];
    for (const { a, b, chance } of [...evidence].sort((one, other) => other.chance - one.chance)) {
      const [first, second] = [ends.get(a), ends.get(b)];
      if (!first || !second || first.group === second.group) continue;
      const x = Math.max(first.x, second.x) + STEP;
      const y = (first.y + second.y) / 2;
      paths.push(`M${first.x} ${first.y}H${x}V${second.y}H${second.x}`);
      joints.push({ x, y, chance });
      const joined = { x, y, group: first.group };
      for (const [id, { group }] of ends) if (group === first.group || group === second.group) ends.set(id, joined);
    }
    return { records, joints, paths, width: CARD + STEP * (joints.length + 1), height: records.length * ROW };
  });
}
