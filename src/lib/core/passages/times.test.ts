import { describe, expect, it } from 'vitest';
import { fragmentOfStint, locatorOfStint, secondsOf, stintOf, stintOfFragment, timeText } from './index';

describe('a time in a recording', () => {
  it('is written and read', () => {
    expect([0, 9, 61.9, 3_725].map(timeText)).toEqual(['0:00', '0:09', '1:01', '1:02:05']);
    for (const seconds of [0, 59, 60, 3_599, 3_600, 86_399])
      expect(secondsOf(timeText(seconds))).toBe(seconds);
    expect(['', '12', '1:60', '1:2', 'a:bc'].map(secondsOf)).toEqual(Array(5).fill(undefined));
  });
  it('is a locator, with an end or without', () => {
    expect(locatorOfStint({ start: 754.6, end: 760 })).toEqual({ label: 'timestamp', value: '12:34–12:40' });
    expect(locatorOfStint({ start: 754, end: 754.5 }).value).toBe('12:34');
    expect(stintOf({ label: 'timestamp', value: '12:34–12:40' })).toEqual({ start: 754, end: 760 });
    expect(stintOf({ label: 'timestamp', value: '12:34' })).toEqual({ start: 754, end: undefined });
    expect(stintOf({ label: 'page', value: '12' })).toBeUndefined();
    expect(stintOf(null)).toBeUndefined();
  });
  it('is a media fragment (Media Fragments URI 1.0, 4.2.1, its examples)', () => {
    expect(stintOfFragment('t=10,20')).toEqual({ start: 10, end: 20 });
    expect(stintOfFragment('t=,20')).toEqual({ start: 0, end: 20 });
    expect(stintOfFragment('t=10')).toEqual({ start: 10, end: undefined });
    expect(stintOfFragment('#t=npt:10,20')).toEqual({ start: 10, end: 20 });
    expect(stintOfFragment('t=0:02:00,0:02:01')).toEqual({ start: 120, end: 121 });
    expect(stintOfFragment('xywh=1,2,3,4')).toBeUndefined();
    expect(fragmentOfStint({ start: 10, end: 20 })).toBe('t=10,20');
  });
});
