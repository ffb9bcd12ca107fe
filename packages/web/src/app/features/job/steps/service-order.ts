import { CdkDrag, CdkDragHandle, CdkDropList, moveItemInArray, type CdkDragDrop } from '@angular/cdk/drag-drop';
import {
  afterNextRender,
  ChangeDetectionStrategy,
  Component,
  computed,
  inject,
  Injector,
  input,
  model,
} from '@angular/core';
import { PAYS_WORDS, type FinderSetting } from '@sieve/contract';
import { Icon } from '../../../ui/icon/icon';
import { MoneyPipe } from '../../../ui/money';

type Service = Pick<FinderSetting, 'id' | 'name' | 'pays' | 'priceCents'>;

/** Services in the order in which they are asked, moved by hand, and those that are not asked. */
@Component({
  selector: 'cs-service-order',
  changeDetection: ChangeDetectionStrategy.OnPush,
  imports: [CdkDropList, CdkDrag, CdkDragHandle, Icon, MoneyPipe],
  template: `
    <h3 id="lookup-order">Lookup order</h3>
    <p class="dim">{{ about() }} Drag, or move with Alt and the arrows.</p>
    <ol cdkDropList aria-labelledby="lookup-order" (cdkDropListDropped)="dropped($event)">
      @for (service of asked(); track service.id) {
        <li cdkDrag>
          <button
            type="button"
            cdkDragHandle
            class="handle"
            [attr.aria-label]="
              service.name + ', place ' + ($index + 1) + ' of ' + asked().length + ': move with Alt and the arrows'
            "
            (keydown.alt.arrowup)="move($index, -1, $event)"
            (keydown.alt.arrowdown)="move($index, 1, $event)"
          >
            <cs-icon name="grip" [size]="14" />
          </button>
          <span class="num">{{ $index + 1 }}</span>
          <span class="name">{{ service.name }}</span>
          @if (service.priceCents === null) {
            <span class="dim">not in the settings: whoever comes to it waits</span>
          } @else {
            <span class="pays">{{ paysWords[service.pays] }}</span>
            <span class="num">{{ service.priceCents | money }}</span>
          }
          <button type="button" [attr.aria-label]="'Do not ask ' + service.name" (click)="leaveOut(service.id)">
            <cs-icon name="close" [size]="14" />
          </button>
        </li>
      } @empty {
        <li class="dim">{{ nobody() }}</li>
      }
    </ol>
    @for (service of others(); track service.id) {
      <button type="button" class="add" (click)="add(service.id)">
        <cs-icon name="plus" [size]="14" /> Ask {{ service.name }} too, {{ service.priceCents | money }}
        {{ paysWords[service.pays] }}
      </button>
    }
  `,
  styles: `
    h3 {
      margin: 0;
      font-size: 13px;
    }
    .dim {
      margin: 2px 0 8px;
      color: var(--ink-2);
      font-size: 12px;
    }
    ol {
      margin: 0;
      padding: 0;
      list-style: none;
    }
    li {
      display: flex;
      gap: 10px;
      align-items: center;
      padding: 5px 8px;
      border-bottom: 1px solid var(--line-soft);
      background: var(--paper);
    }
    .name {
      flex: 1;
    }
    .pays {
      color: var(--ink-2);
      font-size: 12px;
    }
    button {
      padding: 4px;
      border: 0;
      border-radius: 4px;
      background: none;
      color: var(--ink-2);
      cursor: pointer;
    }
    button:hover {
      background: var(--sunk);
    }
    .handle {
      cursor: grab;
    }
    .add {
      display: flex;
      gap: 8px;
      align-items: center;
      margin-top: 6px;
      color: var(--spruce);
    }
  `,
})
export class ServiceOrder {
  private readonly injector = inject(Injector);
  /** By id, in lookup order. */
  readonly order = model.required<readonly string[]>();
  readonly known = input.required<readonly Service[]>();
  readonly about = input.required<string>();
  /** Said when nobody is asked. */
  readonly nobody = input.required<string>();
  protected readonly paysWords = PAYS_WORDS;
  protected readonly asked = computed(() =>
    this.order().map(
      (id): Omit<Service, 'priceCents'> & { priceCents: number | null } =>
        this.known().find((service) => service.id === id) ?? { id, name: id, priceCents: null, pays: 'valid' },
    ),
  );
  protected readonly others = computed(() => this.known().filter(({ id }) => !this.order().includes(id)));

  protected dropped({ previousIndex, currentIndex }: CdkDragDrop<unknown>) {
    this.place(previousIndex, currentIndex);
  }

  protected move(at: number, by: number, event: Event) {
    event.preventDefault();
    this.place(at, Math.max(0, Math.min(this.asked().length - 1, at + by)));
    // Moving it in the page takes the focus away: once drawn, it gets it back.
    const handle = event.currentTarget as HTMLElement;
    afterNextRender(() => handle.focus(), { injector: this.injector });
  }

  protected add(id: string) {
    this.order.set([...this.order(), id]);
  }

  protected leaveOut(id: string) {
    this.order.set(this.order().filter((known) => known !== id));
  }

  private place(from: number, to: number) {
    const ids = [...this.order()];
    moveItemInArray(ids, from, to);
    this.order.set(ids);
  }
}
