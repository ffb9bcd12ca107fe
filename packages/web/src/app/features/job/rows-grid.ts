import { ChangeDetectionStrategy, Component, computed, effect, inject, input, output } from '@angular/core';
import type { ContactRow, RowQuery } from '@sieve/contract';
import { AgGridAngular } from 'ag-grid-angular';
import {
  CellStyleModule,
  ColumnApiModule,
  EventApiModule,
  InfiniteRowModelModule,
  ModuleRegistry,
  RowApiModule,
  RowSelectionModule,
  RowStyleModule,
  ScrollApiModule,
  themeQuartz,
  type CellFocusedEvent,
  type ColDef,
  type ColumnState,
  type GetRowIdParams,
  type GridApi,
  type GridReadyEvent,
  type ICellRendererParams,
  type IDatasource,
  type IGetRowsParams,
  type RowClassParams,
} from 'ag-grid-community';
import { Api } from '../../api/api';
import { Doing } from '../../state/doing';
import { reasonOf } from './reason';
import type { StepView } from './steps/step-view';

ModuleRegistry.registerModules([
  InfiniteRowModelModule,
  ColumnApiModule,
  RowSelectionModule,
  RowApiModule,
  CellStyleModule,
  RowStyleModule,
  ScrollApiModule,
  EventApiModule,
]);

const THEME = themeQuartz.withParams({
  browserColorScheme: 'inherit',
  backgroundColor: 'var(--paper)',
  foregroundColor: 'var(--ink)',
  borderColor: 'var(--line-soft)',
  headerBackgroundColor: 'var(--paper)',
  headerTextColor: 'var(--ink-3)',
  headerFontSize: 11.5,
  headerFontWeight: 500,
  fontFamily: 'var(--ui)',
  fontSize: 13,
  rowHeight: 31,
  headerHeight: 31,
  cellHorizontalPadding: 9,
  selectedRowBackgroundColor: 'color-mix(in srgb, var(--spruce) 12%, var(--paper))',
  rowHoverColor: 'color-mix(in srgb, var(--saffron) 9%, var(--paper))',
  accentColor: 'var(--spruce)',
  wrapperBorder: false,
  columnBorder: false,
  borderRadius: 0,
  wrapperBorderRadius: 0,
});

const PAGE = 100;

/** The rows of one fate at one step. It asks the server for pages and never holds the whole list. */
@Component({
  selector: 'cs-rows-grid',
  changeDetection: ChangeDetectionStrategy.OnPush,
  imports: [AgGridAngular],
  template: `
    <ag-grid-angular
      [theme]="theme"
      rowModelType="infinite"
      [cacheBlockSize]="pageSize"
      [maxBlocksInCache]="12"
      [infiniteInitialRowCount]="30"
      [columnDefs]="columns()"
      [defaultColDef]="defaultColumn"
      [getRowId]="rowId"
      [rowSelection]="selection"
      [rowClassRules]="rowClasses"
      [suppressCellFocus]="false"
      [maintainColumnOrder]="true"
      [suppressColumnMoveAnimation]="true"
      [animateRows]="false"
      [rowBuffer]="4"
      [suppressNoRowsOverlay]="true"
      (gridReady)="ready($event)"
      (cellFocused)="focused($event)"
      (selectionChanged)="tellMarked()"
      (columnResized)="remember()"
      (columnMoved)="remember()"
      (sortChanged)="remember()"
    />
  `,
  styles: `
    :host,
    ag-grid-angular {
      display: block;
      height: 100%;
    }
    :host ::ng-deep .first {
      font-weight: 600;
    }
    :host ::ng-deep .ag-cell.address {
      font-family: var(--mono);
      font-size: 12px;
      letter-spacing: -0.02em;
    }
    :host ::ng-deep .ag-cell.figure {
      font-variant-numeric: tabular-nums;
    }
    :host ::ng-deep .ag-cell.dim {
      color: var(--ink-2);
    }
    :host ::ng-deep .ag-row.current {
      background: color-mix(in srgb, var(--saffron) 17%, var(--paper));
    }
    :host ::ng-deep .ag-row.going {
      opacity: 0.45;
      text-decoration: line-through;
    }
  `,
})
export class RowsGrid {
  private readonly api = inject(Api);
  private readonly doing = inject(Doing);
  readonly jobId = input.required<number>();
  readonly step = input.required<string>();
  readonly view = input.required<StepView>();
  readonly fate = input.required<RowQuery['fate']>();
  readonly query = input('');
  /** A new version of the outcome makes the grid ask again. */
  readonly version = input(0);
  readonly current = input<number | null>(null);
  /** Rows that a decision is moving away. */
  readonly going = input<ReadonlySet<number>>(new Set());
  readonly chosen = output<ContactRow>();
  readonly marked = output<ContactRow[]>();
  readonly total = output<number>();
  /** In words. */
  readonly failed = output<string>();

