import { TestBed } from '@angular/core/testing';
import { MatSnackBar } from '@angular/material/snack-bar';
import { Subject } from 'rxjs';
import { sampleJob, webHarness } from '../testing/web-harness';
import { Decisions } from './decisions';

function open() {
  const { http } = webHarness();
  const action = new Subject<void>();
  const said: string[] = [];
  jest.spyOn(TestBed.inject(MatSnackBar), 'open').mockImplementation((words) => {
    said.push(words);
    return { onAction: () => action } as never;
  });
  return { http, said, takeBack: () => action.next(), decisions: TestBed.inject(Decisions) };
}

it('what was decided is said, and taken back just as it was', () => {
  const { http, said, takeBack, decisions } = open();
  const then = jest.fn();
  decisions.decide(2, { kind: 'set-aside', recordIds: [7] }, then);
  expect(then).not.toHaveBeenCalled();
  http.expectOne('/api/jobs/2/decisions').flush({ id: 31 });
  expect(then).toHaveBeenCalledTimes(1);
  takeBack();
  const back = http.expectOne('/api/jobs/2/decisions/31');
  expect(back.request.body).toEqual({ undone: true });
  back.flush({});
  expect(said).toEqual([said[0]!, `Taken back: ${said[0]!}`]);
});

it('a decision that did not reach the server is not taken as made', () => {
  const { http, said, decisions } = open();
  const then = jest.fn();
  decisions.decide(2, { kind: 'set-aside', recordIds: [7] }, then);
  http.expectOne('/api/jobs/2/decisions').flush({ message: 'The disk is full.' }, { status: 507, statusText: 'Full' });
  expect([said, then.mock.calls.length]).toEqual([['The disk is full.'], 0]);
});

it('setting a step up is a decision too', () => {
  const { http, said, takeBack, decisions } = open();
  decisions.configure(2, { kind: 'verify', on: false });
  http.expectOne('/api/jobs/2/steps').flush(sampleJob());
  takeBack();
  http.expectOne('/api/jobs/2/undo').flush({ body: { kind: 'configure', options: { kind: 'verify', on: false } } });
  expect(said[0]).toContain('the rows are being sifted');
  expect(said[1]).toContain('Taken back');
});

it('with nothing left to take back the server’s words are shown', () => {
  const { http, said, decisions } = open();
  decisions.undo(2);
  http
    .expectOne('/api/jobs/2/undo')
    .flush({ message: 'There is no decision left to take back in this job.' }, { status: 409, statusText: 'Conflict' });
  expect(said).toEqual(['There is no decision left to take back in this job.']);
});
