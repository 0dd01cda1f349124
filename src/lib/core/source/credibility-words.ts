import type { Reviewed, Trust } from './credibility';
import { languageOf } from './languages';

/** What is printed of how far a source can be trusted, in a language; what somebody wrote themselves stays as it is. */
export interface CredibilityWords {
  reviewed: Record<Reviewed, string>;
  trust: Record<Trust, string>;
  behind: string;
  aim: string;
  rests: string;
  /** What stands between a heading and what it is about; French practice has a space that does not break before the colon. */
  colon: string;
}

const ENGLISH: CredibilityWords = {
  reviewed: {
    peers: 'Reviewed by peers',
    editors: 'Read by editors',
    nobody: 'Reviewed by nobody',
    unknown: 'Not known whether it was reviewed',
  },
  trust: {
    fully: 'Can be trusted',
    'with care': 'To be trusted with care',
    'not at all': 'Not to be trusted',
  },
  behind: 'Who is behind it',
  aim: 'What it is after',
  rests: 'What it rests on',
  colon: ': ',
};

/** Words of our own by language; any other has them in English. */
const WORDS: Record<string, CredibilityWords> = {
  en: ENGLISH,
  de: {
    reviewed: {
      peers: 'Von Fachleuten begutachtet',
      editors: 'Von einer Redaktion gelesen',
      nobody: 'Von niemandem begutachtet',
      unknown: 'Ob begutachtet, ist nicht bekannt',
    },
    trust: {
      fully: 'Vertrauenswürdig',
      'with care': 'Mit Vorsicht zu gebrauchen',
      'not at all': 'Nicht vertrauenswürdig',
    },
    behind: 'Wer dahintersteht',
    aim: 'Worauf es aus ist',
    rests: 'Worauf es sich stützt',
    colon: ': ',
  },
  fr: {
    reviewed: {
      peers: 'Évalué par des pairs',
      editors: 'Relu par une rédaction',
      nobody: 'Évalué par personne',
      unknown: 'On ne sait s’il a été évalué',
    },
    trust: {
      fully: 'Digne de confiance',
      'with care': 'À utiliser avec prudence',
      'not at all': 'Indigne de confiance',
    },
    behind: 'Qui est derrière',
    aim: 'Ce qu’il vise',
    rests: 'Sur quoi il repose',
    colon: '\u00a0: ',
  },
  es: {
    reviewed: {
      peers: 'Revisado por pares',
      editors: 'Leído por una redacción',
      nobody: 'No revisado por nadie',
      unknown: 'No se sabe si fue revisado',
    },
    trust: {
      fully: 'Digno de confianza',
      'with care': 'Debe usarse con cautela',
      'not at all': 'No es digno de confianza',
    },
    behind: 'Quién está detrás',
    aim: 'Qué pretende',
    rests: 'En qué se apoya',
    colon: ': ',
  },
  it: {
    reviewed: {
      peers: 'Sottoposto a revisione paritaria',
      editors: 'Letto da una redazione',
      nobody: 'Non rivisto da nessuno',
      unknown: 'Non si sa se sia stato rivisto',
    },
    trust: {
      fully: 'Affidabile',
      'with care': 'Da usare con cautela',
      'not at all': 'Non affidabile',
    },
    behind: 'Chi c’è dietro',
    aim: 'A che cosa mira',
    rests: 'Su che cosa si basa',
    colon: ': ',
  },
  pt: {
    reviewed: {
      peers: 'Revisto por pares',
      editors: 'Lido por uma redação',
      nobody: 'Não revisto por ninguém',
      unknown: 'Não se sabe se foi revisto',
    },
    trust: {
      fully: 'Digno de confiança',
      'with care': 'A usar com cautela',
      'not at all': 'Não é digno de confiança',
    },
    behind: 'Quem está por trás',
    aim: 'O que pretende',
    rests: 'Em que se apoia',
    colon: ': ',
  },
  nl: {
    reviewed: {
      peers: 'Beoordeeld door vakgenoten',
      editors: 'Gelezen door een redactie',
      nobody: 'Door niemand beoordeeld',
      unknown: 'Niet bekend of het beoordeeld is',
    },
    trust: {
      fully: 'Betrouwbaar',
      'with care': 'Met voorzichtigheid te gebruiken',
      'not at all': 'Niet betrouwbaar',
    },
    behind: 'Wie erachter zit',
    aim: 'Waar het op uit is',
    rests: 'Waar het op steunt',
    colon: ': ',
  },
};

/** The words of a locale by its language (`de-AT` has those of `de`). */
export const credibilityWords = (locale: string): CredibilityWords => WORDS[languageOf(locale)] ?? ENGLISH;
