import { HttpClient, HttpErrorResponse } from '@angular/common/http';
import { inject, Injectable } from '@angular/core';
import type { Column, DecisionBody, RowIssue, Search, SieveStep, Subject } from '@sieve/core';
import type {
  NewSuppressions,
  Suppressed,
  SuppressedFile,
  SuppressionFile,
  ScreenEffect,
  AskEstimate,
  BouncesTold,
  CompanyPage,
  ContactGroup,
  ContactView,
  GroupQuery,
  HitRate,
  NextValid,
  PersonInFull,
  CountView,
  DecisionRow,
  DecisionSubject,
  DirectoryRow,
  ExportLayout,
  ExportPreview,
  ExportRun,
  Format,
  FirmEffect,
  LookupOrders,
  FirmPage,
  FirmPairs,
  FirmQuery,
  FirmView,
  FoundThings,
  HarvestPatch,
  HeldAlready,
  LookedUp,
  HarvestStarted,
  HarvestView,
  Inspection,
  Job,
  JobPatch,
  KnownShape,
  LedgerQuery,
  LedgerView,
  Left,
  LikeView,
  NewHarvest,
  NewJob,
  NewRefund,
  PageView,
  PairsView,
  PickList,
  PicksBody,
  EarlierBatches,
  PullBody,
  PullForecast,
  RobotsSay,
  RowPage,
  RowQuery,
  Run,
  OwnField,
  RunAction,
  StartRun,
  SaidFormat,
  SampleView,
  Uploaded,
  ValuesView,
  VerdictCounts,
  SearchBatchesBody,
  SearchPatch,
  SearchRow,
  SearchView,
  SettingsView,
  SourceColumns,
  SourceRow,
  Sought,
  SpendDay,
  SuppressionRow,
  TriedService,
  TryService,
  TypedContact,
  WebPage,
  WhoComes,
  WebPageFetched,
  WordChanges,
  WordChangesBody,
} from '@sieve/contract';
import type { Observable } from 'rxjs';

/** The server's addresses, one method each. */
@Injectable({ providedIn: 'root' })
export class Api {
  private readonly http = inject(HttpClient);

  seeRuns = () => this.http.post<Run[]>('/api/runs/seen', {});
  jobs = () => this.http.get<Job[]>('/api/jobs');
  job = (id: number) => this.http.get<Job>(`/api/jobs/${id}`);
  createJob = (job: NewJob) => this.http.post<Job>('/api/jobs', job);
  patchJob = (id: number, patch: JobPatch & { was?: JobPatch }) => this.http.patch<Job>(`/api/jobs/${id}`, patch);
  rows = (id: number, query: Partial<RowQuery>) =>
    this.http.get<RowPage>(`/api/jobs/${id}/rows`, { params: asParams(query) });
  contact = (id: number, contact: number) => this.http.get<ContactView>(`/api/jobs/${id}/contacts/${contact}`);
  pairs = (id: number) => this.http.get<PairsView>(`/api/jobs/${id}/pairs`);
  screenEffect = (job: number, options: unknown) =>
    this.http.post<ScreenEffect>(`/api/jobs/${job}/screen/effect`, options);
  wordChanges = (list: WordChangesBody) => this.http.post<WordChanges>('/api/words/changes', list);
  nextValid = (id: number) => this.http.get<NextValid>(`/api/jobs/${id}/next-valid`);
  hitRates = (id: number) => this.http.get<HitRate[]>(`/api/jobs/${id}/hit-rates`);
  groups = (id: number, query: GroupQuery) =>
    this.http.get<ContactGroup[]>(`/api/jobs/${id}/groups`, { params: query });
  companies = (id: number, query: Partial<Pick<RowQuery, 'q' | 'offset' | 'limit'>>) =>
    this.http.get<CompanyPage>(`/api/jobs/${id}/companies`, { params: asParams(query) });
  firms = (id: number, query: Partial<FirmQuery>) =>
    this.http.get<FirmPage>(`/api/jobs/${id}/firms`, { params: asParams(query) });
  firmEffect = (job: number, options: unknown) => this.http.post<FirmEffect>(`/api/jobs/${job}/firms/effect`, options);
  bounces = (text: string) => this.http.post<BouncesTold>('/api/bounces', { text });
  verdictCounts = (job: number) => this.http.get<VerdictCounts>(`/api/jobs/${job}/verdict-counts`);
  ledger = (query: LedgerQuery) => this.http.get<LedgerView>('/api/ledger', { params: asParams(query) });
  giveBack = (refund: NewRefund) => this.http.post<{ leftCents: number }>('/api/ledger/refunds', refund);
  lookupOrders = (order: readonly string[], of: Sought) =>
    this.http.get<LookupOrders>('/api/lookup-orders', { params: { order: order.join(), of } });
  firmPairs = (job: number, step: string) =>
    this.http.get<FirmPairs>(`/api/jobs/${job}/firm-pairs`, { params: { step } });
  firm = (id: number, step: string, key: string) =>
    this.http.get<FirmView>(`/api/jobs/${id}/firm`, { params: { step, key } });
  person = (id: number, contact: number) => this.http.get<PersonInFull>(`/api/jobs/${id}/people/${contact}`);
  find = (q: string) => this.http.get<FoundThings>('/api/found', { params: { q } });
  sources = (id: number) => this.http.get<SourceRow[]>(`/api/jobs/${id}/sources`);
  sourceIssues = (id: number, source: number) => this.http.get<RowIssue[]>(`/api/jobs/${id}/sources/${source}/issues`);
  decisions = (subject: DecisionSubject) => this.http.get<DecisionRow[]>('/api/decisions', { params: { ...subject } });
  decide = (id: number, body: DecisionBody) => this.http.post<DecisionRow>(`/api/jobs/${id}/decisions`, { body });
  configure = (id: number, step: SieveStep, was: SieveStep) =>
    this.http.post<{ job: Job; decision: DecisionRow }>(`/api/jobs/${id}/steps`, { step, was });
  setUndone = (decision: number, undone: boolean) =>
    this.http.post<DecisionRow>(`/api/decisions/${decision}`, { undone });

