import { expect, test } from '@jest/globals';
import { bytesText } from './bytesText';

test.each([
  [0, '0 bytes'],
  [999, '999 bytes'],
  [1000, '1.0 kB'],
  [12_400, '12 kB'],
  [999_600, '1.0 MB'],
  [2_340_000_000, '2.3 GB'],
  [5e15, '5000 TB'],
])('%d', (bytes, text) => expect(bytesText(bytes)).toBe(text));
