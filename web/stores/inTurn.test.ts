import { expect, test } from '@jest/globals';
import { ApiProblem } from './api';
import { useInTurn } from './inTurn';

/** A server's answers, given when the test says so. */
function answers() {
  const open: { answer: (what: string) => void; refuse: (why: Error) => void }[] = [];
  const ask = (): Promise<string> => new Promise((answer, refuse) => void open.push({ answer, refuse }));
  return { open, ask };
}
const settled = (): Promise<void> => new Promise((done) => setTimeout(done));

function page() {
  const loads = answers();
  const shown: string[] = [];
  const take = (kept: string): void => void shown.push(kept);
  return { loads, shown, turns: useInTurn(loads.ask, take, take) };
}

test('what happens while a change is under way is asked for once that is answered', async () => {
  const { loads, shown, turns } = page();
  const change = answers();
  void turns.keep(change.ask);
  await settled();
  void turns.again();
  expect(loads.open).toHaveLength(0);
  change.open[0]!.answer('changed');
  await settled();
  loads.open[0]!.answer('and cut');
  await settled();
  expect(shown).toEqual(['changed', 'and cut']);
});

test('what was asked for before a change is not shown over it', async () => {
  const { loads, shown, turns } = page();
  void turns.again();
  const change = answers();
  void turns.keep(change.ask);
  await settled();
  change.open[0]!.answer('changed');
  await settled();
  loads.open[0]!.answer('old');
  await settled();
  loads.open[1]!.answer('new');
  await settled();
  expect(shown).toEqual(['changed', 'new']);
});

test('of two that are asked for, the later one is shown, also when it is answered first', async () => {
  const { loads, shown, turns } = page();
  void turns.again();
  void turns.again();
  loads.open[1]!.answer('later');
  await settled();
  loads.open[0]!.answer('earlier');
  await settled();
  expect(shown).toEqual(['later']);
});

test('changes go out one after the other; only the last answer is shown; one that is refused shows what is kept', async () => {
  const { loads, shown, turns } = page();
  const change = answers();
  for (let i = 0; i < 3; i++) void turns.keep(change.ask);
  await settled();
  expect(change.open).toHaveLength(1);
  change.open[0]!.answer('one');
  await settled();
  change.open[1]!.refuse(new ApiProblem(409, 'taken', 'Somebody else was there first.'));
  await settled();
  change.open[2]!.answer('three');
  await settled();
  expect(turns.underWay.value).toBe(0);
  loads.open[0]!.answer('kept');
  await settled();
  expect(shown).toEqual(['three', 'kept']);
});

test('a page that could not be fetched says so; one that was keeps what it shows', async () => {
  const { loads, turns } = page();
  const gone = new ApiProblem(0, 'unreachable', 'The server does not answer.');
  void turns.again();
  loads.open[0]!.refuse(gone);
  await settled();
  expect(turns.state.value).toBe('failed');
  void turns.again();
  loads.open[1]!.answer('kept');
  await settled();
  expect(turns.state.value).toBe('ready');
  void turns.again();
  loads.open[2]!.refuse(gone);
  await settled();
  expect(turns.state.value).toBe('ready');
});
