import { ChangeDetectionStrategy, Component, computed, inject, signal } from '@angular/core';
import type { Target } from '@sieve/core/model/target';
import type { KnownShape } from '@sieve/contract';
import { signalStore } from '@ngrx/signals';
import { Api } from '../../api/api';
import { valueOf, withLoaded } from '../../state/asked';
import { Doing } from '../../state/doing';
import { CountPipe } from '../../ui/count';
import { Notices } from '../../ui/notices';
import { Select } from '../../ui/select/select';
import { Status } from '../../ui/status/status';
import { targetOptions } from '../../ui/target-options';
import { whenWords } from '../../ui/when';

const ShapesStore = signalStore(withLoaded((api) => api.shapes()));

/** How tables of known shapes are read: looked at, changed and forgotten here. */
@Component({
  selector: 'cs-shapes-list',
  changeDetection: ChangeDetectionStrategy.OnPush,
  imports: [Select, Status, CountPipe],
  providers: [ShapesStore],
  template: `
    <cs-status [request]="store.asked()" what="the known shapes" />
    @for (shape of shapes(); track shape.shape) {
      <div class="shape">
        <button class="link" type="button" [attr.aria-expanded]="opened() === shape.shape" (click)="open(shape)">
          {{ namesOf(shape) }}
        </button>
        <small>{{ shape.columns.length | count }} columns · {{ when(shape.at) }}</small>
        <button class="link" type="button" [attr.aria-label]="'Forget ' + namesOf(shape)" (click)="forget(shape)">
          forget
        </button>
      </div>
      @if (opened() === shape.shape) {
        <div class="columns">
          @for (column of shape.columns; track $index) {
            <span class="named"
              >{{ column.name }}
              <cs-select
                [label]="'What ' + column.name + ' is'"
                [options]="options"
                [value]="column.target"
                (picked)="set(shape, $index, $event)"
            /></span>
          }
        </div>
      }
    } @empty {
      @if (store.asked().status === 'done') {
        <p class="dim">None yet: they come with the files that are brought in.</p>
      }
    }
  `,
  styles: `
    .shape {
      display: flex;
      gap: 12px;
      align-items: baseline;
      padding: 5px 0;
      border-bottom: 1px solid var(--line-soft);
    }
    .shape .link:first-child {
      flex: 1;
      min-width: 0;
      overflow: hidden;
      text-align: left;
      text-overflow: ellipsis;
      white-space: nowrap;
    }
    small,
    .dim {
      flex: none;
      color: var(--ink-2);
    }
    .columns {
      display: grid;
      grid-template-columns: repeat(auto-fill, minmax(300px, 1fr));
      gap: 6px 16px;
      padding: 8px 0 12px;
    }
    .named {
      justify-content: space-between;
      overflow: hidden;
    }
  `,
})
export class ShapesList {
  private readonly api = inject(Api);
  private readonly doing = inject(Doing);
  private readonly notices = inject(Notices);
  protected readonly store = inject(ShapesStore);
  protected readonly shapes = computed(() => valueOf(this.store.asked()) ?? []);
  protected readonly opened = signal('');
  protected readonly when = whenWords;
  protected readonly namesOf = ({ columns }: KnownShape) => columns.map(({ name }) => name).join(', ');
  protected readonly options = targetOptions;

  constructor() {
    this.store.load();
  }

  protected open({ shape }: KnownShape) {
    this.opened.update((opened) => (opened === shape ? '' : shape));
  }

  protected set({ columns }: KnownShape, at: number, target: Target) {
    const changed = columns.map((column, i) => (i === at ? { ...column, target } : column));
    this.doing.run(this.api.setShape(changed), (shapes) => this.store.change(() => shapes));
  }

  protected forget({ shape, columns }: KnownShape) {
    this.doing.run(this.api.forgetShape(shape), (shapes) => {
      this.store.change(() => shapes);
      this.doing.run(this.notices.done('This shape is forgotten'), () =>
        this.doing.run(this.api.setShape(columns), (back) => this.store.change(() => back)),
      );
    });
  }
}
