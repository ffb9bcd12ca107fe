import { spawnSync } from 'node:child_process';
import { mkdtempSync, rmSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { openTable } from './table/read-table';

const dir = mkdtempSync(join(tmpdir(), 'encodings-'));
afterAll(() => rmSync(dir, { recursive: true, force: true }));

/** Lists of people as offices write them, in words of their language. */
const LISTS: Record<string, string> = {
  French:
    'Nom;Prénom;Société;Ville\nLefèvre;Zoé;Crémerie Brackenfold;Orléans\nMarchand;François;Fromagerie du Château;Besançon\nBérenger;Hélène;Élevage Noël;Nîmes\n',
  German:
    'Name;Vorname;Firma;Straße\nMüller;Jürgen;Käserei Brackenfold;Hauptstraße 4\nSchäfer;Björn;Molkerei Größe;Mühlgasse 11\nKöhler;Änne;Früchte & Süßes;Königsallee 2\n',
  Spanish:
    'Nombre;Apellido;Empresa;Ciudad\nPeña;Begoña;Quesería Brackenfold;Logroño\nMuñoz;José;Lácteos Año Nuevo;Málaga\nGarcía;Íñigo;Cañada Señorío;Cádiz\n',
  Polish:
    'Imię;Nazwisko;Firma;Miasto\nŁukasz;Wiśniewski;Mleczarnia Brackenfold;Łódź\nAgnieszka;Zielińska;Serowarnia Święta;Gdańsk\nZbigniew;Dąbrowski;Żółty Ser;Kraków\nŻaneta;Jabłońska;Młyn Ćwik;Wrocław\n',
  Russian:
    'Имя;Фамилия;Фирма;Город\nМария;Иванова;Сыроварня Брэкенфолд;Вологда\nПётр;Смирнов;Молочный двор;Кострома\nЕлена;Кузнецова;Сыры и масло;Ярославль\n',
  Japanese:
    '氏名;会社;役職;都市\n山田太郎;ブラッケンフォールド乳業;品質管理部長;札幌\n佐藤花子;北の酪農株式会社;工場長;函館\n鈴木一郎;チーズ工房;代表取締役;帯広\n',
  Irish:
    'Ainm;Sloinne;Comhlacht;Baile\nPádraig;Ó Súilleabháin;Cáiseanna Brackenfold;Maigh Eo\nSinéad;Ní Bhriain;Déiríocht an Chláir;Béal Átha\n',
};

// Written by iconv of the GNU C library, an independent program.
test.each([
  ['French', 'WINDOWS-1252'],
  ['French', 'ISO-8859-15'],
  ['German', 'ISO-8859-1'],
  ['German', 'UTF-16LE'],
  ['Spanish', 'WINDOWS-1252'],
  ['Spanish', 'UTF-16BE'],
  ['Polish', 'WINDOWS-1250'],
  ['Polish', 'ISO-8859-2'],
  ['Russian', 'WINDOWS-1251'],
  ['Russian', 'KOI8-R'],
  ['Japanese', 'SHIFT_JIS'],
  ['Japanese', 'EUC-JP'],
  ['Irish', 'WINDOWS-1252'],
  ['Irish', 'UTF-8'],
])('a %s list in %s is read as it was written, unasked', async (language, encoding) => {
  const { stdout, status } = spawnSync('iconv', ['-f', 'UTF-8', '-t', encoding], { input: LISTS[language] });
  expect(status).toBe(0);
  const file = join(dir, `${language} ${encoding}`);
  writeFileSync(file, stdout);
  const { rows } = await openTable(file, 'list.csv', {});
  const read: string[] = [];
  for await (const some of rows) read.push(...some.map(({ cells }) => cells.join(';')));
  expect(`${read.join('\n')}\n`).toBe(LISTS[language]);
});
