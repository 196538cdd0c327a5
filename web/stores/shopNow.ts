/** What the shop has, as a page shows and changes it: kept up with, and changed one thing after the other. */
import { onMounted } from 'vue';
import type { ShopNow } from '../../contracts/shop';
import { call } from './api';
import { useListening } from './events';
import { useInTurn } from './inTurn';

/**
 * @param take shows what is kept now
 * @param show shows the answer to a change
 */
export function useShopNow<Answer = ShopNow>(take: (now: ShopNow) => void, show: (answer: Answer) => void) {
  const turns = useInTurn(() => call('GET /api/shop'), take, show);
  const again = (): void => void turns.again();
  useListening((event) => event.kind === 'shop' && again(), again);
  onMounted(again);
  return turns;
}
