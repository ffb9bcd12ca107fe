import { ChangeDetectionStrategy, Component, input, output } from '@angular/core';

/** In the place of the grid, which needs a layout; Playwright drives the real one. */
@Component({ selector: 'cs-rows-grid', template: '', changeDetection: ChangeDetectionStrategy.OnPush })
export class RowsGrid {
  readonly jobId = input<number>();
  readonly view = input<unknown>();
  readonly step = input<string>();
  readonly fate = input<string>();
  readonly why = input('');
  readonly query = input('');
  readonly own = input('');
  readonly version = input(0);
  readonly current = input<number | null>(null);
  readonly going = input<ReadonlySet<number>>(new Set());
  readonly chosen = output<object>();
  readonly marked = output<object[]>();
  readonly opened = output();
  readonly total = output<number>();
  readonly failed = output<unknown>();
  readonly moves: number[] = [];
  readonly position = () => null;
  readonly focus = () => undefined;
  rows: string[][] = [];
  readonly table = () => this.rows;

  move(by: number) {
    this.moves.push(by);
  }
  clearMarks() {
    this.marked.emit([]);
  }
}
