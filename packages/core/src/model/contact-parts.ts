/** What one contact is said to be, as a form has it. */
export const CONTACT_PARTS = [
  'fullName',
  'title',
  'company',
  'email',
  'phone',
  'website',
  'profile',
  'place',
  'note',
] as const;
export type ContactPart = (typeof CONTACT_PARTS)[number];
export type ContactText = Partial<Record<ContactPart, string>>;
