/** Figures of a forecast as they are written. */
import type { Expected } from '../../core/forecast/forecast';
import { grouped } from '../ui/format';

/** People, to the nearest whole one. */
export function countOf(people: number): string {
  return grouped(Math.round(people));
}

/** Minutes as they are said: seconds as well, below ten. */
export function minutesText(minutes: number): string {
  const seconds = Math.round(minutes * 60);
  if (seconds < 60) return `${seconds} s`;
  if (minutes >= 10) return `${Math.round(minutes)} min`;
  const left = seconds % 60;
  return left === 0 ? `${Math.floor(seconds / 60)} min` : `${Math.floor(seconds / 60)} min ${left} s`;
}

/** Hours of many people together: in minutes, where they are less than one. */
export function hoursText(hours: number): string {
  if (hours < 1) return `${Math.round(hours * 60)} min`;
  return hours < 10 ? `${hours.toFixed(1)} h` : `${grouped(Math.round(hours))} h`;
}

/** A share in per cent, to a hundredth. */
export function percentOf(share: number): number {
  return Math.round(share * 10_000) / 100;
}

/** Half the width of the 95% interval of a proportion of one half, in points; of nobody there is none. */
export function marginOf(base: number, designEffect: number): number | null {
  return base < 1 ? null : 196 * Math.sqrt((0.25 * designEffect) / base);
}

/** With its sign, to so many figures that it says something. */
export function signed(change: number): string {
  const size = Math.abs(change);
  const text = size >= 10 ? size.toFixed(0) : size >= 0.1 ? size.toFixed(1) : size.toFixed(2);
  return `${change < 0 ? '−' : '+'}${text}`;
}

/** What a group is called. */
export function nameOf({ group }: Expected): string {
  if ('ending' in group) return group.ending;
  if ('section' in group) return group.section;
  return group.pass === null ? group.item : `${group.item}, pass ${group.pass}`;
}
