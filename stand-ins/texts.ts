/** A sentence of an invented text; with a gist it is one the demo's researcher kept as a passage. */
export interface Sentence {
  text: string;
  gist?: string;
  tint?: 'claim' | 'evidence' | 'method' | 'term' | 'doubt';
  kind?: 'quotation' | 'paraphrase' | 'summary' | 'response' | 'mark';
  own?: string;
}

/** A heading and its paragraphs. */
export interface Part {
  heading?: string;
  paragraphs: Sentence[][];
}

const p = (...sentences: (Sentence | string)[]): Sentence[] =>
  sentences.map((s) => (typeof s === 'string' ? { text: s } : s));

export const MARSH: Part[] = [
  {
    heading: '1. Introduction',
    paragraphs: [
      p(
        'Along the northern sounds some two hundred ponds were dammed to drive mills with the tide.',
        {
          text: 'Most have been open to the sea again since their dams gave way, and nobody has asked what grew back in them.',
          gist: 'Nobody has studied what grew back',
          tint: 'claim',
        },
        'This study asks whether salt marsh returns to a pond once its dam is breached, and how fast.',
      ),
      p(
        {
          text: 'A tide mill works by penning the flood behind a dam and letting it out over a wheel on the ebb.',
          gist: 'How a tide mill works',
          tint: 'term',
        },
        {
          text: 'While it worked, its pond was kept clear of mud by the miller, who sluiced it at every spring tide.',
          gist: 'Millers kept ponds clear of mud',
          tint: 'evidence',
          own: 'As long as a mill ran, sluicing stopped sediment from settling in its pond.',
        },
      ),
    ],
  },
  {
    heading: '2. Sites and methods',
    paragraphs: [
      p(
        {
          text: 'We surveyed forty-one ponds between the Skerry and the Long Sound in three summers.',
          gist: '41 ponds, three summers',
          tint: 'method',
        },
        {
          text: 'Elevation was levelled against tide gauges at each dam, and plant cover was read in fixed squares of one metre.',
          gist: 'Elevation by levelling, cover in 1 m squares',
          tint: 'method',
          kind: 'paraphrase',
          own: 'They measured height against local gauges and counted plants in permanent plots.',
        },
      ),
      p(
        'The year of the breach was taken from harbour ledgers where they survive, and from air photographs where they do not.',
        {
          text: 'For nine ponds no date could be had, and they are left out of the rates given below.',
          gist: 'Nine undated ponds left out of rates',
          tint: 'doubt',
        },
      ),
    ],
  },
  {
    heading: '3. Elevation and the return of plants',
    paragraphs: [
      p(
        'Ponds that had been worked until the 1920s lay between forty and ninety centimetres below the marsh outside the dam.',
        {
          text: 'Within six years of a breach the pond floor had risen by a median of 31 cm, and pioneer species covered more than half of it.',
          gist: 'Ponds refill fast once breached',
          tint: 'evidence',
          own: 'A pond floor gained about 30 cm in six years; pioneers took half of it.',
        },
        'The rise was fastest where the old sluice channel still led water to the far end.',
      ),
      p(
        'We use ',
        {
          text: 'accommodation space, the volume between the present floor and mean high water of spring tides,',
          gist: 'What “accommodation space” means here',
          tint: 'term',
        },
        ' as the measure of what a site can still take up.',
        'It differs from the depth that millers recorded, which was taken at the wheel.',
      ),
      p(
        {
          text: 'Recovery stalled at the two sites where the wheelhouse had been rebuilt for show, since the new gates were kept shut through most neap tides.',
          gist: 'Closed gates stop recovery',
          tint: 'claim',
          own: 'Rebuilding a wheelhouse as a sight can halt the marsh, because the gates stay closed.',
        },
        'Owners gave different reasons.',
        {
          text: 'None of them knew that the marsh was protected.',
          gist: 'Owners did not know of protection',
          tint: 'evidence',
          kind: 'mark',
        },
      ),
      p(
        {
          text: 'Where the breach was narrower than four metres, plants returned only along the channel.',
          gist: 'Narrow breaches: plants only along the channel',
          tint: 'evidence',
        },
        'Wider breaches gave a more even cover, though not a faster one.',
      ),
    ],
  },
  {
    heading: '4. What this means for restored ponds',
    paragraphs: [
      p(
        {
          text: 'A restored mill and a recovering marsh can share a pond if the gates stand open on four tides out of five.',
          gist: 'Mill and marsh can share: 4 tides of 5',
          tint: 'claim',
          own: 'If the gates are open most of the time, showing the mill and letting the marsh return need not exclude each other.',
        },
        {
          text: 'We know of one owner who has tried it, at Harrow Pool, and the marsh there is doing well.',
          gist: 'One example only: Harrow Pool',
          tint: 'doubt',
          kind: 'response',
          own: 'One site is thin evidence for a rule; look for others.',
        },
      ),
      p(
        'Sediment is not the limit here, as it is in the south.',
        {
          text: 'The limit is the custom of shutting the gates for the look of a full pond.',
          gist: 'The limit is custom, not sediment',
          tint: 'claim',
        },
        {
          text: 'We found no pond in which the marsh failed once water could come and go.',
          gist: 'No failures with free water',
          tint: 'evidence',
        },
      ),
    ],
  },
];

