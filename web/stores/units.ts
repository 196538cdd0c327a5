import { defineStore } from 'pinia';
import { useLocalStorage } from '@vueuse/core';
import type { Unit } from '../../core/units/length';
import { formatArea, formatLength, formatNumber, formatRun } from '../../core/units/length';

const KEY = 'jam-pan-unit';

/** Millimetres or inches, everywhere and remembered. */
export const useUnits = defineStore('units', () => {
  const unit = useLocalStorage<Unit>(KEY, 'mm', {
    serializer: { read: (kept) => (kept === 'in' ? 'in' : 'mm'), write: String },
  });
  return {
    unit,
    length: (mm: number, fine = false) => formatLength(mm, unit.value, fine),
    number: (mm: number) => formatNumber(mm, unit.value),
    run: (mm: number) => formatRun(mm, unit.value),
    area: (mm2: number) => formatArea(mm2, unit.value),
  };
});

/** A number of a recipe with its unit; null: left to the machine. */
export const setTo = (value: number | null, unit: string): string =>
  value === null ? 'by the machine' : `${value} ${unit}`;

/** Time at the cutter as people say it. */
export function duration(seconds: number): string {
  if (seconds < 90) return `${Math.max(1, Math.round(seconds))} s`;
  const minutes = Math.round(seconds / 60);
  return minutes < 100
    ? `${minutes} min`
    : `${Math.floor(minutes / 60)} h ${String(minutes % 60).padStart(2, '0')}`;
}
