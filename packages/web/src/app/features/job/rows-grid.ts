import {
  ChangeDetectionStrategy,
  Component,
  computed,
  effect,
  inject,
  input,
  output,
  signal,
  untracked,
} from '@angular/core';
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
  type IDatasource,
  type IGetRowsParams,
  type RowClassParams,
} from 'ag-grid-community';
import { Api } from '../../api/api';
import { Doing } from '../../state/doing';
import { columnsOf, TEXT } from './rows-columns';
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
      (rowDoubleClicked)="opened.emit()"
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
  /** Only those that stopped for this reason. */
  readonly why = input('');
  /** The field of the person's own that is shown; '': none. */
  readonly own = input('');
  /** A new version of the outcome makes the grid ask again. */
  readonly version = input(0);
  readonly current = input<number | null>(null);
  /** Rows that a decision is moving away. */
  readonly going = input<ReadonlySet<number>>(new Set());
  readonly chosen = output<ContactRow>();
  /** The current row is to be read in full. */
  readonly opened = output();
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
  /** Where the keys are on a row that has not come yet. */
  private awaited: number | null = null;
  /** Where the current row stands, or stood when it was last seen in this list. */
  private at: number | null = null;
  /** The same for who asks, counted from 1; null while it is not in the list. */
  readonly position = signal<{ at: number; of: number } | null>(null);

  protected readonly columns = computed(() => columnsOf(this.view(), this.fate(), this.own()));

  private readonly source = computed<IDatasource>(() => {
    const [job, step, fate, q, why, own] = [
      this.jobId(),
      this.step(),
      this.fate(),
      this.query(),
      this.why(),
      this.own(),
    ];
    /** A list that opens anew opens where the current row stands. */
    let seeking = untracked(this.current);
    const source: IDatasource = {
      getRows: (params: IGetRowsParams) => {
        const sort = params.sortModel[0];
        const query: Partial<RowQuery> = {
          step,
          fate,
          q,
          ...(why && { why }),
          ...(own && { own }),
          offset: params.startRow,
          limit: PAGE,
          ...(seeking !== null && { placeOf: seeking }),
          ...(sort && { sort: sort.colId as RowQuery['sort'], desc: sort.sort === 'desc' }),
        };
        seeking = null;
        this.doing.run(
          this.api.rows(job, query),
          ({ rows, total, place }) => {
            params.successCallback(rows, total);
            // An answer about a list that was left tells nothing of this one.
            if (source !== this.source()) return;
            if (place !== null) this.grid?.ensureIndexVisible(place, 'middle');
            // The grid takes no answer that another one has overtaken.
            this.total.emit(this.grid!.getDisplayedRowCount());
            this.chooseAwaited();
            this.follow();
          },
          (words) => {
            params.failCallback();
            if (source === this.source()) this.failed.emit(words);
          },
        );
      },
    };
    return source;
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
      // Another list: what was marked in the last one is no longer seen.
      this.grid?.deselectAll();
      this.at = null;
      this.awaited = null;
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
      untracked(() => this.follow());
    });
  }

  protected ready({ api }: GridReadyEvent<ContactRow>) {
    this.grid = api;
    this.recall();
    api.setGridOption('datasource', this.source());
  }

  private indexOf(id: number | null): number | null {
    return (id === null ? null : this.grid?.getRowNode(String(id))?.rowIndex) ?? null;
  }

  private chooseAwaited() {
    const row = this.awaited === null ? undefined : this.grid?.getDisplayedRowAtIndex(this.awaited)?.data;
    if (!row) return;
    this.awaited = null;
    this.chosen.emit(row);
  }

  /** Rows may have moved: the keys stay on the current row, wherever it stands now. */
  private follow() {
    const at = this.indexOf(this.current());
    if (at !== null) this.at = at;
    this.position.set(at === null ? null : { at: at + 1, of: this.grid!.getDisplayedRowCount() });
    const focused = this.grid?.getFocusedCell();
    if (!focused || focused.rowIndex === at) return;
    if (at === null) this.grid!.clearFocusedCell();
    else this.grid!.setFocusedCell(at, focused.column);
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
    this.awaited = row ? null : rowIndex;
    if (row) this.chosen.emit(row);
  }

  protected tellMarked() {
    this.marked.emit(this.grid?.getSelectedRows() ?? []);
  }

  /** Moves to the next row, or the one before; rows on their way out are passed over. */
  move(by: 1 | -1) {
    const grid = this.grid;
    if (!grid) return;
    // Where the current row has left, the one behind it has taken its place.
    let next = this.at === null ? 0 : this.indexOf(this.current()) !== null || by < 0 ? this.at + by : this.at;
    const rowAt = (index: number) => grid.getDisplayedRowAtIndex(index)?.data;
    while (this.going().has(rowAt(next)?.id ?? -1)) next += by;
    const row = rowAt(next);
    if (!row) return;
    grid.ensureIndexVisible(next);
    grid.setFocusedCell(next, grid.getFocusedCell()?.column ?? 'lastName');
    this.chosen.emit(row);
  }

  /** Marks the current row, or takes its mark off. */
  toggleMark() {
    const node = this.grid?.getRowNode(String(this.current()));
    node?.setSelected(!node.isSelected());
  }

  /** Takes the keys back, where the current row stands. */
  focus() {
    const at = this.indexOf(this.current());
    if (at !== null) this.grid?.setFocusedCell(at, this.grid.getFocusedCell()?.column ?? 'lastName');
  }

  /** The marked rows, or else the current one, as lines of a table: the columns that are shown, in their order. */
  table(): string[][] {
    const current = this.grid?.getRowNode(String(this.current()))?.data;
    const marked = this.grid?.getSelectedRows() ?? [];
    const rows = marked.length > 0 ? marked : current ? [current] : [];
    const columns = (this.grid?.getAllDisplayedColumns() ?? [])
      .map((column) => column.getColDef() as ColDef<ContactRow>)
      .filter(({ colId }) => TEXT[colId!] !== undefined);
    return [
      columns.map(({ headerName }) => headerName ?? ''),
      ...rows.map((row) => columns.map(({ colId }) => TEXT[colId!]!(row))),
    ];
  }

  clearMarks() {
    this.grid?.deselectAll();
  }
}
