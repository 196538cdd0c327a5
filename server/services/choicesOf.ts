import { upgradeChoices } from '../../contracts/choices';
import type { Choices } from '../../core/plan/choices';
import type { orders } from '../db/schema';

type Stored = Pick<typeof orders.$inferSelect, 'choices' | 'fileHash' | 'fileName'>;

/** The stored choices, brought up to date. */
export const choicesOf = ({ choices, fileHash, fileName }: Stored): Choices =>
  upgradeChoices(choices, { hash: fileHash ?? '', name: fileName });
