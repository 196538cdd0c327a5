/** The made-up people of the demo shop, with what they log in with: shown to everybody as long as they are in. */
import type { Role } from '../contracts/people';

export interface DemoPerson {
  readonly name: string;
  readonly role: Role;
  readonly password: string;
  readonly pin: string;
}

export const DEMO_PEOPLE: readonly DemoPerson[] = [
  { name: 'Marram', role: 'prep', password: 'marram at the bench', pin: '2041' },
  { name: 'Samphire', role: 'operator', password: 'samphire at the knife', pin: '3052' },
  { name: 'Thrift', role: 'lead', password: 'thrift at the till', pin: '4063' },
];
