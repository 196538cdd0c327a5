import type { InjectionKey, Ref } from 'vue';

/** Whether whoever looks may not change what is around. Controls that are none of the browser's own ask for it. */
export const LOCKED: InjectionKey<Readonly<Ref<boolean>>> = Symbol('locked');
