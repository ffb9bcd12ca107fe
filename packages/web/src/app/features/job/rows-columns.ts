import type { ContactRow, RowQuery } from '@sieve/contract';
import type { ColDef, ICellRendererParams } from 'ag-grid-community';
import { phoneWords } from '../../ui/phone-words';
import { sureWords } from '../../ui/sure-words';
import { reasonOf } from './reason';
import type { StepView } from './steps/step-view';

/** What each column shows of a row; the same is copied out. */
export const TEXT: Record<string, (row: ContactRow) => string> = {
  lastName: ({ name }) => name,
  title: ({ title }) => title,
  company: ({ company }) => company,
  email: ({ email }) => email,
  city: ({ place }) => place,
  why: reasonOf,
  profile: ({ profile }) => profile,
  sure: ({ profile, profileSure }) => (profileSure !== null ? sureWords(profileSure) : profile ? 'as it came' : ''),
  phone: ({ phone }) => phone,
  phoneIs: ({ knownPhone }) => (knownPhone ? phoneWords(knownPhone) : ''),
  own: ({ own }) => own,
  records: ({ records }) => String(records),
  source: ({ source }) => source.replace(/\.\w{2,4}\b/g, ''),
};

const TITLE: ColDef<ContactRow> = { colId: 'title', headerName: 'Title', flex: 1.15, minWidth: 90, sortable: true };

/** The columns that the rows of a fate are looked at by. */
export function columnsOf(view: StepView, fate: RowQuery['fate'], own = ''): ColDef<ContactRow>[] {
  const { shows, merges } = view;
  const late = shows === 'email';
  const columns: ColDef<ContactRow>[] = [
    { colId: 'mark', width: 34, resizable: false, cellRenderer: mark, headerName: '' },
    { colId: 'lastName', headerName: 'Name', flex: 1.1, minWidth: 110, sortable: true, cellRenderer: nameCell },
    ...(shows === 'phone' ? [] : [TITLE]),
    { colId: 'company', headerName: 'Company', flex: 1.15, minWidth: 90, sortable: true },
  ];
  if (late)
    columns.push({
      colId: 'email',
      headerName: 'Email',
      flex: 1.5,
      minWidth: 150,
      cellClass: 'address',
      sortable: true,
    });
  else if (shows === 'profile' && fate === 'pass')
    columns.push(
      { colId: 'profile', headerName: 'Profile', flex: 1.4, minWidth: 150, cellClass: 'address' },
      { colId: 'sure', headerName: 'How sure', width: 96, cellClass: 'dim' },
    );
  else if (shows === 'phone' && fate === 'pass')
    columns.push(
      { colId: 'phone', headerName: 'Phone', flex: 0.9, minWidth: 120, cellClass: 'address' },
      { colId: 'phoneIs', headerName: 'What it is', flex: 1.5, minWidth: 120, cellClass: 'dim' },
    );
  else columns.push({ colId: 'city', headerName: 'Place', flex: 0.9, minWidth: 70, cellClass: 'dim', sortable: true });
  if (fate !== 'pass' || late)
    columns.push({ colId: 'why', headerName: 'Why', flex: 1.4, minWidth: 120, cellClass: 'dim' });
  if (own) columns.push({ colId: 'own', headerName: own, flex: 0.8, minWidth: 70, cellClass: 'dim', sortable: true });
  if (merges) columns.push({ colId: 'records', headerName: 'Records', width: 76, cellClass: 'figure', sortable: true });
  if (fate === 'pass' && !late && shows !== 'phone')
    columns.push({ colId: 'source', headerName: 'Source', flex: 0.8, minWidth: 60, cellClass: 'dim' });
  return columns.map((column) => ({ ...column, valueGetter: ({ data }) => data && TEXT[column.colId!]?.(data) }));
}

const SHAPES: Record<string, string> = {
  valid: '<circle cx="6" cy="6" r="5" fill="var(--spruce)"/>',
  risky:
    '<circle cx="6" cy="6" r="4.6" fill="none" stroke="var(--saffron)" stroke-width="1.4"/><path d="M1.4 6a4.6 4.6 0 0 0 9.2 0z" fill="var(--saffron)"/>',
  invalid:
    '<circle cx="6" cy="6" r="4.6" fill="none" stroke="var(--brick)" stroke-width="1.4"/><path d="M2.9 2.9l6.2 6.2" stroke="var(--brick)" stroke-width="1.4"/>',
  aged: '<circle cx="6" cy="6" r="4.6" fill="none" stroke="var(--saffron)" stroke-width="1.4" stroke-dasharray="1.6 1.7"/><path d="M6 3.4V6l1.8 1.2" fill="none" stroke="var(--saffron)" stroke-width="1.2"/>',
  unknown:
    '<circle cx="6" cy="6" r="4.6" fill="none" stroke="var(--ink-3)" stroke-width="1.3" stroke-dasharray="1.6 1.7"/>',
};

/** The shapes of VerdictMark as plain elements: the grid draws thousands of them. */
function mark({ data }: ICellRendererParams<ContactRow>): HTMLElement | string {
  if (!data) return '';
  const span = document.createElement('span');
  const aged = data.fate.code === 'no-longer-fresh';
  const kind = aged ? 'aged' : data.verdict in SHAPES ? data.verdict : 'unknown';
  span.title = aged ? 'its verdict has aged and is asked again' : data.verdict || 'no verdict yet';
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
