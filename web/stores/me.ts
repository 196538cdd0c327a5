import { defineStore } from 'pinia';
import { computed, ref } from 'vue';
import type { OwnChange, Role, SessionNow } from '../../contracts/people';
import { mayDo } from '../../contracts/people';
import { askWhoItIs, call } from './api';

/** Who is logged in, or at this machine's tablet, and what they may do. */
export const useMe = defineStore('me', () => {
  /** undefined: not known yet */
  const session = ref<SessionNow>();
  const me = computed(() => session.value?.me ?? undefined);
  const tablet = computed(() => session.value?.tablet ?? undefined);
  const isIn = computed(() => me.value !== undefined || tablet.value !== undefined);
  /** Somebody was in since the page was opened: what they did not save yet is still there. */
  const wasIn = ref(false);

  function show(now: SessionNow): void {
    session.value = now;
    if (!isIn.value) return;
    wasIn.value = true;
    if (me.value) answer(true);
  }
  /** While the server is away, nothing is known anew. */
  const refresh = (): Promise<void> => call('GET /api/session').then(show, () => {});

  /** At a tablet that nobody is at, whoever presses is asked then. */
  const may = (role: Role): boolean => (me.value ? mayDo(me.value.role, role) : tablet.value !== undefined);

  /** Somebody has to say by PIN who they are before what they pressed is done. */
  const isPinWanted = ref(false);
  let waiting: ((isKnown: boolean) => void)[] = [];
  function answer(isKnown: boolean): void {
    isPinWanted.value = false;
    for (const one of waiting) one(isKnown);
    waiting = [];
  }
  /** @returns whether they are known then: what was asked for is asked for again */
  askWhoItIs(async (code) => {
    if (code === 'log-in') await refresh();
    // whoever logged in meanwhile in another tab is known already
    if (code === 'log-in' && me.value) return true;
    if (code === 'pin-wanted') isPinWanted.value = true;
    return new Promise((done) => waiting.push(done));
  });

  return {
    session,
    me,
    tablet,
    isIn,
    wasIn,
    isPinWanted,
    refresh,
    may,
    neverMind: () => answer(false),
    wantPin: () => (isPinWanted.value = true),
    logIn: async (name: string, password: string) =>
      show(await call('POST /api/session', { body: { name, password } })),
    logOut: async () => {
      await call('POST /api/session/end');
      // nothing of what they saw stays in the page
      location.assign('/');
    },
    becomeTablet: async (cutter: string) =>
      show(await call('POST /api/session/tablet', { body: { cutter } })),
    comeHere: async (person: number, pin: string) =>
      show(await call('POST /api/session/here', { body: { person, pin } })),
    goAway: async () => show(await call('POST /api/session/away')),
    changeOwn: async (body: OwnChange) => show(await call('PATCH /api/me', { body })),
  };
});