export const THESIS: Part[] = [
  {
    heading: 'Abstract',
    paragraphs: [
      p(
        {
          text: 'Tide mills ground most of the grain of the northern sounds from the fifteenth century until the railway came.',
          gist: 'Tide mills ground most grain until the railway',
          tint: 'claim',
        },
        {
          text: 'This thesis counts 214 of them from leases, tithe maps and the ground itself.',
          gist: '214 mills counted',
          tint: 'evidence',
        },
        'It argues that they closed for want of grain and not for want of water.',
      ),
    ],
  },
  {
    heading: 'Chapter 2. Counting mills',
    paragraphs: [
      p(
        {
          text: 'A mill is counted when two sources of different kinds agree on it.',
          gist: 'Two kinds of source per mill',
          tint: 'method',
        },
        {
          text: 'Place names alone are not enough, since “Mill Bay” may remember a windmill or nothing at all.',
          gist: 'Place names do not count alone',
          tint: 'doubt',
          own: 'A name with “mill” in it proves little.',
        },
        {
          text: 'Tithe maps show ponds but seldom wheels, and leases show wheels but seldom ponds.',
          gist: 'Maps show ponds, leases show wheels',
          tint: 'method',
          kind: 'paraphrase',
          own: 'The two kinds of record complement each other.',
        },
      ),
    ],
  },
  {
    heading: 'Chapter 4. Why they closed',
    paragraphs: [
      p(
        {
          text: 'Between 1860 and 1890 three mills in four stopped, most of them within five years of the nearest railway halt.',
          gist: 'Three in four closed 1860–1890, near railways',
          tint: 'evidence',
        },
        {
          text: 'Tolls fell by half before the first mill closed, which suggests that grain had left before water failed.',
          gist: 'Tolls fell before closures: grain left first',
          tint: 'claim',
          own: 'Income dropped first, so the cause lies with supply and not with silting.',
        },
        'Silting is named in only eleven surrenders of lease.',
      ),
      p(
        {
          text: 'Millers themselves blamed the moon, the council and the Dutch, in that order.',
          gist: 'Whom millers blamed',
          tint: 'evidence',
          kind: 'mark',
        },
        {
          text: 'The last to close had all found a second trade: oysters, ice, or visitors.',
          gist: 'Last survivors had a second trade',
          tint: 'evidence',
        },
        {
          text: 'A mill that ground for one village closed on average nineteen years later than a mill that ground for a market.',
          gist: 'Village mills outlived market mills by 19 years',
          tint: 'evidence',
        },
      ),
    ],
  },
  {
    heading: 'Chapter 5. What is left',
    paragraphs: [
      p(
        {
          text: 'Of 214 ponds, 173 can still be made out on the ground, and twelve hold a wheel.',
          gist: '173 ponds visible, 12 wheels',
          tint: 'evidence',
        },
        {
          text: 'Restoration has so far meant the building and never the pond.',
          gist: 'Restoration means building, never pond',
          tint: 'claim',
          own: 'People restore houses; the water side is forgotten.',
        },
      ),
    ],
  },
];

