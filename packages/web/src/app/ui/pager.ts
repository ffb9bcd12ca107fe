import { ChangeDetectionStrategy, Component, computed, input, model } from '@angular/core';
import { MatButtonModule } from '@angular/material/button';
import { CountPipe } from './count';

/** Goes from page to page of a list; nothing stands where one page holds it all. */
@Component({
  selector: 'cs-pager',
  changeDetection: ChangeDetectionStrategy.OnPush,
  imports: [MatButtonModule, CountPipe],
  template: `
    @if (total() > size()) {
      <button mat-button type="button" [disabled]="offset() === 0" (click)="offset.set(offset() - size())">
        Earlier
      </button>
      <span>{{ offset() + 1 | count }} to {{ end() | count }} of {{ total() | count }}</span>
      <button mat-button type="button" [disabled]="end() >= total()" (click)="offset.set(offset() + size())">
        Next
      </button>
    }
  `,
  styles: `
    :host {
      display: flex;
      align-items: center;
      justify-content: center;
      gap: 14px;
      padding: 10px;
    }
    :host:empty {
      display: none;
    }
  `,
})
export class Pager {
  readonly total = input.required<number>();
  /** Rows a page. */
  readonly size = input.required<number>();
  readonly offset = model.required<number>();
  protected readonly end = computed(() => Math.min(this.total(), this.offset() + this.size()));
}
