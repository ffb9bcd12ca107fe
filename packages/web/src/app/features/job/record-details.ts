import { ChangeDetectionStrategy, Component, input } from '@angular/core';
import type { RecordView } from '@sieve/contract';

/** A record as it came, cell by cell, under the name of its source. */
@Component({
  selector: 'cs-record-details',
  changeDetection: ChangeDetectionStrategy.OnPush,
  template: `
    <details>
      <summary>{{ record().source }}, row {{ record().line }}</summary>
      <table>
        @for (cell of record().cells; track $index) {
          <tr>
            <th scope="row">{{ cell.name }}</th>
            <td>{{ cell.value }}</td>
          </tr>
        }
      </table>
    </details>
  `,
  styles: `
    summary {
      padding: 2px 0;
      cursor: pointer;
    }
    table {
      width: 100%;
      margin: 4px 0;
      border-collapse: collapse;
      font-size: 11.5px;
    }
    th {
      padding-right: 8px;
      color: var(--ink-2);
      font-weight: 400;
      text-align: left;
      vertical-align: top;
    }
    td {
      overflow-wrap: anywhere;
    }
  `,
})
export class RecordDetails {
  readonly record = input.required<RecordView>();
}
