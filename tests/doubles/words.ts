/** Words, names and containers the set of works is made of. All of them are invented or plain words of their languages. */
const split = (text: string): string[] => text.split(' ');

export interface Tongue {
  tag: string;
  share: number;
  /** Things a title is about, and what is said of them. */
  nouns: string[];
  adjectives: string[];
  /** Joins: `the N of the N in N`. */
  joins: [of: string, inside: string, and: string];
  families: string[];
  given: string[];
  /** Containers in full and as they are abbreviated (ISO 4 habit, from memory). */
  journals: [whole: string, short: string][];
  publishers: [name: string, place: string][];
  /** Titles that many pieces bear. */
  common: string[];
}

export const TONGUES: Tongue[] = [
  {
    tag: 'en',
    share: 0.66,
    nouns: split(
      'estuaries marshes mills harbours fishermen ledgers widows apprentices markets hedges orchards maps sermons pamphlets translators migrants nurses teachers algorithms networks proteins enzymes membranes neurons larvae beetles mosses lichens glaciers aquifers sediments isotopes polymers catalysts alloys magnets lasers galaxies comets graphs matrices groups manifolds automata compilers databases corpora dialects vowels syllables metaphors sonnets ballads operas frescoes altarpieces cathedrals bridges canals railways ports customs taxes guilds parliaments constitutions treaties borders cities suburbs slums parks gardens forests wolves otters salmon herring oysters seaweed wheat barley rice sugar cotton silk wool coal iron copper tin salt plague cholera measles vaccines hospitals asylums prisons schools universities museums archives newspapers radio cinema television games memory emotion attention trust poverty inequality wages pensions insurance banks currencies loans crops pests drought floods storms erosion',
    ),
    adjectives: split(
      'early late medieval modern colonial rural urban coastal northern southern tropical alpine industrial domestic maritime sacred secular public private formal informal robust sparse linear stochastic hierarchical comparative quantitative cellular molecular genetic seasonal annual longitudinal experimental theoretical digital printed oral visual hidden forgotten shared contested',
    ),
    joins: ['of', 'in', 'and'],
    families: split(
      'Ferreira Barrow Brandt Lindqvist Osei Haverkamp Raman Oakes Pell Quill Tully Byrne Menon Arless Adeyemi Oduya Whitlow Crane Aldous Ballard Chandra Dunmore Eastwick Farrow Garside Holloway Ingram Jessop Kendrick Lomax Marchbank Nuttall Okafor Prescott Quarmby Redfern Sandhu Thorne Underhill Varley Wetherby Yardley Zeller Ashdown Birtles Coulter Dewhurst Entwistle Fairley Goddard Hargreave Iqbal Jolliffe Kershaw Lathom Mbeki Nkosi Ormerod Pickles Rahman Sugden Tanaka Kim Wang Li Chen Smith Jones Singh Garcia Nguyen O’Donnell McBride',
    ),
    given: split(
      'Ana Edith Hugo Maja Kofi Yuki Lotte Priya Tessa Ivo Nora Cian Folake Tolu June Peter Wei Min Ravi Sunita Arthur Beatrice Clement Doris Edmund Flora George Harriet Isaac Judith Kenneth Lydia Miriam Noel Olive Percy Ruth Simon Thea Ursula Victor Winifred Jean-Paul Mary-Ann',
    ),
    journals: [
      ['Journal of Coastal Economic History', 'J. Coast. Econ. Hist.'],
      ['Annals of Estuarine Research', 'Ann. Estuar. Res.'],
      ['International Review of Rural Studies', 'Int. Rev. Rural Stud.'],
      ['Transactions of the Society for Applied Mechanics', 'Trans. Soc. Appl. Mech.'],
      ['Proceedings of the Northern Academy of Sciences', 'Proc. North. Acad. Sci.'],
      ['Journal of Computational Linguistics and Speech', 'J. Comput. Linguist. Speech'],
      ['Molecular Ecology Letters', 'Mol. Ecol. Lett.'],
      ['European Journal of Urban Geography', 'Eur. J. Urban Geogr.'],
      ['Quarterly Journal of Public Policy', 'Q. J. Public Policy'],
      ['Advances in Polymer Chemistry', 'Adv. Polym. Chem.'],
      ['Bulletin of Medieval Archaeology', 'Bull. Mediev. Archaeol.'],
      ['Review of Agricultural Economics and Policy', 'Rev. Agric. Econ. Policy'],
      ['Studies in the History of Medicine', 'Stud. Hist. Med.'],
      ['Shore and Sea', 'Shore Sea'],
      ['Archive', 'Archive'],
    ],
    publishers: [
      ['Harbour University Press', 'Port Arless'],
      ['Meridian Academic', 'London'],
      ['Quill & Pell', 'New York'],
      ['Northgate Press', 'Edinburgh'],
      ['Saltworks Books', 'Cambridge, MA'],
    ],
    common: [
      'Editorial',
      'Introduction',
      'Book reviews',
      'Letters to the editor',
      'Obituary',
      'Preface',
      'Conclusion',
      'In this issue',
      'Notes and news',
      'Contents',
    ],
  },
  {
    tag: 'de',
    share: 0.12,
    nouns: split(
      'Küsten Mühlen Deiche Häfen Fischer Rechnungen Witwen Märkte Karten Predigten Übersetzungen Schulen Spitäler Gletscher Böden Wälder Städte Brücken Kanäle Zölle Zünfte Verträge Grenzen Gärten Wölfe Lachse Weizen Roggen Zucker Seide Kohle Kupfer Salz Seuchen Archive Zeitungen Netze Graphen Gedächtnis Vertrauen Armut Löhne Fluten Stürme',
    ),
    adjectives: split(
      'frühe späte mittelalterliche koloniale ländliche städtische nördliche industrielle öffentliche private vergleichende digitale mündliche vergessene umstrittene',
    ),
    joins: ['der', 'in', 'und'],
    families: split(
      'Brenner Hülsmann Petersen Lüders Voß Thomsen Jürgens Müller Schröder Möller Krämer Weiß Groß Bäcker Schönfeld Köhler Lange Richter Vogt Zimmermann',
    ),
    given: split('Anke Jürgen Sönke Wiebke Malte Friederike Günter Käthe Björn Ulrike Karl-Heinz Hans'),
    journals: [
      ['Zeitschrift für Deichwesen', 'Z. Deichwes.'],
      ['Jahrbuch für Küstenforschung', 'Jahrb. Küstenforsch.'],
      ['Archiv für vergleichende Stadtgeschichte', 'Arch. vgl. Stadtgesch.'],
    ],
    publishers: [
      ['Deichverlag', 'Husum'],
      ['Verlag am Watt', 'Berlin'],
    ],
    common: ['Vorwort', 'Einleitung', 'Rezensionen', 'Nachruf', 'Inhalt'],
  },
  {
    tag: 'fr',
    share: 0.1,
    nouns: split(
      'moulins marées étangs écluses digues ports pêcheurs veuves marchés cartes sermons traductions écoles hôpitaux glaciers forêts villes ponts canaux douanes traités frontières jardins loups saumons blé orge sucre soie charbon cuivre sel épidémies archives journaux réseaux graphes mémoire confiance pauvreté salaires crues tempêtes',
    ),
    adjectives: split(
      'anciens médiévaux coloniaux ruraux urbains maritimes publics privés comparés oubliés partagés',
    ),
    joins: ['des', 'dans les', 'et'],
    families: split(
      'Lefèvre Kervella Bréhat Rozé Gaudin Ménard Dubois Moreau Girard Bonnet Rousseau Chevalier Gauthier Perrin Lemaître',
    ),
    given: split('Anne Yann Soizic Éloi Maëlle Hervé Jean-Pierre Geneviève François Hélène'),
    journals: [
      ['Cahiers du littoral', 'Cah. littor.'],
      ['Revue d’histoire des moulins', 'Rev. hist. moulins'],
      ['Annales de géographie rurale', 'Ann. géogr. rurale'],
    ],
    publishers: [
      ['Presses de l’estuaire', 'Rennes'],
      ['Éditions du Sel', 'Paris'],
    ],
    common: ['Éditorial', 'Introduction', 'Comptes rendus', 'Avant-propos'],
  },
  {
    tag: 'es',
    share: 0.07,
    nouns: split(
      'molinos mareas puertos pescadores viudas mercados mapas sermones traducciones escuelas hospitales bosques ciudades puentes canales aduanas tratados fronteras jardines lobos salmones trigo azúcar seda carbón cobre epidemias archivos periódicos redes memoria confianza pobreza salarios inundaciones',
    ),
    adjectives: split('medievales coloniales rurales urbanos marítimos públicos privados olvidados'),
    joins: ['de los', 'en', 'y'],
    families: split('Queirós Magalhães Antunes Núñez Ibáñez Peña Cañizares Gómez Muñoz Arrieta'),
    given: split('Inês João Leonor José María Concepción Iñaki Ramón Jesús'),
    journals: [
      ['Revista de Estudios del Litoral', 'Rev. Estud. Litor.'],
      ['Anales de Historia Agraria', 'An. Hist. Agrar.'],
    ],
    publishers: [['Ediciones del Estuario', 'Vigo']],
    common: ['Editorial', 'Presentación', 'Reseñas'],
  },
  {
    tag: 'ru',
    share: 0.05,
    nouns: split(
      'мельницы берега плотины гавани рыбаки рынки карты проповеди переводы школы больницы ледники леса города мосты каналы пошлины договоры границы сады волки пшеница сахар уголь медь соль архивы газеты сети память доверие',
    ),
    adjectives: split('древние средневековые сельские городские северные общественные забытые'),
    joins: ['и', 'в истории', 'и'],
    families: split('Соколов Ильина Морозова Кузнецов Воробьёва Щербаков Журавлёв Цветаев'),
    given: split('Анна Пётр Ольга Юрий Надежда Михаил'),
    journals: [['Вестник береговой истории', 'Вестн. берег. ист.']],
    publishers: [['Прибой', 'Москва']],
    common: ['Предисловие', 'Рецензии'],
  },
];

/** What translated titles are made of, word for word: enough to stand in brackets behind a title in another script. */
export const ENGLISH = TONGUES[0]!;
