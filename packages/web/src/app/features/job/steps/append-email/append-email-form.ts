import { CdkDrag, CdkDragHandle, CdkDropList, moveItemInArray, type CdkDragDrop } from '@angular/cdk/drag-drop';
import { afterNextRender, ChangeDetectionStrategy, Component, computed, inject, Injector } from '@angular/core';
import { toSignal } from '@angular/core/rxjs-interop';
import { NonNullableFormBuilder, ReactiveFormsModule, Validators } from '@angular/forms';
import { MatFormFieldModule } from '@angular/material/form-field';
import { MatInputModule } from '@angular/material/input';
import { appendEmailOptions } from '@sieve/core/steps/append-email/options';
import { startWith } from 'rxjs';
import { Session } from '../../../../state/session';
import { Icon } from '../../../../ui/icon/icon';
import { MoneyPipe } from '../../../../ui/money';
import { STEP_OPTIONS } from '../step-options';
import type { StepForm } from '../step-view';

/** How many patterns are tried, and which finders are asked, in which order. */
@Component({
  selector: 'cs-append-email-form',
  changeDetection: ChangeDetectionStrategy.OnPush,
  imports: [
    ReactiveFormsModule,
    MatFormFieldModule,
    MatInputModule,
    CdkDropList,
    CdkDrag,
    CdkDragHandle,
    Icon,
    MoneyPipe,
  ],
  host: { class: 'step-fields' },
  template: `
    <mat-form-field [formGroup]="form"
      ><mat-label>Addresses tried from patterns</mat-label
      ><input matInput type="number" min="0" max="12" formControlName="candidates"
    /></mat-form-field>
    <div class="order">
      <h3 id="lookup-order">Lookup order</h3>
      <p class="dim">
        Who is still without an address is asked of the first finder, then of the next. Drag, or move with Alt and the
        arrows.
      </p>
      <ol cdkDropList aria-labelledby="lookup-order" (cdkDropListDropped)="dropped($event)">
        @for (finder of asked(); track finder.id) {
          <li cdkDrag>
            <button
              type="button"
              cdkDragHandle
              class="handle"
              [attr.aria-label]="
                finder.name + ', place ' + ($index + 1) + ' of ' + asked().length + ': move with Alt and the arrows'
              "
              (keydown.alt.arrowup)="move($index, -1, $event)"
              (keydown.alt.arrowdown)="move($index, 1, $event)"
            >
              <cs-icon name="grip" [size]="14" />
            </button>
            <span class="num">{{ $index + 1 }}</span>
            <span class="name">{{ finder.name }}</span>
            @if (finder.priceCents === null) {
              <span class="dim">not in the settings: whoever comes to it waits</span>
            } @else {
              <span class="num">{{ finder.priceCents | money }}</span>
            }
            <button type="button" [attr.aria-label]="'Do not ask ' + finder.name" (click)="leaveOut(finder.id)">
              <cs-icon name="close" [size]="14" />
            </button>
          </li>
        } @empty {
          <li class="dim">No finder is asked: addresses come from patterns alone.</li>
        }
      </ol>
      @for (finder of others(); track finder.id) {
        <button type="button" class="add" (click)="add(finder.id)">
          <cs-icon name="plus" [size]="14" /> Ask {{ finder.name }} too, {{ finder.priceCents | money }}
        </button>
      }
    </div>
  `,
  styles: `
    .order {
      grid-column: 1 / -1;
    }
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
export class AppendEmailForm implements StepForm {
  private readonly options = appendEmailOptions.parse(inject(STEP_OPTIONS));
  private readonly injector = inject(Injector);
  private readonly settings = inject(Session).settings;
  private readonly known = computed(() => this.settings()?.finders ?? []);
  readonly form = inject(NonNullableFormBuilder).group({
    candidates: [this.options.candidates, [Validators.min(0), Validators.max(12)]],
    finders: [this.options.finders],
  });
  readonly value = () => this.form.getRawValue();
  private readonly order = toSignal(this.form.controls.finders.valueChanges.pipe(startWith(this.options.finders)), {
    requireSync: true,
  });
  protected readonly asked = computed(() =>
    this.order().map(
      (id): { id: string; name: string; priceCents: number | null } =>
        this.known().find((finder) => finder.id === id) ?? { id, name: id, priceCents: null },
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
    this.set([...this.order(), id]);
  }

  protected leaveOut(id: string) {
    this.set(this.order().filter((known) => known !== id));
  }

  private place(from: number, to: number) {
    const ids = [...this.order()];
    moveItemInArray(ids, from, to);
    this.set(ids);
  }

  private set(finders: string[]) {
    this.form.controls.finders.setValue(finders);
    this.form.markAsDirty();
  }
}
