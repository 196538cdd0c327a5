import { describe, expect, test } from '@jest/globals';
import type { Asked } from '../inPage.testing';
import { inPage, Refused, settled } from '../inPage.testing';
import { useIntake } from './intake';
import { useOrders } from './orders';

const file = (name: string): File => new File(['<svg/>'], name);
const NONE = new Refused(422, { code: 'no-drawing', message: 'This is no drawing.' });
const RANK: Readonly<Record<string, number>> = { 'a.svg': 1, 'b.svg': 2 };

function page() {
  const went: (number | undefined)[] = [];
  const goTo = (id?: number): Promise<void> => Promise.resolve(void went.push(id));
  const made = inPage(
    () => ({ intake: useIntake(), orders: useOrders() }),
    ({ path, body }: Asked) => {
      if (path !== '/api/orders') return { rows: [], counts: {}, cuts: [] };
      const id = RANK[body as string];
      if (id === undefined) throw NONE;
      return { id };
    },
  );
  const sent = (): unknown[] => made.bodies().filter((body) => typeof body === 'string');
  return { ...made, went, goTo, sent };
}

describe('files that come in', () => {
  test('one makes an order at once, and it is shown', async () => {
    const { it, goTo, went } = page();
    await it.intake.start([file('a.svg')], goTo);
    expect([went, it.intake.asked]).toEqual([[1], []]);
  });

  test('of several it is asked first; nothing is sent until somebody says', async () => {
    const { it, goTo, sent } = page();
    const files = [file('a.svg'), file('b.svg')];
    await it.intake.start(files, goTo);
    await settled();
    expect([it.intake.asked, sent()]).toEqual([files, []]);
  });

  test('one each: what cannot be taken is named, the others are taken, and the list is shown', async () => {
    const { it, goTo, went, sent } = page();
    await it.intake.each([file('a.svg'), file('letter.txt'), file('b.svg'), file('note.txt')], goTo);
    expect(sent()).toEqual(['a.svg', 'letter.txt', 'b.svg', 'note.txt']);
    expect(went).toEqual([undefined]);
    expect(it.orders.problem?.message).toBe('letter.txt: This is no drawing. note.txt: This is no drawing.');
  });

  test('when the first of one order cannot be taken, none is, and it is said', async () => {
    const { it, goTo, went, sent } = page();
    await it.intake.one([file('letter.txt'), file('a.svg')], goTo);
    expect([sent(), went]).toEqual([['letter.txt'], [undefined]]);
    expect(it.orders.problem?.message).toMatch(/^letter\.txt: /);
  });

  test('one that was given up is no problem', async () => {
    const { it, goTo, went } = page();
    const begun = it.intake.start([file('a.svg')], goTo);
    it.orders.arrival!.cancel();
    await begun;
    expect([went, it.orders.problem, it.orders.arrival]).toEqual([[], undefined, undefined]);
  });

  test('what is larger than is taken is not sent', async () => {
    const { it, goTo, sent } = page();
    const large = file('a.svg');
    Object.defineProperty(large, 'size', { value: 41 * 1024 * 1024 });
    await it.intake.start([large], goTo);
    expect(sent()).toEqual([]);
    expect(it.orders.problem?.message).toMatch(/41 MB; 40 MB is the most/);
  });
});