  upload = (file: Blob, name: string) =>
    this.http.post<Uploaded>('/api/uploads', file, {
      params: { name },
      headers: { 'content-type': 'application/octet-stream' },
      observe: 'events',
      reportProgress: true,
    });
  inspect = (
    upload: string,
    name: string,
    body: { format: SaidFormat; columns: Column[] | null; jobId: number | null; beginning?: boolean },
  ) => this.http.post<Inspection>(`/api/uploads/${upload}/inspect`, body, { params: { name } });
  bringIn = (
    job: number,
    body: { uploadId: string; name: string; format: Format; columns: Column[]; take: WhoComes },
    rows: number,
  ) => this.http.post<{ sourceId: number; runId: number }>(`/api/jobs/${job}/sources`, body, { params: { rows } });

  shapes = () => this.http.get<KnownShape[]>('/api/shapes');
  setShape = (columns: readonly Column[]) => this.http.post<KnownShape[]>('/api/shapes', { columns });
  forgetShape = (shape: string) => this.http.post<KnownShape[]>('/api/shapes/forget', { shape });
  readContact = (job: number, text: string) => this.http.post<TypedContact>(`/api/jobs/${job}/contact-text`, { text });
  heldAlready = (job: number, contact: TypedContact) =>
    this.http.post<HeldAlready>(`/api/jobs/${job}/contact-held`, contact);
  addContact = (job: number, contact: TypedContact) =>
    this.http.post<{ sourceId: number }>(`/api/jobs/${job}/contacts`, contact);
  lookUp = (q: string) => this.http.get<LookedUp>('/api/look-up', { params: { q } });
  lookUpDirectory = (q: string) =>
    this.http.get<(DirectoryRow & { held: boolean })[]>('/api/look-up/directory', { params: { q } });
  fetchPage = (address: string) => this.http.post<WebPageFetched>('/api/pages', { address });
  robots = (address: string) => this.http.post<RobotsSay>('/api/pages/robots', { address });
  webPage = (upload: string, name: string, address: string) =>
    this.http.post<WebPage>(`/api/uploads/${upload}/page`, { address }, { params: { name } });
  startHarvest = (job: number, body: NewHarvest) => this.http.post<HarvestStarted>(`/api/jobs/${job}/harvests`, body);
  harvest = (id: number) => this.http.get<HarvestView>(`/api/harvests/${id}`);
  patchHarvest = (id: number, patch: HarvestPatch) => this.http.patch<HarvestView>(`/api/harvests/${id}`, patch);
  harvestAgain = (id: number) => this.http.post<HarvestStarted>(`/api/harvests/${id}/again`, {});

  runs = () => this.http.get<Run[]>('/api/runs');
  left = (job: number) => this.http.get<Left>(`/api/jobs/${job}/left`);
  estimate = (job: number, of: Sought) => this.http.get<AskEstimate>(`/api/jobs/${job}/estimate`, { params: { of } });
  ask = (job: number, body: StartRun) => this.http.post<{ runId: number }>(`/api/jobs/${job}/runs`, body);
  actOnRun = (id: number, action: RunAction) => this.http.post<Run>(`/api/runs/${id}`, { action });

  exportPreview = (job: number, layout: ExportLayout) =>
    this.http.post<ExportPreview>(`/api/jobs/${job}/exports/preview`, layout);
  export = (job: number, layout: ExportLayout) =>
    this.http.post<{ exportId: number; runId: number }>(`/api/jobs/${job}/exports`, layout);
  exports = (job: number) => this.http.get<ExportRun[]>(`/api/jobs/${job}/exports`);

