/** One of the simulated verifiers: what it charges, how often it cannot say, how often it is wrong. */
export interface VerifierManner {
  id: string;
  key: string;
  priceCents: number;
  perSecond: number;
  unsure: number;
  wrong: number;
  /** It says whether the domain takes mail for anybody. */
  tellsAny: boolean;
}

/** Cheap, often unsure and silent about domains; dear and good. */
export const VERIFIERS: readonly VerifierManner[] = [
  {
    id: 'plumbline',
    key: 'plumbline-demo-key',
    priceCents: 1,
    perSecond: 80,
    unsure: 0.1,
    wrong: 0.03,
    tellsAny: false,
  },
  {
    id: 'touchstone',
    key: 'touchstone-demo-key',
    priceCents: 2,
    perSecond: 60,
    unsure: 0.02,
    wrong: 0.005,
    tellsAny: true,
  },
];
