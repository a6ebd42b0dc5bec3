/** Days and hours as the shop says them. A format is made once: making one takes longer than a hundred uses of it. */

const HOUR = new Intl.DateTimeFormat('en-GB', { hour: '2-digit', minute: '2-digit' });
const DAY = new Intl.DateTimeFormat('en-GB', { day: 'numeric', month: 'short' });
const WEEKDAY = new Intl.DateTimeFormat('en-GB', { weekday: 'short', day: 'numeric', month: 'short' });
const DATE = new Intl.DateTimeFormat('en-GB', { dateStyle: 'medium' });
const MOMENT = new Intl.DateTimeFormat('en-GB', { dateStyle: 'medium', timeStyle: 'medium' });

const isToday = (at: Date) => at.toDateString() === new Date().toDateString();

/** The hour of a moment: 14:05. */
export const sayHour = (at: string) => HOUR.format(new Date(at));

/** A day and its year: 26 Nov 2026. */
export const sayDate = (at: string) => DATE.format(new Date(at));

/** A moment to the second: 26 Nov 2026, 14:05:09; no figure alone says which is the month. */
export const sayMoment = (at: string) => MOMENT.format(new Date(at));

/** The hour, and the day where it was not today. */
export function sayWhen(at: string): string {
  const then = new Date(at);
  return isToday(then) ? HOUR.format(then) : `${DAY.format(then)} ${HOUR.format(then)}`;
}

/** A day: today, or Thu 26 Nov. */
export function sayDay(day: string | null | undefined): string {
  if (!day) return 'no date';
  const date = new Date(`${day}T12:00:00`);
  return isToday(date) ? 'today' : WEEKDAY.format(date).replace(',', '');
}

/** A day and hour on which something will be done. */
export const sayReady = (at: string) => `${sayDay(at.slice(0, 10))} ${sayHour(at)}`;
