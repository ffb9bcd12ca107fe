import { readPage } from './page';
import { linesOf, linksOf, worthOf } from './site-pages';

const page = readPage(`<html><body>
  <nav><a href="/about">About us</a> <a href="/login">Log in</a></nav>
  <h1>Brackenfold Dairy</h1>
  <p>We make cheese. It is <b>aged</b> for
     eleven weeks!</p>
  <ul><li>Butter<li>Cream, 5 %</ul>
  <div>Line one<br>line two</div><p>—</p>
  <form><label>Your name</label><button>Send</button></form>
  <script>var hidden = 'We sell data.';</script>
</body></html>`);

test('a page is read a sentence a line, without its menus, forms and scripts', () => {
  expect(linesOf(page)).toEqual([
    'Brackenfold Dairy',
    'We make cheese.',
    'It is aged for eleven weeks!',
    'Butter',
    'Cream, 5 %',
    'Line one',
    'line two',
  ]);
  const long = linesOf(readPage(`<p>${'a'.repeat(900)}</p>${'<p>x</p>'.repeat(400)}`));
  expect([long[0]!.length, long.length]).toEqual([400, 300]);
});

test('of its links those that say what the firm does are worth most, baskets and logins nothing', () => {
  const [about, login] = linksOf(page);
  const worth = (path: string, text: string) => worthOf({ path, text });
  expect([about, login]).toEqual([
    { href: '/about', text: 'About us' },
    { href: '/login', text: 'Log in' },
  ]);
  expect(worth('/about', 'About us')).toBeGreaterThan(worth('/news', 'News'));
  expect(worth('/produkte', 'Sortiment')).toBeGreaterThan(worth('/kontakt', 'Kontakt'));
  expect([worth('/login', 'Log in'), worth('/a', 'Privacy'), worth('/list.pdf', 'Our prices')]).toEqual([-1, -1, -1]);
});
