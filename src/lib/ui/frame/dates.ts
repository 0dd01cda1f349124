import { format, parseISO } from 'date-fns';

/** A day as the interface writes it, of a time in ISO 8601. */
export const dateLabel = (iso: string): string => format(new Date(iso), 'd MMMM yyyy');

/** A day and the time of it, of a time in ISO 8601. */
export const timeLabel = (iso: string): string => format(new Date(iso), 'd MMM yyyy, HH:mm');

/** A day that is no moment in time, given as `YYYY-MM-DD`. */
export const dayLabel = (day: string): string => format(parseISO(day), 'd MMMM yyyy');

/** A day of a year one knows, given as `YYYY-MM-DD`. */
export const shortDay = (day: string): string => format(parseISO(day), 'd MMM');

/** Today where one is, as `YYYY-MM-DD`. */
export const today = (): string => format(new Date(), 'yyyy-MM-dd');
