import fc from 'fast-check';
import { contactIn } from './contact-text';

test('signatures, cards and lines of a page, in their usual shapes', () => {
  expect(
    contactIn(
      `Kind regards\n\nMaren Oakhill\nTechnical Manager\nBrackenfold Dairies Ltd\nT: 0113 496 0417 | M: +353 20 912 0417\nmaren.oakhill@brackenfold.example | www.brackenfold.example\n14 Mill Lane, Wells, BA5 2PX`,
      'GB',
    ),
  ).toEqual({
    fullName: 'Maren Oakhill',
    title: 'Technical Manager',
    company: 'Brackenfold Dairies Ltd',
    email: 'maren.oakhill@brackenfold.example',
    phone: '+441134960417; +353 20 912 0417',
    website: 'www.brackenfold.example',
    place: '14 Mill Lane, Wells, BA5 2PX',
  });
  expect(
    contactIn('Piers Hathersage, Head of Production at Edale & Daughters\npiers@edale.example', 'GB'),
  ).toMatchObject({
    fullName: 'Piers Hathersage',
    title: 'Head of Production, Edale & Daughters',
    email: 'piers@edale.example',
  });
  expect(contactIn('Quality Manager, Caws Penllyn\nGwenllian Parry\n020 7946 0318\nFax: 020 7946 0319', 'GB')).toEqual({
    fullName: 'Gwenllian Parry',
    title: 'Quality Manager',
    company: 'Caws Penllyn',
    phone: '+442079460318',
    note: 'Fax: 020 7946 0319',
  });
  // A name that no list has, known by its address; a firm known by its domain.
  expect(contactIn('Xanthe Zzyr\nTeifi Bank\nx.zzyr@teifibank.example\nhttps://directory.example/p/991', 'GB')).toEqual(
    {
      fullName: 'Xanthe Zzyr',
      company: 'Teifi Bank',
      email: 'x.zzyr@teifibank.example',
      profile: 'https://directory.example/p/991',
    },
  );
});

test('a line that only takes leave is dropped; one that says more is the note', () => {
  expect(contactIn('Many thanks,\nMaren Oakhill', 'GB')).toEqual({ fullName: 'Maren Oakhill' });
  expect(contactIn('Maren Oakhill\nMany thanks for the wheels at the show', 'GB').note).toBe(
    'Many thanks for the wheels at the show',
  );
});

test('a text without an end is the note', () => {
  const text = 'x'.repeat(19_000);
  expect(contactIn(`Maren Oakhill\n${text}`, 'GB')).toEqual({ fullName: 'Maren Oakhill', note: text });
});

test('whatever is pasted, no line of it is lost', () => {
  fc.assert(
    fc.property(
      fc.array(
        fc.string({ minLength: 1, maxLength: 30 }).filter((s) => /^[a-z ]+$/.test(s) && s.trim() !== ''),
        { maxLength: 6 },
      ),
      (lines) => {
        const said = Object.values(contactIn(lines.join('\n'), 'GB')).join(' ');
        for (const line of lines) for (const word of line.trim().split(/\s+/)) expect(`${said}`).toContain(word);
      },
    ),
  );
});
