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
  http.expectOne('/api/jobs/2/decisions').flush({ id: 31, body: { kind: 'set-aside', recordIds: [7] } });
  expect(then).toHaveBeenCalledTimes(1);
  takeBack();
  const back = http.expectOne('/api/decisions/31');
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

it('setting a step up is a decision too, made upon what was read of the step', () => {
  const { http, said, takeBack, decisions } = open();
  const was = sampleJob().sieve.find(({ id }) => id === 'verify')!;
  decisions.configure(2, { ...was, on: false }, was);
  const asked = http.expectOne('/api/jobs/2/steps');
  expect(asked.request.body).toEqual({ step: { ...was, on: false }, was });
  asked.flush({ job: sampleJob(), decision: { id: 32, body: { kind: 'configure', step: was } } });
  takeBack();
  http.expectOne('/api/decisions/32').flush({});
  expect(said[0]).toContain('the rows are being sifted');
  expect(said[1]).toContain('Taken back');
});

const about = { subject: 'job', subjectId: 2 } as const;
const row = (id: number, author: string, undoneAt: number | null) => ({
  ...about,
  id,
  author,
  at: 0,
  undoneAt,
  body: { kind: 'set-aside', recordIds: [id] },
});

it('one takes back one’s own last decision, never one that a schedule made meanwhile; and makes it again', () => {
  const { http, said, decisions } = open();
  const listed = [row(9, 'schedule', null), row(8, 'you', 70), row(7, 'you', null), row(6, 'you', 90)];
  decisions.undo(about);
  http.expectOne('/api/decisions?subject=job&subjectId=2').flush(listed);
  http.expectOne('/api/decisions/7').flush({});
  decisions.redo(about);
  http.expectOne('/api/decisions?subject=job&subjectId=2').flush(listed);
  const again = http.expectOne('/api/decisions/6');
  expect(again.request.body).toEqual({ undone: false });
  again.flush({});
  expect(said).toEqual(['Taken back: 1 record set aside', 'Made again: 1 record set aside']);
});

it('with nothing left to take back it is said', () => {
  const { http, said, decisions } = open();
  decisions.undo(about);
  http.expectOne('/api/decisions?subject=job&subjectId=2').flush([row(9, 'schedule', null)]);
  expect(said).toEqual(['No decision of yours is left to take back here.']);
});
