import { chance, pick } from '../kit/chance';
import type { Worker } from './world';

/** Where somebody is listed, and under which first name. */
export interface Home {
  street: string;
  city: string;
  postcode: string;
  /** Where they lived until lately; null for those who have not moved. */
  before: { street: string; city: string; postcode: string } | null;
  /** The directories still list them there. */
  listedBefore: boolean;
  /** The first name the line is under: theirs, its initial, or that of somebody they live with. */
  listedAs: string;
  /** Of the home, and of their own pocket; '' for none that is listed. */
  landline: string;
  mobile: string;
}

const STREETS = ['Mill Lane', 'Chapel Street', 'Tanner’s Row', 'Quarry Road', 'Weir Close', 'Dovecote Gardens'];
const PARTNERS = ['Robin', 'Alex', 'Jo', 'Frances', 'Leslie', 'Hilary', 'Evelyn', 'Morgan'];

/** The home of somebody in Britain or Ireland; null elsewhere: no directory here reaches further. */
export function homeOf(person: Worker): Home | null {
  const { id, firm } = person;
  if (firm.country !== 'GB' && firm.country !== 'IE') return null;
  const place = (which: string) => ({
    street: `${1 + Math.floor(chance(which, 'number', id) * 80)} ${pick(STREETS, which, 'street', id)}`,
    city: firm.city,
    postcode: postcode(firm.country, which, id),
  });
  const moved = chance('moved home', id) < 0.2;
  const under = chance('listed under', id);
  return {
    ...place('home'),
    before: moved ? place('home before') : null,
    listedBefore: moved && chance('listed before', id) < 0.7,
    listedAs: under < 0.62 ? person.firstName : under < 0.72 ? person.firstName[0]! : pick(PARTNERS, 'partner', id),
    landline: chance('has landline', id) < 0.8 ? landline(id) : '',
    mobile: chance('has mobile', id) < 0.5 ? mobile(id) : '',
  };
}

const figures = (count: number, ...words: (string | number)[]) =>
  String(Math.floor(chance(...words) * 10 ** count)).padStart(count, '0');

const landline = (id: number) => `${pick(['020 7946 0', '0113 496 0'], 'exchange', id)}${figures(3, 'landline', id)}`;

/** Those that are kept for fiction in Britain are valid by no plan; these are, of Germany and Sweden. */
const mobile = (id: number) => {
  const n = 5 + Math.floor(chance('mobile', id) * 95);
  return `${pick(['+49 176 040690', '+49 171 39200', '+46 70 174 06'], 'network', id)}${String(n).padStart(2, '0')}`;
};

/** Codes of areas that there are not: ZZ in Britain, Z99 in Ireland. */
function postcode(country: string, which: string, id: number): string {
  const figure = (n: number) => Math.floor(chance(which, 'code', n, id) * 10);
  const letter = (n: number) => 'ABDEFGHJLN'[figure(n)]!;
  return country === 'GB'
    ? `ZZ${1 + (figure(1) % 9)} ${figure(2)}${letter(3)}${letter(4)}`
    : `Z99 ${letter(5)}${figure(6)}${figure(7)}${letter(8)}`;
}