  searches = () => this.http.get<SearchRow[]>('/api/searches');
  search = (id: number) => this.http.get<SearchView>(`/api/searches/${id}`);
  createSearch = (body: { name: string; folder: string; jobId: number | null; search: Search }) =>
    this.http.post<SearchView>('/api/searches', body);
  patchSearch = (id: number, patch: SearchPatch) => this.http.patch<SearchView>(`/api/searches/${id}`, patch);
  countSearch = (search: Search) => this.http.post<CountView>('/api/directory/count', { search });
  sample = (search: Search, size: number, jobId: number | null) =>
    this.http.post<SampleView>('/api/directory/sample', { search, size, jobId });
  directoryValues = (search: Search, field: string) =>
    this.http.post<ValuesView>('/api/directory/values', { search, field });
  sourceColumns = (job: number, source: number) =>
    this.http.get<SourceColumns>(`/api/jobs/${job}/sources/${source}/columns`);
  ownFields = (job: number) => this.http.get<OwnField[]>(`/api/jobs/${job}/own-fields`);
  directoryPage = (search: Search, page: number) => this.http.post<PageView>('/api/directory/page', { search, page });
  like = (about: 'companies' | 'people', rows: readonly DirectoryRow['found'][]) =>
    this.http.post<LikeView[]>('/api/directory/like', { about, rows });
  splitSearch = (id: number) => this.http.post<SearchView>(`/api/searches/${id}/split`, {});
  setBatches = (id: number, batches: SearchBatchesBody['batches']) =>
    this.http.put<SearchView>(`/api/searches/${id}/batches`, { batches });
  splitBatch = (id: number, position: number, field: string) =>
    this.http.post<SearchView>(`/api/searches/${id}/batches/split`, { position, field });
  joinBatches = (id: number, a: number, b: number) =>
    this.http.post<SearchView>(`/api/searches/${id}/batches/join`, { a, b });
  forecastPull = (id: number, body: PullBody) => this.http.post<PullForecast>(`/api/searches/${id}/forecast`, body);
  pull = (id: number, body: PullBody) => this.http.post<{ runIds: number[] }>(`/api/searches/${id}/pulls`, body);
  earlierBatches = (id: number) => this.http.get<EarlierBatches[]>(`/api/searches/${id}/earlier`);
  restoreBatches = (id: number, decision: number) =>
    this.http.post<SearchView>(`/api/searches/${id}/restore`, { decision });
  askNow = (id: number) => this.http.post<{ runIds: number[] }>(`/api/searches/${id}/ask-now`, {});
  pickLists = () => this.http.get<PickList[]>('/api/pick-lists');
  createPickList = (name: string, about: Subject) => this.http.post<PickList>('/api/pick-lists', { name, about });
  picks = (id: number) => this.http.get<DirectoryRow[]>(`/api/pick-lists/${id}/picks`);
  pick = (id: number, body: PicksBody) =>
    this.http.post<PickList & { added: number }>(`/api/pick-lists/${id}/picks`, body);
  unpick = (id: number, row: string) => this.http.delete<PickList>(`/api/pick-lists/${id}/picks`, { params: { row } });
  picksToJob = (id: number, jobId: number) =>
    this.http.post<{ rows: number }>(`/api/pick-lists/${id}/to-job`, { jobId });

  settings = () => this.http.get<SettingsView>('/api/settings');
  saveSettings = (view: SettingsView) => this.http.put<SettingsView>('/api/settings', view);
  suppressions = () => this.http.get<SuppressionRow[]>('/api/suppressions');
  suppress = (body: NewSuppressions) => this.http.post<Suppressed>('/api/suppressions', body);
  suppressFile = (body: SuppressionFile) => this.http.post<SuppressedFile>('/api/suppressions/file', body);
  unsuppress = (key: string): Observable<unknown> => this.http.delete('/api/suppressions', { params: { key } });
  tryService = (service: TryService) => this.http.post<TriedService>('/api/services/try', service);
  spend = () => this.http.get<SpendDay[]>('/api/spend');
}

const asParams = (query: object): Record<string, string> =>
  Object.fromEntries(
    Object.entries(query)
      .filter(([, value]) => value !== undefined && value !== '' && value !== false)
      .map(([key, value]) => [key, String(value)]),
  );

/** The words of a failed request; a server that does not answer has words of its own. */
export function wordsOf(error: unknown): string {
  if (!(error instanceof HttpErrorResponse))
    return 'Something failed in this page. What was saved before is kept; load the page again.';
  if (error.status === 0) return 'The server does not answer. Nothing is lost; this goes on when it is back.';
  return (
    (error.error as { message?: string } | null)?.message ??
    `The server answered ${error.status}. What was saved before is kept; try again.`
  );
}
