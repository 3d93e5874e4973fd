const MINUTE = 60_000;
const HOUR = 60 * MINUTE;
const DAY = 24 * HOUR;

const clock = (when: Date): string => when.toLocaleTimeString([], { hour: '2-digit', minute: '2-digit' });

/**
 * How long ago something was, as one would say it.
 * @example agoText('2026-11-29T10:00:00Z', new Date('2026-11-29T10:05:00Z')) // '5 minutes ago'
 */
export const agoText = (then: string, now: Date): string => {
  const when = new Date(then);
  const past = now.getTime() - when.getTime();
  if (past < MINUTE) return 'just now';
  if (past < HOUR) {
    const minutes = Math.floor(past / MINUTE);
    return `${minutes} ${minutes === 1 ? 'minute' : 'minutes'} ago`;
  }
  const midnight = new Date(now.getFullYear(), now.getMonth(), now.getDate()).getTime();
  if (when.getTime() >= midnight) return `today at ${clock(when)}`;
  if (when.getTime() >= midnight - DAY) return `yesterday at ${clock(when)}`;
  const isThisYear = when.getFullYear() === now.getFullYear();
  return when.toLocaleDateString([], {
    weekday: 'short',
    day: 'numeric',
    month: 'short',
    ...(isThisYear ? {} : { year: 'numeric' }),
  });
};

/** A day as one would say it. @example dayText('2026-11-29T10:00:00Z', new Date('2026-11-29T12:00:00Z')) // 'Today' */
export const dayText = (then: string, now: Date): string => {
  const when = new Date(then);
  const midnight = new Date(now.getFullYear(), now.getMonth(), now.getDate()).getTime();
  if (when.getTime() >= midnight) return 'Today';
  if (when.getTime() >= midnight - DAY) return 'Yesterday';
  return when.toLocaleDateString([], { weekday: 'long', day: 'numeric', month: 'long', year: 'numeric' });
};

/** The hour of something, without its day. */
export const hourText = (then: string): string => clock(new Date(then));

/** Whom the journal names where nobody said who it was. */
const NOBODY_SAID = 'local';

/** @example byWhom('Ines') // ', by Ines' */
export const byWhom = (who: string): string => (who === NOBODY_SAID ? '' : `, by ${who}`);
