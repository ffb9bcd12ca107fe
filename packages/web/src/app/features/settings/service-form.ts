import { type FormControl, type NonNullableFormBuilder, Validators } from '@angular/forms';
import type { Plan, ServiceSetting } from '@sieve/contract';

/** A service as it is typed: amounts in whole units of the currency. */
export interface ServiceControls {
  id: FormControl<string>;
  name: FormControl<string>;
  url: FormControl<string>;
  key: FormControl<string>;
  price: FormControl<number>;
  perSecond: FormControl<number>;
  capDay: FormControl<number>;
  capMonth: FormControl<number>;
  simulated: FormControl<boolean>;
}

export const isWebAddress = Validators.pattern(/^https?:\/\/\S+$/);

/** @param optional it may be left without an address: then there is none */
export const serviceControls = (
  builder: NonNullableFormBuilder,
  service: ServiceSetting,
  { optional = false } = {},
): ServiceControls => {
  const { id, name, url, key, price, perSecond, capDay, capMonth, simulated } = inMoney(service);
  const needed = optional ? [] : [Validators.required];
  return {
    id: builder.control(id),
    name: builder.control(name, needed),
    url: builder.control(url, [...needed, isWebAddress]),
    key: builder.control(key),
    price: builder.control(price, [Validators.required, Validators.min(0)]),
    perSecond: builder.control(perSecond, [Validators.required, Validators.min(0.01)]),
    capDay: builder.control(capDay, Validators.min(0)),
    capMonth: builder.control(capMonth, Validators.min(0)),
    simulated: builder.control(simulated),
  };
};

export const planControls = (builder: NonNullableFormBuilder, { credits, cents }: Plan) => ({
  credits: builder.control(credits, [Validators.required, Validators.min(0), Validators.pattern(/^\d+$/)]),
  planPrice: builder.control(cents / 100, [Validators.required, Validators.min(0)]),
});
export type PlanControls = ReturnType<typeof planControls>;

/** A service with its amounts as they are typed. */
export const inMoney = <T extends ServiceSetting>({ priceCents, capDayCents, capMonthCents, ...service }: T) => ({
  ...service,
  price: priceCents / 100,
  capDay: capDayCents / 100,
  capMonth: capMonthCents / 100,
});

/** With its amounts in cents. */
export const inCents = <T extends { price: number; capDay: number; capMonth: number }>({
  price,
  capDay,
  capMonth,
  ...service
}: T) => ({
  ...service,
  priceCents: Math.round(price * 100),
  capDayCents: Math.round(capDay * 100),
  capMonthCents: Math.round(capMonth * 100),
});

export const planIn = ({ credits, planPrice }: { credits: number; planPrice: number }): Plan => ({
  credits,
  cents: Math.round(planPrice * 100),
});

/** A service as it is saved; null for one without an address. */
export const serviceIn = <T extends Parameters<typeof inCents>[0] & { name: string; url: string }>(
  service: T,
  name: string,
) => (service.url ? inCents({ ...service, name: service.name || name }) : null);

/** An id that none of the services has; one that was removed may still stand in a job's order. */
export function freeId(stem: string, services: readonly { id: string }[]): string {
  const taken = new Set(services.map(({ id }) => id));
  let n = services.length + 1;
  while (taken.has(`${stem}-${n}`)) n++;
  return `${stem}-${n}`;
}

export const newService = (id: string, { url = '', name = '', priceCents = 10 } = {}): ServiceSetting => ({
  id,
  name,
  url,
  key: '',
  priceCents,
  perSecond: 1,
  capDayCents: 0,
  capMonthCents: 0,
  simulated: false,
});
