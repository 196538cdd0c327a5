import { expect, test } from '@jest/globals';
import { nextTick, ref } from 'vue';
import { useDraft } from './draft';

test('a value that arrives shows, unless somebody is typing', async () => {
  const value = ref('1');
  const { text, settle, isSettled } = useDraft(() => value.value);
  value.value = '2';
  await nextTick();
  expect([text.value, isSettled()]).toEqual(['2', true]);
  text.value = '25';
  value.value = '3';
  await nextTick();
  expect([text.value, isSettled()]).toEqual(['25', false]);
  // kept: what arrives afterwards shows again, first of all the echo of what was kept
  settle('25');
  expect(isSettled()).toBe(true);
  value.value = '25';
  await nextTick();
  value.value = '4';
  await nextTick();
  expect(text.value).toBe('4');
  text.value = 'nonsense';
  settle();
  expect(text.value).toBe('4');
});
