import * as z from 'zod';

/** What services are asked for: addresses of finders, phones of services that list them. */
export const sought = z.enum(['addresses', 'phones']).default('addresses');
export type Sought = z.output<typeof sought>;
