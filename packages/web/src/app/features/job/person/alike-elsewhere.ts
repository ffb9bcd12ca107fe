import { ChangeDetectionStrategy, Component, computed, input } from '@angular/core';
import { RouterLink } from '@angular/router';
import { PERSON_FIELDS, READ_FROM_OTHERS } from '@sieve/core/model/person';
import { FIELD_WORDS, type PersonInFull } from '@sieve/contract';
import { roundedDown } from '../../../ui/rounded-down';

/** Somebody whom another job holds and who may be the same, value beside value. */
@Component({
  selector: 'cs-alike-elsewhere',
  changeDetection: ChangeDetectionStrategy.OnPush,
  imports: [RouterLink],
  template: `
    <p>
      @if (percent(); as percent) {
        <b class="num">{{ percent }} %</b> likely the same as in
      } @else {
        Of one name and a like company with somebody in
      }
      <a [routerLink]="['/jobs', other().jobId]" [queryParams]="{ row: other().contact, full: 1 }">{{ other().job }}</a>
    </p>
    <table>
      <thead>
        <tr>
          <th></th>
          <th scope="col">Here</th>
          <th scope="col">There</th>
        </tr>
      </thead>
      <tbody>
        @for (line of lines(); track line.field) {
          <tr>
            <th scope="row">{{ line.field }}</th>
            <td>{{ line.here }}</td>
            <td [class.differs]="line.differs">{{ line.there }}</td>
          </tr>
        }
      </tbody>
    </table>
  `,
  styles: `
    p {
      margin: 0 0 4px;
    }
    table {
      width: 100%;
      border-collapse: collapse;
      table-layout: fixed;
      font-size: 12px;
    }
    th {
      padding: 3px 8px 3px 0;
      color: var(--ink-2);
      font-weight: 400;
      text-align: left;
      vertical-align: top;
    }
    th:first-child {
      width: 82px;
    }
    td {
      padding: 3px 8px 3px 0;
      border-top: 1px solid var(--line);
      vertical-align: top;
      overflow-wrap: anywhere;
    }
    tbody th {
      border-top: 1px solid var(--line);
    }
    .differs {
      color: var(--plum);
    }
  `,
})
export class AlikeElsewhere {
  readonly here = input.required<PersonInFull['contact']['person']>();
  readonly other = input.required<PersonInFull['likely'][number]>();

  protected readonly percent = computed(() => roundedDown((this.other().chance ?? 0) * 100, 0));
  protected readonly lines = computed(() =>
    PERSON_FIELDS.filter((field) => !READ_FROM_OTHERS.includes(field)).flatMap((field) => {
      const [here, there] = [this.here()[field], this.other().person[field]];
      if (here === '' && there === '') return [];
      return [{ field: FIELD_WORDS[field], here, there, differs: here !== '' && there !== '' && here !== there }];
    }),
  );
}
