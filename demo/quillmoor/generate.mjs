// Makes the demo's data: `node demo/quillmoor/generate.mjs`. The seed is fixed, so every run writes the same files. What the
// keepers do is dated relative to the day of the import (`today-3d`), so that today's care round is never empty.
import { mkdirSync, writeFileSync } from 'node:fs';

const folder = new URL('./data/', import.meta.url);
let state = 0x51_7e_a1;

/** Mulberry32: a small generator of numbers in [0, 1) that depends on nothing but the seed. */
function random() {
  state = (state + 0x6d2b79f5) | 0;
  let mixed = Math.imul(state ^ (state >>> 15), 1 | state);
  mixed = (mixed + Math.imul(mixed ^ (mixed >>> 7), 61 | mixed)) ^ mixed;
  return ((mixed ^ (mixed >>> 14)) >>> 0) / 4294967296;
}
const below = (bound) => Math.floor(random() * bound);
const pick = (list) => list[below(list.length)];
const day = (from, to) => {
  const start = Date.parse(from);
  return new Date(start + below((Date.parse(to) - start) / 86_400_000) * 86_400_000).toISOString().slice(0, 10);
};
/** A day up to so many days before the data are imported; today among them. */
const daysAgo = (most) => `today-${below(most + 1)}d`;
const number = (prefix, value, digits) => `${prefix}-${String(value).padStart(digits, '0')}`;

const zones = [
  ['mist-forest', 'Mist forest', 'cool and dripping', 19, 11],
  ['rain-forest', 'Rain forest', 'hot and wet', 32, 20],
  ['dry-thorn', 'Dry thorn', 'hot by day, cold by night', 38, 4],
  ['salt-marsh', 'Salt marsh', 'brackish and mild', 24, 6],
  ['high-scree', 'High scree', 'bright and freezing', 16, -8],
  ['orchid-shade', 'Orchid shade', 'warm and still', 27, 17],
  ['fern-gully', 'Fern gully', 'shaded and damp', 21, 9],
  ['fog-desert', 'Fog desert', 'dry with morning fog', 29, 7],
  ['tea-slope', 'Tea slope', 'mild, never dry', 25, 8],
  ['lily-water', 'Lily water', 'warm water', 30, 21],
  ['winter-rain', 'Winter rain', 'dry summers', 31, 3],
  ['peat-moor', 'Peat moor', 'sour and wet', 18, -2],
];
const houses = [
  ['palm', 'Palm House', 1887, 940, 'The oldest roof on the hill. In storms it hums in B flat.'],
  ['fern', 'Fern House', 1894, 310, 'Kept at dusk all day, because the tallest fern sulks in the sun.'],
  ['lily', 'Lily House', 1902, 420, 'One round pool, and a bench from which nobody has yet fallen in twice.'],
  ['thorn', 'Thorn House', 1911, 260, 'Visitors are asked not to lean on anything.'],
  ['orchid', 'Orchid House', 1926, 350, 'Two doors, one after the other; please close the first.'],
  ['alpine', 'Alpine House', 1938, 180, 'The windows stand open at eight below.'],
  ['mist', 'Mist House', 1964, 520, 'The fog is switched on at seven and answers to nobody.'],
  ['moor', 'Moor House', 2009, 610, 'The newest: a bog with a roof.'],
];
const keepers = [
  ['ansa', 'Ansa Wetherel', 'Head keeper'],
  ['bruno', 'Bruno Tallis', 'Ferns and mosses'],
  ['ceridwen', 'Ceridwen Oakeshaw', 'Orchids'],
  ['dov', 'Dov Marrable', 'Thorns and succulents'],
  ['elif', 'Elif Quarmby', 'Water plants'],
  ['ffion', 'Ffion Dray', 'Night round'],
];
const firsts = [
  'Amber',
  'Bell',
  'Copper',
  'Dusk',
  'Cinder',
  'Feather',
  'Glass',
  'Hollow',
  'Iron',
  'Jackdaw',
  'Knotted',
  'Lantern',
  'Marsh',
  'Needle',
  'Ōmori',
  'Pale',
  'Quill',
  'Ragged',
  'Saint Orla’s',
  'Thimble',
  'Umber',
  'Velvet',
  'Whistling',
  'Éclair',
  'Züger’s',
];
const seconds = [
  'fern',
  'lily',
  'palm',
  'thorn',
  'orchid',
  'moss',
  'sedge',
  'rush',
  'creeper',
  'cup',
  'spurge',
  'lantern',
  'star',
  'foxtail',
  'clubmoss',
  'pitcher',
  'sundew',
  'saxifrage',
];
const origins = [
  'was grown from a seed found in a coat pocket',
  'came as a cutting in a biscuit tin',
  'was swapped for two wheelbarrows',
  'arrived unlabelled and was guessed at for a year',
  'survived the hailstorm under a tea tray',
  'was left at the gate with a polite letter',
  'was raised from spores on a window sill',
];
const habits = [
  'flowers only when the boiler is being repaired',
  'leans towards the door',
  'has never been moved',
  'is watered with rain only',
  'drops one leaf a week, on Tuesdays',
  'is turned a quarter every month',
  'smells faintly of pencils',
];
const health = ['thriving', 'thriving', 'steady', 'steady', 'steady', 'resting', 'poorly'];
const tasks = ['water', 'water', 'water', 'feed', 'prune', 'repot', 'inspect'];
const remarks = [
  '',
  '',
  '',
  'Soil dry to a finger’s depth.',
  'New shoot on the north side.',
  'Scale on two leaves, wiped off.',
  'Label replaced.',
  'Moved away from the draught.',
  'Roots look sound.',
  'Half a can only, it is resting.',
  'Staked the long stem; used soft twine, not wire.',
];
const headings = [
  'First bud',
  'A visitor asks',
  'Leaf colour',
  'After the frost',
  'Growth since spring',
  'Pollinated by hand',
  'Something nibbled',
  'Seed collected',
];
const bodies = [
  'Measured twice, because the first figure seemed too good.',
  'Compared with the plate in the old ledger; ours is darker.',
  'No change since the last note, which is the news.',
  'Three keepers looked and gave four opinions.',
  'Photographed before breakfast, in flat light.',
  'Worth repeating in a month.',
];

