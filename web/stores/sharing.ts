/** What the open order shares with others on its films, followed while it is open. */
import { computed, markRaw, shallowRef } from 'vue';
import type { SharingNow } from '../../contracts/cuts';
import { editsBetween, isSame } from '../../contracts/edits';
import { call } from './api';

/** @param changed it is another one now */
export function createSharing(openId: () => number | undefined, changed: () => void) {
  const sharing = shallowRef<SharingNow>();
  /** Films that are cut with another order's, by id, and with which. */
  const away = computed(() => sharing.value?.away ?? {});
  /** Counts what is asked: only the newest answer counts. */
  let asked = 0;

  const fetchFor = (id: number): Promise<SharingNow> =>
    call('GET /api/orders/{id}/sharing', { params: { id } });

  function set(now: SharingNow | undefined): void {
    asked++;
    sharing.value = now && markRaw(now);
  }

  /** Asks again; while the server is away what was told last stays. */
  async function reload(): Promise<void> {
    const id = openId();
    if (id === undefined) return;
    const mine = ++asked;
    const now = await fetchFor(id).catch(() => undefined);
    if (!now || mine !== asked || isSame(now, sharing.value)) return;
    sharing.value = markRaw(now);
    changed();
  }

  /** Whether another order has to do with it. */
  function isWith(other: number): boolean {
    const { guests = [], refused = [] } = sharing.value ?? {};
    const all = [...guests, ...Object.values(away.value), ...refused.map(({ order }) => order)];
    return all.some(({ id }) => id === other);
  }

  /** Has a film cut by itself that another order takes along. */
  async function cutByItself(film: string): Promise<void> {
    const [host, own] = [away.value[film], openId()];
    if (!host) return;
    const { revision, choices } = await call('GET /api/orders/{id}', { params: { id: host.id } });
    const { [film]: guests = [], ...rest } = choices.layout.guests;
    const left = guests.filter((guest) => guest !== own);
    const layout = { ...choices.layout, guests: left.length === 0 ? rest : { ...rest, [film]: left } };
    await call('PATCH /api/orders/{id}/choices', {
      params: { id: host.id },
      body: { base: revision, edits: editsBetween(choices, { ...choices, layout }) },
    });
  }
  return { sharing, away, fetchFor, set, reload, isWith, cutByItself };
}
