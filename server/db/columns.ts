/** Kinds of column that several tables have. */
import { customType, integer } from 'drizzle-orm/pg-core';
import { people } from './peopleSchema';

/** Who did something; null: nobody, such as the server itself. */
export const who = (column: string) => integer(column).references(() => people.id);

export const bytea = customType<{ data: Buffer }>({ dataType: () => 'bytea' });
