/** Who works in the shop and what they may do, as it crosses the wire. */
import { z } from 'zod';

/** Each may do what those before may. */
export const ROLES = ['prep', 'operator', 'lead'] as const;
export type Role = (typeof ROLES)[number];
const role = z.enum(ROLES);

/** Whether somebody of a role may do what asks for one. */
export const mayDo = (has: Role, needs: Role): boolean => ROLES.indexOf(has) >= ROLES.indexOf(needs);

export const SHORTEST_PASSWORD = 10;
const name = z.string().trim().min(1).max(60);
const password = z.string().min(SHORTEST_PASSWORD).max(200);
/** Digits, so that it is typed with dirty hands. */
export const PIN = /^\d{4,8}$/;
const pin = z.string().regex(PIN, 'takes four to eight digits');
/** As somebody typed it, right or wrong. */
const typed = z.string().max(200);
const id = z.number().int().min(1);

const meSchema = z.object({
  id: z.number(),
  name: z.string(),
  role,
  hasPin: z.boolean(),
  /** Somebody else chose their password. */
  mustChange: z.boolean(),
});
export type Me = z.infer<typeof meSchema>;

/** Who is asking, as the server sees it. */
export const sessionSchema = z.object({
  /** Logged in, or here by PIN at a machine's tablet. */
  me: meSchema.nullable(),
  /** The cutter that this is the tablet of. */
  tablet: z.object({ id: z.string(), name: z.string() }).nullable(),
  /** Who may say by PIN that they are at the tablet. */
  hands: z.array(z.object({ id: z.number(), name: z.string(), role })),
  /** The demo's people, shown to everybody as long as they are in. */
  demo: z.array(z.object({ name: z.string(), role, password: z.string(), pin: z.string() })),
});
export type SessionNow = z.infer<typeof sessionSchema>;

export const logInSchema = z.strictObject({ name: typed, password: typed });
export const tabletSchema = z.strictObject({ cutter: z.string().max(60) });
export const hereSchema = z.strictObject({ person: id, pin: typed });
/** Their own password or PIN, by those who know the password as it is. */
export const ownChangeSchema = z.strictObject({
  password: typed,
  newPassword: password.optional(),
  /** null: none any more */
  pin: pin.nullish(),
});
export type OwnChange = z.infer<typeof ownChangeSchema>;

export const personSchema = z.object({
  id: z.number(),
  name: z.string(),
  role,
  hasPin: z.boolean(),
  isDemo: z.boolean(),
  removed: z.boolean(),
});
export type Person = z.infer<typeof personSchema>;
export const newPersonSchema = z.strictObject({ name, role });
export const personChangeSchema = z.strictObject({ name: name.optional(), role: role.optional() });
/** Everybody, and a password that was made just now, which is shown this once. */
export const peopleSchema = z.object({
  people: z.array(personSchema),
  made: z.object({ name: z.string(), password: z.string() }).nullable(),
});
export type People = z.infer<typeof peopleSchema>;
