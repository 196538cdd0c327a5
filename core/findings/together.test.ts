import { expect, test } from '@jest/globals';
import type { Finding } from './finding';
import { saidOnce } from './together';

const finding = (code: string, film?: string, severity: Finding['severity'] = 'stop'): Finding => ({
  code,
  severity,
  message: `${film ?? 'it'} ${code}`,
  ...(film === undefined ? {} : { film }),
});

test('what holds for several films is said once, with their names; the rest stays in its order', () => {
  const said = saidOnce([
    finding('too-wide', 'Damson'),
    finding('open-line'),
    finding('too-wide', 'Tide blue'),
    finding('open-line'),
    finding('too-wide', 'Quince'),
    finding('too-wide', 'Chalk', 'check'),
  ]);
  expect(said.map(({ finding, alsoFilms }) => [finding.message, alsoFilms])).toEqual([
    ['Damson too-wide', ['Tide blue', 'Quince']],
    ['it open-line', []],
    ['it open-line', []],
    ['Chalk too-wide', []],
  ]);
});

test('a film of which the same holds at several places is named once', () => {
  const said = saidOnce([
    finding('panel-too-large', 'Damson'),
    finding('panel-too-large', 'Damson'),
    finding('panel-too-large', 'Quince'),
    finding('panel-too-large', 'Quince'),
    finding('short', 'Quince'),
  ]);
  expect(said.map(({ finding: { message }, alsoFilms }) => [message, alsoFilms])).toEqual([
    ['Damson panel-too-large', ['Quince']],
    ['Quince short', []],
  ]);
});