export const TURBINES: Part[] = [
  {
    heading: 'Introduction',
    paragraphs: [
      p(
        {
          text: 'Small turbines can be set in the wheel pits of tide mills without changing the look of the house.',
          gist: 'Turbines fit wheel pits unseen',
          tint: 'claim',
        },
        'The head is low, two metres at the most, and the flow is large.',
        {
          text: 'A reversible runner would use flood and ebb alike, where the old wheel used the ebb alone.',
          gist: 'Reversible runner uses both tides',
          tint: 'method',
        },
      ),
    ],
  },
  {
    heading: 'Yield at five wheelhouses',
    paragraphs: [
      p(
        {
          text: 'Measured over a year, five wheelhouses gave between 9 and 22 megawatt-hours each.',
          gist: '9–22 MWh a year per house',
          tint: 'evidence',
        },
        {
          text: 'That is enough for two to five households, and not enough to pay for a fish screen.',
          gist: 'Not enough to pay for a fish screen',
          tint: 'doubt',
          own: 'Electricity alone does not make such a scheme pay.',
        },
        {
          text: 'Trash on the screen cost a tenth of the yield.',
          gist: 'Trash costs a tenth',
          tint: 'evidence',
        },
        {
          text: 'Neap tides gave a quarter of what springs gave, so the pond must be large to be worth it.',
          gist: 'Neaps give a quarter of springs',
          tint: 'evidence',
        },
      ),
      p(
        {
          text: 'We define useful head as the difference in level that lasts for at least forty minutes of a tide.',
          gist: 'Useful head: lasts 40 minutes',
          tint: 'term',
        },
        {
          text: 'By that measure two ponds in three are too shallow today, having silted since they were last sluiced.',
          gist: 'Two in three too shallow today',
          tint: 'evidence',
        },
      ),
    ],
  },
  {
    heading: 'Discussion',
    paragraphs: [
      p(
        {
          text: 'Dredging a pond for power would destroy the marsh that has grown in it.',
          gist: 'Dredging for power destroys marsh',
          tint: 'claim',
        },
        {
          text: 'The case for turbines is therefore one for ponds that were never abandoned.',
          gist: 'Only for ponds never abandoned',
          tint: 'claim',
          kind: 'summary',
          own: 'Power makes sense only where the pond stayed in use.',
        },
        {
          text: 'We did not look at eels.',
          gist: 'Eels not studied',
          tint: 'doubt',
          kind: 'response',
          own: 'Eel passage is what the agency will ask about first.',
        },
      ),
    ],
  },
];

export const NEWS: Part[] = [
  {
    paragraphs: [
      p(
        {
          text: 'Tom Arless let the gate down for the last time on Sunday, forty-four years after he first lifted it.',
          gist: 'Arless closes after 44 years',
          tint: 'evidence',
        },
        'The mill at Oyster Row has ground flour for visitors since 1979 and for the village before that.',
      ),
      p(
        {
          text: '“The tide will still come,” he said. “It is the flour nobody comes for.”',
          gist: 'Miller: the tide comes, customers do not',
          tint: 'evidence',
        },
        {
          text: 'The harbour trust, which owns the building, wants to keep the gates shut so that the pond stays full for the regatta.',
          gist: 'Trust wants gates shut for the regatta',
          tint: 'evidence',
        },
        {
          text: 'Naturalists say that would drown the marsh that has grown along its edge.',
          gist: 'Naturalists: full pond drowns marsh',
          tint: 'claim',
        },
      ),
      p(
        {
          text: 'A meeting in the net loft drew ninety people, most of them, on a show of hands, for opening the gates.',
          gist: 'Meeting mostly for open gates',
          tint: 'evidence',
        },
        {
          text: 'The trust will decide in May.',
          gist: 'Decision in May',
          tint: 'doubt',
          kind: 'response',
          own: 'Find out what was decided.',
        },
        {
          text: 'Mr Arless has not been asked.',
          gist: 'Nobody asked the miller',
          tint: 'evidence',
          kind: 'mark',
        },
        {
          text: 'He will keep the keys until somebody tells him otherwise, he said.',
          gist: 'He keeps the keys',
          tint: 'evidence',
        },
      ),
    ],
  },
];

