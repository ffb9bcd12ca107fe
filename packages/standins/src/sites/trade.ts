import { chance, pick, weighted } from '../kit/chance';
import type { Firm } from '../world/world';

/** What a firm really does, whatever its name says. */
export type Trade =
  'cheese' | 'milk' | 'ice' | 'shop' | 'store' | 'food' | 'equipment' | 'consultancy' | 'packaging' | 'cooling';

const BY_NAME: Record<string, Partial<Record<Trade, number>>> = {
  Dairy: { cheese: 60, milk: 35, shop: 5 },
  Creamery: { cheese: 78, milk: 14, ice: 8 },
  'Farmhouse Cheese': { cheese: 92, shop: 8 },
  'Cheese Works': { cheese: 88, shop: 12 },
  Dairies: { cheese: 55, milk: 45 },
  Goats: { cheese: 75, milk: 20, shop: 5 },
  'Cheese Co.': { cheese: 70, shop: 30 },
  'Ice Cream': { ice: 96, cheese: 4 },
  'Cold Stores': { store: 100 },
  'Cold Storage': { store: 100 },
  Foods: { food: 86, cheese: 8, shop: 6 },
  'Dairy Equipment': { equipment: 100 },
  'Food Consultancy': { consultancy: 100 },
  Packaging: { packaging: 100 },
  'Refrigeration Services': { cooling: 100 },
};

/** What a firm does. */
export function tradeOf({ id, name }: Pick<Firm, 'id' | 'name'>): Trade {
  const words = Object.keys(BY_NAME).find((ending) => name.endsWith(ending))!;
  return weighted(BY_NAME[words] as Record<Trade, number>, 'trade', id);
}

const SECTOR: Record<Trade, string> = {
  cheese: 'Cheese making',
  milk: 'Dairy processing',
  ice: 'Ice cream',
  shop: 'Food retail',
  store: 'Cold storage',
  food: 'Food manufacturing',
  equipment: 'Equipment',
  consultancy: 'Consultancy',
  packaging: 'Packaging',
  cooling: 'Building services',
};
const SIZE: Record<Trade, number> = {
  cheese: 18,
  milk: 70,
  ice: 22,
  shop: 9,
  store: 90,
  food: 140,
  equipment: 60,
  consultancy: 7,
  packaging: 110,
  cooling: 30,
};
const TECHNOLOGY = ['Wheelbook', 'Till & Tray', 'Hollow Ledger', 'Curdlog', 'Harrow ERP', 'Parcelwright', 'Gatepost'];
const ROLES = [
  'Affineur',
  'Quality Technician',
  'Cheesemaker',
  'Dispatch Clerk',
  'Maintenance Engineer',
  'Sales Manager',
];

export interface FirmFacts {
  sector: string;
  headcount: number;
  /** Per cent in a year. */
  growth: number;
  technology: string[];
  hiring: string[];
}

/** What is true of a firm, as its services tell it. */
export function factsOf(firm: Firm): FirmFacts {
  const trade = tradeOf(firm);
  const some = (list: readonly string[], share: number, what: string) =>
    list.filter((one) => chance(what, one, firm.id) < share);
  return {
    sector: SECTOR[trade],
    headcount: Math.max(1, Math.round(SIZE[trade] * 2 ** (chance('headcount', firm.id) * 4 - 2))),
    growth: Math.round(chance('growth', firm.id) * 60 - 20),
    technology: some(TECHNOLOGY, 0.22, 'technology'),
    hiring: chance('hires', firm.id) < 0.3 ? [pick(ROLES, 'role', firm.id)] : [],
  };
}