const specimens = Array.from({ length: 640 }, (_, index) => {
  const name = `${pick(firsts)} ${pick(seconds)}`;
  return [
    number('QM', index + 1, 4),
    name,
    pick(houses)[0],
    pick(zones)[0],
    day('1996-01-01', '2026-06-01'),
    (0.05 + random() ** 3 * 9).toFixed(2),
    pick(health),
    `This one ${pick(origins)}. It ${pick(habits)}.`,
  ];
});
const care = Array.from({ length: 3200 }, (_, index) => [
  number('C', index + 1, 5),
  pick(specimens)[0],
  daysAgo(445),
  pick(tasks),
  pick(keepers)[0],
  pick(remarks),
]);
const notes = Array.from({ length: 440 }, (_, index) => [
  number('N', index + 1, 4),
  pick(specimens)[0],
  daysAgo(1419),
  pick(headings),
  pick(bodies),
  pick(keepers)[1],
]);
// The specimen of the examples has something on each of its tabs.
care.push(
  ...['today-1d', 'today-8d', 'today-17d'].map((date, index) => [
    number('C', 3201 + index, 5),
    'QM-0412',
    date,
    tasks[index + 3],
    keepers[index][0],
    remarks[index + 3],
  ]),
);
notes.push([number('N', 441, 4), 'QM-0412', 'today-46d', headings[0], bodies[1], keepers[2][1]]);

// A letter for each zone, as on the doors, and the house in which it lies.
const zoneHouses = ['mist', 'palm', 'thorn', 'moor', 'alpine', 'orchid', 'fern', 'thorn', 'palm', 'lily', 'alpine', 'moor'];
const zonesInHouses = zones.map((zone, index) => [...zone, 'ABCDEFGHIJKL'[index], zoneHouses[index]]);
const housesWithPictures = houses.map((house) => [...house, `${house[0]}-house.svg`]);

/** A drawing of a glasshouse: as many panes and as round a roof as its age and area suggest. */
function drawHouse([, name, built, area], index) {
  const panes = Math.round(area / 80) + 3;
  const width = 560 / panes;
  const round = built < 1930 ? 110 : 20;
  const glass = ['#d7ece4', '#dfe9d6', '#d9e6f2', '#efe6d2', '#e8dff0', '#e1e9ee', '#d3e4e0', '#e6e2d3'][index];
  const bars = Array.from({ length: panes - 1 }, (_, at) => {
    const x = (40 + width * (at + 1)).toFixed(1);
    return `<path d="M${x} 300V${(170 - Math.sin((Math.PI * (at + 1)) / panes) * round).toFixed(1)}"/>`;
  }).join('');
  return `<svg xmlns="http://www.w3.org/2000/svg" viewBox="0 0 640 340" role="img" aria-label="${name}">
<rect width="640" height="340" fill="#f4f6f0"/><path d="M0 300h640v40H0z" fill="#b9c7a9"/>
<path d="M40 300V170Q320 ${170 - 2 * round} 600 170V300z" fill="${glass}" stroke="#17695a" stroke-width="5"/>
<g stroke="#17695a" stroke-width="2.5" fill="none">${bars}<path d="M40 235H600"/></g>
<path d="M${300 - index * 6} 300v-62h40v62z" fill="#17695a"/>
</svg>
`;
}

const cell = (value) => (/[",\n]/.test(String(value)) ? `"${String(value).replaceAll('"', '""')}"` : String(value));
mkdirSync(folder, { recursive: true });
for (const [name, header, rows] of [
  ['zones', ['code', 'name', 'climate', 'warmest', 'coldest', 'letter', 'house'], zonesInHouses],
  ['houses', ['code', 'name', 'built', 'area', 'story', 'picture'], housesWithPictures],
  ['keepers', ['login', 'name', 'post'], keepers],
  ['specimens', ['accession', 'name', 'house', 'zone', 'planted', 'height', 'health', 'story'], specimens],
  ['care', ['entry', 'specimen', 'day', 'task', 'keeper', 'remark'], care],
  ['notes', ['number', 'specimen', 'day', 'heading', 'body', 'author'], notes],
]) {
  writeFileSync(new URL(`${name}.csv`, folder), [header, ...rows].map((row) => row.map(cell).join(',')).join('\n') + '\n');
  console.log(`${name}.csv: ${rows.length} records`);
}
const images = new URL('./images/', import.meta.url);
mkdirSync(images, { recursive: true });
for (const [index, house] of houses.entries()) writeFileSync(new URL(`${house[0]}-house.svg`, images), drawHouse(house, index));
console.log(`images: ${houses.length} images`);
