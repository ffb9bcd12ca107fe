import { integer } from 'drizzle-orm/sqlite-core';

export const id = () => integer('id').primaryKey({ autoIncrement: true });
/** ms since 1970. */
export const at = (name: string) => integer(name);
