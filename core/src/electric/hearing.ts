/** How long a level may be borne in a day, in hours. */
export interface HearingHours {
  /** NIOSH, Publication 98-126: 85 dBA for 8 h, half as long for every 3 dB more. */
  readonly niosh: number;
  /** 29 CFR 1910.95: 90 dBA for 8 h, half as long for every 5 dB more. */
  readonly osha: number;
}

/** From here on NIOSH counts exposure. */
export const HEARING_DBA = 85;

/** @example hearingHours(94).niosh // 1 */
export const hearingHours = (dBA: number): HearingHours => ({
  niosh: 8 / 2 ** ((dBA - HEARING_DBA) / 3),
  osha: 8 / 2 ** ((dBA - 90) / 5),
});

/** @example durationText(0.25) // '15 min' */
export const durationText = (hours: number): string => {
  const minutes = hours * 60;
  if (hours >= 8) return '8 h and more';
  if (hours >= 1) return `${Math.round(hours * 10) / 10} h`;
  return minutes >= 1 ? `${Math.round(minutes)} min` : 'under a minute';
};