  protected readonly theme = THEME;
  protected readonly pageSize = PAGE;
  protected readonly selection = {
    mode: 'multiRow',
    checkboxes: false,
    headerCheckbox: false,
    enableClickSelection: false,
  } as const;
  protected readonly defaultColumn: ColDef<ContactRow> = {
    sortable: false,
    resizable: true,
    suppressKeyboardEvent: ({ event }) => event.key === ' ',
  };
  protected readonly rowId = ({ data }: GetRowIdParams<ContactRow>) => String(data.id);
  protected readonly rowClasses = {
    current: ({ data }: RowClassParams<ContactRow>) => data !== undefined && data.id === this.current(),
    going: ({ data }: RowClassParams<ContactRow>) => data !== undefined && this.going().has(data.id),
  };
  private grid: GridApi<ContactRow> | undefined;

  protected readonly columns = computed<ColDef<ContactRow>[]>(() => {
    const { shows, merges } = this.view();
    const late = shows === 'email';
    const columns: ColDef<ContactRow>[] = [
      { colId: 'mark', width: 34, resizable: false, cellRenderer: mark, headerName: '', sortable: false },
      { colId: 'lastName', headerName: 'Name', flex: 1.1, minWidth: 110, sortable: true, cellRenderer: nameCell },
      { colId: 'title', field: 'title', headerName: 'Title', flex: 1.15, minWidth: 90, sortable: true },
      { colId: 'company', field: 'company', headerName: 'Company', flex: 1.15, minWidth: 90, sortable: true },
    ];
    if (late)
      columns.push({
        colId: 'email',
        field: 'email',
        headerName: 'Email',
        flex: 1.5,
        minWidth: 150,
        cellClass: 'address',
        sortable: true,
      });
    else
      columns.push({
        colId: 'city',
        field: 'place',
        headerName: 'Place',
        flex: 0.9,
        minWidth: 70,
        cellClass: 'dim',
        sortable: true,
      });
    if (this.fate() !== 'pass' || late)
      columns.push({
        colId: 'why',
        headerName: 'Why',
        flex: 1.4,
        minWidth: 120,
        cellClass: 'dim',
        valueGetter: ({ data }) => (data ? reasonOf(data) : ''),
      });
    if (merges)
      columns.push({
        colId: 'records',
        field: 'records',
        headerName: 'Records',
        width: 76,
        cellClass: 'figure',
        sortable: true,
      });
    if (this.fate() === 'pass' && !late)
      columns.push({
        colId: 'source',
        headerName: 'Source',
        flex: 0.8,
        minWidth: 60,
        cellClass: 'dim',
        valueGetter: ({ data }) => data?.source.replace(/\.\w{2,4}\b/g, ''),
      });
    return columns;
  });

  private readonly source = computed<IDatasource>(() => {
    const [job, step, fate, q] = [this.jobId(), this.step(), this.fate(), this.query()];
    return {
      getRows: (params: IGetRowsParams) => {
        const sort = params.sortModel[0];
        const query: Partial<RowQuery> = {
          step,
          fate,
          q,
          offset: params.startRow,
          limit: PAGE,
          ...(sort && { sort: sort.colId as RowQuery['sort'], desc: sort.sort === 'desc' }),
        };
        this.doing.run(
          this.api.rows(job, query),
          ({ rows, total }) => {
            params.successCallback(rows, total);
            this.total.emit(total);
          },
          (words) => {
            params.failCallback();
            this.failed.emit(words);
          },
        );
      },
    };
  });

