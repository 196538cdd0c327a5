import { largest } from '../../core/geometry/lists';
import { defineStore } from 'pinia';
import { computed, ref, shallowRef, watch } from 'vue';
import { freshId, settle, withGroups } from '../../core/artwork/arrange';
import type { Finding, Fix } from '../../core/findings/finding';
import type { ArtworkChoices, FileSource, Piece, Source } from '../../core/artwork/choices';
import { isSame, LYING_STRAIGHT } from '../../core/artwork/choices';
import type { Picked } from '../../core/artwork/pick';
import type { TraceView } from '../workers/trace.worker';
import type { Upload, UploadProgress } from './api';
import { ApiProblem, upload } from './api';
import { byKind } from '../parts/findingKinds';
import { useOrder } from './order';

/** Findings of the check-over: they carry a key, so that one can be mended or left. */
const SEVERITY = { stop: 0, check: 1, note: 2 } as const;

/** What a person has hold of in the artwork of the open order. */
export const useArtwork = defineStore('artwork', () => {
  const order = useOrder();
  const selected = ref<readonly string[]>([]);
  const picked = shallowRef<Picked>();
  const measuring = ref(false);
  const finding = ref<string>();
  /** A trace that is being tried out, over its picture. */
  const trial = shallowRef<{ readonly piece: string; readonly url: string; readonly trace?: TraceView }>();
  const arrival = shallowRef<{
    readonly name: string;
    readonly progress: UploadProgress;
    readonly cancel: () => void;
  }>();
  const problem = shallowRef<ApiProblem>();

  const choices = computed(() => order.choices!.artwork);
  const placed = computed(() => order.plan?.pieces ?? []);
  const pieces = computed(() => order.choices?.artwork.pieces ?? []);
  /** The piece whose particulars are shown. */
  const piece = computed<Piece | undefined>(() => {
    if (pieces.value.length === 1) return pieces.value[0];
    return selected.value.length === 1 ? pieces.value.find(({ id }) => id === selected.value[0]) : undefined;
  });
  const findings = computed<readonly Finding[]>(() =>
    [...(order.chosenPlan?.findings ?? [])]
      .filter((f) => f.severity !== 'note' || f.key !== undefined)
      .sort((a, b) => SEVERITY[a.severity] - SEVERITY[b.severity]),
  );
  /** Those that nobody has left as they are, by kind, with the numbers that list and sign show them by. */
  const groups = computed(() => byKind(findings.value.filter((f) => f.ignored === undefined)));
  const open = computed<readonly Finding[]>(() =>
    groups.value.flatMap(({ members }) => members.map(({ finding }) => finding)),
  );

  watch(
    () => order.order?.id,
    () => {
      selected.value = [];
      picked.value = finding.value = trial.value = problem.value = undefined;
      measuring.value = false;
    },
  );
  watch(pieces, (now) => {
    selected.value = selected.value.filter((id) => now.some((p) => p.id === id));
    picked.value = undefined;
  });

  const set = (artwork: ArtworkChoices): void => order.change({ artwork });
  const change = (more: Partial<ArtworkChoices>): void => set({ ...choices.value, ...more });

  function select(id: string, more = false): void {
    const group = withGroups(choices.value, [id]);
    if (!more) selected.value = group;
    else if (selected.value.includes(id)) selected.value = selected.value.filter((s) => !group.includes(s));
    else selected.value = [...new Set([...selected.value, ...group])];
  }

  /** Adds a piece below what is there, with a little room between. */
  function add(source: Source, name: string): void {
    const now = settle(choices.value, placed.value);
    const id = freshId(now);
    const below = largest(
      placed.value.map(({ box }) => box.maxY),
      0,
    );
    const y = placed.value.length > 0 ? below + Math.max(5, below * 0.05) : 0;
    set({ ...now, pieces: [...now.pieces, { ...LYING_STRAIGHT, id, name, source, y }] });
    selected.value = [id];
  }

  /** Brings a file to the server. @returns it as a source, or undefined (then `problem` says why) */
  async function send(file: File): Promise<FileSource | undefined> {
    problem.value = undefined;
    const sending: Upload<FileSource> = upload('POST /api/files', file, (progress) => {
      if (arrival.value) arrival.value = { ...arrival.value, progress };
    });
    arrival.value = { name: file.name, progress: { phase: 'sending', share: 0 }, cancel: sending.cancel };
    try {
      return await sending.done;
    } catch (error) {
      if (!(error instanceof ApiProblem)) throw error;
      if (error.code !== 'cancelled')
        problem.value = new ApiProblem(
          error.status,
          error.code,
          `${file.name}: ${error.message}`,
          error.waysOut,
        );
      return undefined;
    } finally {
      arrival.value = undefined;
    }
  }

  /** Mends one finding, or all of its kind. */
  const withFixes = (fixes: readonly Fix[]): ArtworkChoices => ({
    ...choices.value,
    fixes: [...choices.value.fixes, ...fixes.filter((fix) => !has(choices.value.fixes, fix))],
  });
  const mend = (fixes: readonly Fix[]): void => set(withFixes(fixes));
  const lookAt = (fixes: readonly Fix[] | undefined): void =>
    order.look(fixes && { artwork: withFixes(fixes) });

  const leave = (key: string, reason: string): void =>
    change({ ignored: [...choices.value.ignored.filter((i) => i.key !== key), { key, reason }] });
  const takeUp = (key: string): void =>
    change({ ignored: choices.value.ignored.filter((i) => !isSame(i.key, key)) });

  return {
    selected,
    picked,
    measuring,
    finding,
    trial,
    arrival,
    problem,
    choices,
    placed,
    pieces,
    piece,
    findings,
    groups,
    open,
    set,
    change,
    select,
    add,
    send,
    mend,
    lookAt,
    leave,
    takeUp,
  };
});

const has = (fixes: readonly Fix[], { kind, at }: Fix): boolean =>
  fixes.some((fix) => fix.kind === kind && fix.at === at);
