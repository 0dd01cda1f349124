import { describe, expect, it } from 'vitest';
import { mentionedIn } from '.';

const people = [
  { id: 'a', name: 'Ada Pell' },
  { id: 'b', name: 'Ben Okoro' },
  { id: 'c', name: 'Ben Ó Súilleabháin' },
];

describe('who is named', () => {
  it.each([
    ['@Ada is this so?', ['a']],
    ['Is this so, @ada?', ['a']],
    ['@Ada: see p. 4; (@Ben Okoro) too', ['a', 'b']],
    ['@ben o suilleabhain knows', ['c']],
    // Two are called Ben: the whole name tells which.
    ['@Ben knows', []],
    ['mail ada@harbour.example or pell@ada.example', []],
    ['a price @ Ada', []],
    ['Ada said so', []],
    ['@Adams is another', []],
    ['@', []],
  ])('in “%s”: %j', (text, ids) => expect(mentionedIn(text, people)).toEqual(ids));
});