export const GUIDE: Part[] = [
  {
    paragraphs: [
      p(
        {
          text: 'A millstone that is not dressed grinds warm, and warm flour spoils.',
          gist: 'Undressed stones spoil flour',
          tint: 'claim',
        },
        'Lift the runner, turn it on its back, and sweep both faces.',
      ),
      p(
        {
          text: 'Mark the high places with a staff rubbed with red oxide.',
          gist: 'Red staff marks high places',
          tint: 'method',
        },
        {
          text: 'Cut the furrows anew with a bill, working from the eye outwards, never towards it.',
          gist: 'Furrows from the eye outwards',
          tint: 'method',
        },
        {
          text: 'The land between two furrows should be flat enough that a straw cannot pass beneath the staff.',
          gist: 'Land: no straw beneath the staff',
          tint: 'term',
        },
      ),
      p(
        {
          text: 'A pair of stones in daily use wants dressing every third week.',
          gist: 'Dress every third week',
          tint: 'evidence',
        },
        {
          text: 'In salt air, sooner.',
          gist: 'Sooner in salt air',
          tint: 'doubt',
          kind: 'response',
          own: 'Why? Perhaps the bill rusts; ask the council.',
        },
        { text: 'Keep the steel out of your eyes.', gist: 'Safety: eyes', tint: 'method', kind: 'mark' },
      ),
    ],
  },
];

export const BLOG: Part[] = [
  {
    paragraphs: [
      p(
        {
          text: 'I walked the whole of the Long Sound in a week and saw thirty-one ponds, of which the map knows eight.',
          gist: '31 ponds seen, map knows eight',
          tint: 'evidence',
        },
        'Bring boots.',
      ),
      p(
        {
          text: 'At Harrow Pool the gates stand open all winter, and in May the glasswort is so thick that it squeaks underfoot.',
          gist: 'Harrow Pool: thick glasswort with open gates',
          tint: 'evidence',
        },
        {
          text: 'The warden told me that she shuts them for the school visits only, six days a year.',
          gist: 'Gates shut six days a year',
          tint: 'evidence',
        },
        {
          text: 'That is the whole trick, she said, and it cost nothing.',
          gist: 'Cost nothing',
          tint: 'claim',
        },
      ),
      p(
        {
          text: 'What the books call a pen pond people here call a stank.',
          gist: '“Stank” is the local word',
          tint: 'term',
        },
        {
          text: 'I had thought the word was about the smell.',
          gist: 'Not about the smell',
          tint: 'term',
          kind: 'mark',
        },
        {
          text: 'Somebody ought to write these words down before the last miller goes.',
          gist: 'Dialect words need collecting',
          tint: 'claim',
          kind: 'summary',
          own: 'A word list of tide milling is still missing.',
        },
      ),
    ],
  },
];

/** A text as HTML paragraphs under `h2` headings. */
export function htmlOf(parts: Part[]): string {
  return parts
    .map(
      ({ heading, paragraphs }) =>
        (heading ? `<h2>${heading}</h2>\n` : '') +
        paragraphs.map((sentences) => `<p>${sentences.map((s) => s.text.trim()).join(' ')}</p>`).join('\n'),
    )
    .join('\n');
}