  /** Widths, order and sort are remembered for each set of columns. */
  private readonly memory = computed(
    () =>
      `grid ${this.columns()
        .map(({ colId }) => colId)
        .join(' ')}`,
  );

  constructor() {
    effect(() => {
      this.memory();
      // After the grid has taken the new columns.
      queueMicrotask(() => this.recall());
    });
    effect(() => {
      const source = this.source();
      this.grid?.setGridOption('datasource', source);
    });
    effect(() => {
      this.version();
      this.grid?.refreshInfiniteCache();
    });
    effect(() => {
      this.current();
      this.going();
      this.grid?.redrawRows();
    });
  }

  protected ready({ api }: GridReadyEvent<ContactRow>) {
    this.grid = api;
    this.recall();
    api.setGridOption('datasource', this.source());
  }

  private recall() {
    const state = localStorage.getItem(this.memory());
    if (state) this.grid?.applyColumnState({ state: JSON.parse(state) as ColumnState[], applyOrder: true });
  }

  protected remember() {
    if (this.grid)
      localStorage.setItem(
        this.memory(),
        JSON.stringify(
          this.grid.getColumnState().map(({ colId, width, flex, sort }) => ({ colId, width, flex, sort })),
        ),
      );
  }

  protected focused({ rowIndex }: CellFocusedEvent<ContactRow>) {
    const row = rowIndex === null ? undefined : this.grid?.getDisplayedRowAtIndex(rowIndex)?.data;
    if (row) this.chosen.emit(row);
  }

  protected tellMarked() {
    this.marked.emit(this.grid?.getSelectedRows() ?? []);
  }

  /** Moves to the row so many below. */
  move(by: number) {
    const focused = this.grid?.getFocusedCell();
    const next = Math.max(0, (focused?.rowIndex ?? -by - (by < 0 ? -1 : 0)) + by);
    if (!this.grid?.getDisplayedRowAtIndex(next)) return;
    this.grid.ensureIndexVisible(next);
    this.grid.setFocusedCell(next, focused?.column ?? 'lastName');
  }

  toggleMark() {
    const at = this.grid?.getFocusedCell()?.rowIndex;
    const node = at === undefined ? undefined : this.grid?.getDisplayedRowAtIndex(at);
    node?.setSelected(!node.isSelected());
  }

  clearMarks() {
    this.grid?.deselectAll();
  }
}

const SHAPES: Record<string, string> = {
  valid: '<circle cx="6" cy="6" r="5" fill="var(--spruce)"/>',
  risky:
    '<circle cx="6" cy="6" r="4.6" fill="none" stroke="var(--saffron)" stroke-width="1.4"/><path d="M1.4 6a4.6 4.6 0 0 0 9.2 0z" fill="var(--saffron)"/>',
  invalid:
    '<circle cx="6" cy="6" r="4.6" fill="none" stroke="var(--brick)" stroke-width="1.4"/><path d="M2.9 2.9l6.2 6.2" stroke="var(--brick)" stroke-width="1.4"/>',
  unknown:
    '<circle cx="6" cy="6" r="4.6" fill="none" stroke="var(--ink-3)" stroke-width="1.3" stroke-dasharray="1.6 1.7"/>',
};

/** The shapes of VerdictMark as plain elements: the grid draws thousands of them. */
function mark({ data }: ICellRendererParams<ContactRow>): HTMLElement | string {
  if (!data) return '';
  const span = document.createElement('span');
  const kind = data.verdict in SHAPES ? data.verdict : 'unknown';
  span.title = data.verdict || 'no verdict yet';
  span.innerHTML = `<svg width="12" height="12" viewBox="0 0 12 12" role="img" aria-label="${span.title}">${SHAPES[kind]}</svg>`;
  return span;
}

function nameCell({ data }: ICellRendererParams<ContactRow>): HTMLElement | string {
  if (!data) return '…';
  const span = document.createElement('span');
  const first = document.createElement('span');
  first.className = 'first';
  first.textContent = data.firstName;
  span.append(first, ` ${data.lastName}`);
  span.title = data.name;
  return span;
}
