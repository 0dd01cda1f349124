import type { Locator } from './types';

/** A time in a recording as it is written in a locator: `4:07`, `1:02:33`; from seconds, parts of them left out. */
export function timeText(seconds: number): string {
  const whole = Math.max(0, Math.floor(seconds));
  const [h, m, s] = [Math.floor(whole / 3_600), Math.floor(whole / 60) % 60, whole % 60];
  const two = (n: number) => String(n).padStart(2, '0');
  return h > 0 ? `${h}:${two(m)}:${two(s)}` : `${m}:${two(s)}`;
}

/** Seconds of a time that is written so; nothing for what is none. */
export function secondsOf(text: string): number | undefined {
  const found = /^\s*(?:(\d{1,3}):)?(\d{1,3}):([0-5]\d)(?:[.,]\d{1,3})?\s*$/.exec(text);
  if (!found) return undefined;
  const [, h = '0', m = '0', s = '0'] = found;
  return Number(h) * 3_600 + Number(m) * 60 + Number(s);
}

/** A stretch of a recording, in seconds; one without an end is a moment. */
export interface Stint {
  start: number;
  end: number | undefined;
}

/** What a locator says of a recording (CSL 1.0.2, locator `timestamp`); nothing for any other. */
export function stintOf(locator: Locator | null): Stint | undefined {
  if (locator?.label !== 'timestamp') return undefined;
  const [from = '', to] = locator.value.split(/[-–—]/, 2);
  const start = secondsOf(from);
  if (start === undefined) return undefined;
  const end = to === undefined ? undefined : secondsOf(to);
  return { start, end: end !== undefined && end > start ? end : undefined };
}

/** A stretch of a recording as a locator. */
export const locatorOfStint = ({ start, end }: Stint): Locator => ({
  label: 'timestamp',
  value:
    end !== undefined && Math.floor(end) > Math.floor(start)
      ? `${timeText(start)}–${timeText(end)}`
      : timeText(start),
});

/** A stretch as a media fragment says it. Source: Media Fragments URI 1.0 (W3C, 2012), 4.2.1, normal play time. */
export const fragmentOfStint = ({ start, end }: Stint): string =>
  `t=${start}${end === undefined ? '' : `,${end}`}`;

/** The stretch a media fragment names, in seconds or as hours, minutes and seconds; nothing where it names none. */
export function stintOfFragment(fragment: string): Stint | undefined {
  const found = /(?:^|[#&])t=(?:npt:)?([\d:.]{0,20})(?:,([\d:.]{1,20}))?(?:&|$)/.exec(
    fragment.slice(0, 4_000),
  );
  if (!found) return undefined;
  const seconds = (text: string): number | undefined => {
    if (/^\d{1,7}(?:\.\d{0,6})?$/.test(text)) return Number(text);
    return secondsOf(text.replace(/^0+(?=\d)/, ''));
  };
  const start = found[1] ? seconds(found[1]) : 0;
  const end = found[2] ? seconds(found[2]) : undefined;
  return start === undefined ? undefined : { start, end: end !== undefined && end > start ? end : undefined };
}
