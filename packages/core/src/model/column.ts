import * as z from 'zod';
import { HELD_RULES, OWN_TYPES, SPLITS, TARGETS } from './target';

const place = z.int().min(0).max(500);
/** What a column that no table has is made of. */
const derived = z.discriminatedUnion('kind', [
  z.object({
    kind: z.literal('part'),
    column: place,
    by: z.object({ how: z.enum(SPLITS), text: z.string().max(100) }),
    part: z.int().min(0).max(20),
  }),
  z.object({ kind: z.literal('join'), columns: z.array(place).min(2).max(20), between: z.string().max(20) }),
]);

/** How one column of a source is read (`Column`). */
export const column = z.object({
  name: z.string().max(200),
  target: z.enum(TARGETS),
  held: z.enum(HELD_RULES).optional(),
  own: z.string().trim().min(1).max(200).optional(),
  type: z.enum(OWN_TYPES).optional(),
  from: derived.optional(),
});
