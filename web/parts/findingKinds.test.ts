import { expect, test } from '@jest/globals';
import type { Finding } from '../../core/findings/finding';
import { byKind } from './findingKinds';

test('findings by kind, numbered through as they are listed', () => {
  const finding = (code: string): Finding => ({ code, severity: 'check', message: `a ${code}` });
  const groups = byKind(['narrow', 'gap', 'narrow', 'odd'].map(finding));
  expect(groups.map(({ name, members }) => [name, members.map(({ n }) => n)])).toEqual([
    ['Stems too thin to weed', [1, 2]],
    ['Gaps too narrow', [3]],
    // one of a reader's own is called by what it says
    ['a odd', [4]],
  ]);
});
