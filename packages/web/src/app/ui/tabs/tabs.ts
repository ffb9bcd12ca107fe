import { ChangeDetectionStrategy, Component, type ElementRef, input, output, viewChildren } from '@angular/core';
import { CountPipe } from '../count';

export interface Tab<T extends string> {
  id: T;
  label: string;
  /** Shown behind the label; null for none. */
  count: number | null;
  disabled?: boolean;
}

/** Tabs over one panel, which the screen draws below; arrow keys, Home and End move between them. */
@Component({
  selector: 'cs-tabs',
  changeDetection: ChangeDetectionStrategy.OnPush,
  imports: [CountPipe],
  template: `
    <div class="tabs" role="tablist" [attr.aria-label]="label()">
      @for (tab of tabs(); track tab.id) {
        <button
          #button
          type="button"
          role="tab"
          [attr.aria-selected]="tab.id === chosen()"
          [attr.aria-controls]="panel()"
          [attr.tabindex]="tab.id === chosen() ? 0 : -1"
          [disabled]="tab.disabled ?? false"
          (click)="choose.emit(tab.id)"
          (keydown)="onKey($event, $index)"
        >
          {{ tab.label }}
          @if (tab.count !== null) {
            <span class="num">{{ tab.count | count }}</span>
          }
        </button>
      }
    </div>
    <ng-content />
  `,
  styles: `
    :host {
      display: flex;
      align-items: center;
      height: 37px;
      padding: 0 16px;
      border-bottom: 1px solid var(--line);
      font-size: 12.5px;
    }
    .tabs {
      display: flex;
      height: 100%;
    }
    button {
      height: 37px;
      margin-bottom: -1px;
      padding: 0 12px;
      border: 0;
      border-bottom: 2px solid transparent;
      background: none;
      color: var(--ink-2);
      white-space: nowrap;
      cursor: pointer;
    }
    button[aria-selected='true'] {
      border-color: var(--saffron);
      color: var(--ink);
      font-weight: 600;
    }
    button:disabled {
      opacity: 0.5;
      cursor: default;
    }
  `,
})
export class Tabs<T extends string> {
  readonly tabs = input.required<readonly Tab<T>[]>();
  readonly chosen = input.required<T>();
  readonly label = input.required<string>();
  /** Id of the panel that the tabs change. */
  readonly panel = input.required<string>();
  readonly choose = output<T>();
  private readonly buttons = viewChildren<ElementRef<HTMLButtonElement>>('button');

  protected onKey(event: KeyboardEvent, at: number) {
    const last = this.tabs().length - 1;
    const to = { ArrowRight: at === last ? 0 : at + 1, ArrowLeft: at === 0 ? last : at - 1, Home: 0, End: last }[
      event.key
    ];
    if (to === undefined) return;
    event.preventDefault();
    event.stopPropagation();
    this.buttons()[to]?.nativeElement.focus();
    if (!this.tabs()[to]!.disabled) this.choose.emit(this.tabs()[to]!.id);
  }
}
