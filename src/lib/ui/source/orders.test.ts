import { describe, expect, it } from 'vitest';
import { orderOf, orderWith } from './orders';

const year = { sorts: ['newest', 'oldest'] as [string, string] };
const title = { sorts: ['title'] as [string] };

describe('the head of a column', () => {
  it('orders the list by it, and the other way round', () => {
    expect(orderWith(year, 'author', false)).toBe('newest');
    expect(orderWith(year, 'newest', false)).toBe('oldest');
    expect(orderWith(year, 'title,oldest', false)).toBe('newest');
    expect(orderWith(title, 'title', false)).toBe('title');
  });
  it('orders within the order there is, turns it round where it stands, and leaves it again', () => {
    expect(orderWith(year, 'title', true)).toBe('title,newest');
    expect(orderWith(year, 'title,newest,kind', true)).toBe('title,oldest,kind');
    expect(orderWith(year, 'title,oldest,kind', true)).toBe('title,kind');
    expect(orderWith(year, 'fit', true)).toBe('newest');
    expect(orderWith(year, 'oldest', true)).toBe('');
    expect(orderWith(year, 'author,title,kind,added', true)).toBe('title,kind,added,newest');
  });
  it('says where it stands among several', () => {
    expect(orderOf(year, 'title,newest')).toEqual({ at: 1, falls: true });
    expect(orderOf(year, 'oldest')).toEqual({ at: 0, falls: false });
    expect(orderOf(year, 'author')).toBeUndefined();
  });
});
