import { HttpClient, provideHttpClient, withInterceptors } from '@angular/common/http';
import { HttpTestingController, provideHttpClientTesting } from '@angular/common/http/testing';
import { TestBed } from '@angular/core/testing';
import { askAgain } from './ask-again';

const start = () => {
  TestBed.configureTestingModule({
    providers: [provideHttpClient(withInterceptors([askAgain])), provideHttpClientTesting()],
  });
  return { http: TestBed.inject(HttpClient), server: TestBed.inject(HttpTestingController) };
};

test('what is read is asked for again while the server is away; what it answered is its answer', () => {
  jest.useFakeTimers();
  const { http, server } = start();
  const said: unknown[] = [];
  http.get('/api/jobs').subscribe((jobs) => said.push(jobs));
  server.expectOne('/api/jobs').error(new ProgressEvent('refused'));
  jest.advanceTimersByTime(300);
  server.expectOne('/api/jobs').flush(['a job']);
  expect(said).toEqual([['a job']]);
  const failed = (error: { status: number }) => said.push(error.status);
  http.get('/api/jobs/9').subscribe({ error: failed });
  server.expectOne('/api/jobs/9').flush({}, { status: 404, statusText: 'Not found' });
  // What changes something is never sent twice.
  http.post('/api/jobs', {}).subscribe({ error: failed });
  server.expectOne('/api/jobs').error(new ProgressEvent('refused'));
  jest.advanceTimersByTime(60_000);
  server.verify();
  expect(said.slice(1)).toEqual([404, 0]);
  jest.useRealTimers();
});
