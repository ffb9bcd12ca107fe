import { fixture } from '../fixtures/read';
import { isMailbox } from './email-syntax';
import { isIP } from './ip';
import { isDisposable, isFreeMail, isRole } from '../words/mail';

// RFC 5321, 3696, 6531: the is_email suite and RFC examples, fixtures/README.md.
test.each(fixture('email-syntax.csv').map((row) => ({ ...row, address: JSON.parse(row['address_json']!) as string })))(
  '$id $smtp_expected',
  ({ address, smtp_expected: expected }: Record<string, string>) => {
    expect(isMailbox(address!)).toBe(expected !== 'invalid');
  },
);

// RFC 4291 2.2 and RFC 5321 4.1.3 forms.
test.each([
  ['192.0.2.1', 4],
  ['192.0.2.256', 0],
  ['2001:db8::1', 6],
  ['::ffff:192.0.2.1', 6],
  ['2001:db8:1', 0],
  ['1::2::3', 0],
])('%s is IP version %i', (text, version) => expect(isIP(text)).toBe(version));

test('roles, free and disposable mailboxes are told', () => {
  expect([isRole('info@a.example'), isRole('postmaster@a.example'), isRole('ines@a.example')]).toEqual([
    true,
    true,
    false,
  ]);
  const own = ['freepost.example'];
  expect([isFreeMail('freepost.example', own), isFreeMail('brackenfold.example', own)]).toEqual([true, false]);
  expect([isDisposable('a@freepost.example', own), isDisposable('a@brackenfold.example', own)]).toEqual([true, false]);
});
