import { format } from 'date-fns';

/** A day as the interface writes it, of a time in ISO 8601. */
export const dateLabel = (iso: string): string => format(new Date(iso), 'd MMMM yyyy');

/** A day and the time of it, of a time in ISO 8601. */
export const timeLabel = (iso: string): string => format(new Date(iso), 'd MMM yyyy, HH:mm');
