import * as z from 'zod';
import { fold } from '../text/fold';
import { FREE, OF_SERVICE, type FactKind } from './fact-kind';

/** What a service that sells phones charges for: each answer, or each question. */
export const PHONE_PAYS = ['answer', 'question'] as const;
export type PhonePays = (typeof PHONE_PAYS)[number];

/** A number as a service lists it. `kind`: what it says of it, null when it says nothing. */
export const listedPhone = z.object({
  number: z.string().min(1).max(60),
  firstName: z.string().max(200),
  lastName: z.string().max(200),
  kind: z.enum(['mobile', 'direct', 'switchboard']).nullable(),
});
export type ListedPhone = z.infer<typeof listedPhone>;

const answer = z.object({
  phones: z.array(listedPhone).max(20),
  priceCents: z.int().min(0),
  pays: z.enum(PHONE_PAYS),
});

/** Who is asked about where: a first name of '' asks for whoever of the last name is listed there. */
export interface PhoneQuestion {
  service: string;
  firstName: string;
  lastName: string;
  /** Street, town and postcode in one line. */
  address: string;
}

/** The phones that a service lists for somebody at an address. Capitals, accents, commas and spaces make no other question. */
export const phones: FactKind<PhoneQuestion, z.infer<typeof answer>> = {
  ...OF_SERVICE,
  ...FREE,
  answer,
  key: ({ firstName, lastName, address }) => JSON.stringify([firstName, lastName, address].map(fold)),
  ages: false,
  isNone: ({ phones: listed }) => listed.length === 0,
  charged: (_, { phones: listed, pays, priceCents }) => (pays === 'question' || listed.length > 0 ? priceCents : 0),
};
