import { readBounces } from './bounces';

// After the examples of RFC 3464, appendix E, from memory; its addresses moved to a name kept for documentation.
const REPORT = `Content-Type: message/delivery-status

Reporting-MTA: dns; cs.utk.example

Original-Recipient: rfc822;louisl@larry.slip.umd.example
Final-Recipient: rfc822;louisl@larry.slip.umd.example
Action: failed
Status: 4.0.0
Diagnostic-Code: smtp; 426 connection timed out
Last-Attempt-Date: Thu, 7 Jul 1994 17:15:49 -0400

Final-Recipient: RFC822; Maren@Tidewell.example
Action: failed
Status: 5.1.1 (bad destination mailbox address)
Diagnostic-Code: smtp; 550 5.1.1 user unknown

Final-Recipient: rfc822; idris@tidewell.example
Status: 5.2.2

Final-Recipient: rfc822; rhona@tidewell.example
Status: 5.7.1
`;

test('delivery status notifications say who, and what was the matter', () => {
  expect(readBounces(REPORT)).toEqual({
    bounces: [
      { email: 'maren@tidewell.example', state: 'no-mailbox' },
      { email: 'idris@tidewell.example', state: 'full' },
      { email: 'rhona@tidewell.example', state: 'refused' },
    ],
    unread: 0,
  });
});

// Codes of RFC 3463, sections 3.2 to 3.8, and of RFC 5321, 4.2.3.
test.each([
  ['a@b.example;5.1.1', 'no-mailbox'],
  ['a@b.example,"smtp; 550 5.1.6 moved"', 'no-mailbox'],
  ['a@b.example 5.1.2 bad destination system', 'no-mailbox'],
  ['a@b.example 5.2.1 mailbox disabled', 'no-mailbox'],
  ['a@b.example 552 5.2.2 mailbox full', 'full'],
  ['a@b.example 4.2.2', 'full'],
  ['a@b.example 5.3.4 message too big', 'refused'],
  ['a@b.example 5.4.4 unable to route', 'refused'],
  ['a@b.example 5.7.1 delivery not authorised', 'refused'],
  ['a@b.example 554 transaction failed', 'refused'],
  ['a@b.example 550', 'no-mailbox'],
  ['A@B.example', 'no-mailbox'],
  ['a@b.example 451 local error', undefined],
  ['a@b.example 4.4.1 no answer', undefined],
])('%s: %s', (line, state) => {
  expect(readBounces(line).bounces[0]?.state).toBe(state);
});

test('a line that names nobody is counted', () => {
  expect(readBounces('Email;Reason\na@b.example;5.1.1\n\nnobody').unread).toBe(2);
});
