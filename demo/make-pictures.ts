/**
 * Draws the demo's pictures: skies, a hill and a dome, made of circles and gradients with a seeded generator. Run by hand
 * (`npx tsx demo/make-pictures.ts`) when one changes; what it makes is kept in demo/pictures.
 */
import { writeFileSync } from 'node:fs';
import sharp from 'sharp';

const WIDTH = 1600;
const HEIGHT = 1000;

/** A small seeded generator (mulberry32), so that the same pictures come out every time. */
function seeded(seed: number): () => number {
  let state = seed;
  return () => {
    state = (state + 0x6d2b79f5) | 0;
    let mixed = Math.imul(state ^ (state >>> 15), 1 | state);
    mixed = (mixed + Math.imul(mixed ^ (mixed >>> 7), 61 | mixed)) ^ mixed;
    return ((mixed ^ (mixed >>> 14)) >>> 0) / 4_294_967_296;
  };
}

const sky = (top: string, middle: string, bottom: string) => `
  <defs><linearGradient id="sky" x1="0" y1="0" x2="0" y2="1">
    <stop offset="0" stop-color="${top}"/><stop offset=".62" stop-color="${middle}"/><stop offset="1" stop-color="${bottom}"/>
  </linearGradient>
  <filter id="soft" x="-60%" y="-60%" width="220%" height="220%"><feGaussianBlur stdDeviation="34"/></filter>
  <filter id="glow" x="-60%" y="-60%" width="220%" height="220%"><feGaussianBlur stdDeviation="5"/></filter></defs>
  <rect width="${WIDTH}" height="${HEIGHT}" fill="url(#sky)"/>`;

function stars(seed: number, count: number, below = HEIGHT * 0.75): string {
  const random = seeded(seed);
  const tints = ['#ffffff', '#fff1dc', '#dfe9ff', '#ffe3c4'];
  return Array.from({ length: count }, () => {
    const size = 0.5 + random() ** 6 * 3.4;
    const x = random() * WIDTH;
    const y = random() * below;
    const tint = tints[Math.floor(random() * tints.length)];
    const light =
      size > 2.2
        ? `<circle cx="${x}" cy="${y}" r="${size * 3}" fill="${tint}" opacity=".18" filter="url(#glow)"/>`
        : '';
    return `${light}<circle cx="${x}" cy="${y}" r="${size}" fill="${tint}" opacity="${0.35 + random() * 0.65}"/>`;
  }).join('');
}

/** A line of hills from left to right; roughness in pixels. */
function hills(seed: number, at: number, rough: number, colour: string): string {
  const random = seeded(seed);
  const points: string[] = [];
  let y = at;
  for (let x = -40; x <= WIDTH + 40; x += 40) {
    y += (random() - 0.5) * rough + (at - y) * 0.12;
    points.push(`${x},${y.toFixed(1)}`);
  }
  return `<polygon points="-40,${HEIGHT} ${points.join(' ')} ${WIDTH + 40},${HEIGHT}" fill="${colour}"/>`;
}

const dome = (x: number, y: number, size: number, colour: string, lit: boolean) => `
  <rect x="${x - size}" y="${y}" width="${size * 2}" height="${size * 0.8}" fill="${colour}"/>
  <path d="M${x - size} ${y}a${size} ${size} 0 0 1 ${size * 2} 0Z" fill="${colour}"/>
  <path d="M${x - size * 0.12} ${y - size * 0.99}L${x + size * 0.2} ${y - size * 0.98}L${x + size * 0.34} ${y}L${x - size * 0.04} ${y}Z" fill="${lit ? '#c8743c' : '#04070d'}" opacity="${lit ? 0.85 : 0.8}"/>
  <rect x="${x - size * 0.9}" y="${y + size * 0.3}" width="${size * 0.2}" height="${size * 0.5}" fill="${lit ? '#b4562c' : '#04070d'}"/>`;

const cloud = (x: number, y: number, width: number, height: number, colour: string, opacity: number) =>
  `<ellipse cx="${x}" cy="${y}" rx="${width}" ry="${height}" fill="${colour}" opacity="${opacity}" filter="url(#soft)"/>`;

/** Stars drawn to arcs around the pole, as a camera left open for an hour sees them. */
function trails(seed: number, count: number): string {
  const random = seeded(seed);
  const [poleX, poleY] = [WIDTH * 0.58, HEIGHT * 0.3];
  return Array.from({ length: count }, () => {
    const radius = 20 + random() * 1000;
    const start = random() * Math.PI * 2;
    const sweep = 0.32;
    const point = (angle: number) =>
      `${(poleX + radius * Math.cos(angle)).toFixed(1)} ${(poleY + radius * Math.sin(angle)).toFixed(1)}`;
    return `<path d="M${point(start)}A${radius} ${radius} 0 0 1 ${point(start + sweep)}" fill="none" stroke="${random() > 0.75 ? '#ffdcb0' : '#dce8ff'}" stroke-width="${0.6 + random() * 1.8}" opacity="${0.3 + random() * 0.6}"/>`;
  }).join('');
}

function milkyWay(seed: number): string {
  const random = seeded(seed);
  return Array.from({ length: 60 }, (_, index) => {
    const along = index / 60;
    const x = 200 + along * 1250 + (random() - 0.5) * 120;
    const y = 820 - along * 860 + (random() - 0.5) * 130;
    return cloud(
      x,
      y,
      60 + random() * 90,
      40 + random() * 60,
      index % 5 === 0 ? '#f0cfa8' : '#9db4e0',
      0.05 + random() * 0.07,
    );
  }).join('');
}

const comet = `
  <defs><linearGradient id="tail" x1="0" y1="1" x2="1" y2="0"><stop offset="0" stop-color="#dff3ff" stop-opacity=".95"/><stop offset="1" stop-color="#dff3ff" stop-opacity="0"/></linearGradient></defs>
  <path d="M640 600C820 470 1010 300 1260 60L1330 120C1080 330 850 500 660 622Z" fill="url(#tail)" opacity=".6" filter="url(#glow)"/>
  <path d="M645 600C800 500 940 400 1130 210" stroke="#a8e6d6" stroke-width="9" opacity=".35" fill="none" filter="url(#glow)"/>
  <circle cx="648" cy="610" r="22" fill="#e9fbff" filter="url(#glow)"/><circle cx="648" cy="610" r="9" fill="#fff"/>`;

const halo = `
  <circle cx="800" cy="420" r="300" fill="none" stroke="#dfe7f2" stroke-width="16" opacity=".28" filter="url(#glow)"/>
  <circle cx="800" cy="420" r="284" fill="none" stroke="#e9c9a8" stroke-width="5" opacity=".3" filter="url(#glow)"/>
  ${cloud(800, 420, 150, 150, '#eef3fb', 0.5)}<circle cx="800" cy="420" r="46" fill="#fbfdff"/>`;

const ringed = `
  <ellipse cx="800" cy="500" rx="480" ry="130" fill="none" stroke="#d9c3a0" stroke-width="42" opacity=".75"/>
  <ellipse cx="800" cy="500" rx="400" ry="104" fill="none" stroke="#b89c74" stroke-width="20" opacity=".7"/>
  <circle cx="800" cy="500" r="220" fill="#e6d2ad"/>
  ${[-120, -60, -10, 50, 110].map((y, index) => `<path d="M${800 - Math.sqrt(220 ** 2 - y ** 2)} ${500 + y}H${800 + Math.sqrt(220 ** 2 - y ** 2)}" stroke="#b99f78" stroke-width="${10 + index * 3}" opacity=".5"/>`).join('')}
  <path d="M320 500a480 130 0 0 0 960 0" fill="none" stroke="#d9c3a0" stroke-width="42" opacity=".85"/>`;

const eyepieces = `
  <rect width="${WIDTH}" height="${HEIGHT}" fill="#3a2a1d"/>
  ${Array.from({ length: 26 }, (_, index) => `<path d="M0 ${index * 40 + 8}C400 ${index * 40 - 6} 1100 ${index * 40 + 26} 1600 ${index * 40 + 4}" stroke="#4a3727" stroke-width="${6 + (index % 4) * 3}" fill="none"/>`).join('')}
  ${[
    [330, 560, 150],
    [760, 480, 195],
    [1230, 590, 170],
  ]
    .map(
      ([x = 0, y = 0, r = 0]) => `
  <ellipse cx="${x + 30}" cy="${y + r * 0.9}" rx="${r * 1.1}" ry="${r * 0.35}" fill="#1c130c" opacity=".7" filter="url(#soft)"/>
  <circle cx="${x}" cy="${y}" r="${r}" fill="#17181b"/><circle cx="${x}" cy="${y}" r="${r * 0.86}" fill="#2b2d31"/>
  <circle cx="${x}" cy="${y}" r="${r * 0.6}" fill="#0b1a2a"/><circle cx="${x - r * 0.16}" cy="${y - r * 0.18}" r="${r * 0.26}" fill="#5f8fb0" opacity=".55" filter="url(#glow)"/>
  <circle cx="${x}" cy="${y}" r="${r * 0.72}" fill="none" stroke="#a9803f" stroke-width="6"/>`,
    )
    .join('')}`;

function chart(): string {
  const random = seeded(9);
  const dots = Array.from({ length: 90 }, () => {
    const angle = random() * Math.PI * 2;
    const away = Math.sqrt(random()) * 400;
    return `<circle cx="${800 + away * Math.cos(angle)}" cy="${500 + away * Math.sin(angle)}" r="${1.5 + random() ** 3 * 9}" fill="#1d2430"/>`;
  }).join('');
  return `<rect width="${WIDTH}" height="${HEIGHT}" fill="#d8d6cd"/>
  <circle cx="800" cy="500" r="420" fill="#ebe9e1" stroke="#1d2430" stroke-width="3"/>${dots}
  <path d="M800 70V130M800 870V930M370 500H430M1170 500H1230" stroke="#1d2430" stroke-width="3"/>
  <circle cx="905" cy="430" r="26" fill="none" stroke="#9c3b1c" stroke-width="5"/>`;
}

const ground = '#060a12';
const PICTURES: Readonly<Record<string, string>> = {
  'hill-at-night':
    sky('#0a1526', '#1b3152', '#4a4a5e') +
    milkyWay(3) +
    stars(1, 900) +
    hills(4, 800, 46, '#101a2a') +
    dome(1130, 760, 120, ground, true) +
    hills(8, 890, 30, ground),
  mist:
    sky('#152a47', '#53708f', '#d9cdbb') +
    stars(12, 160, 420) +
    hills(5, 560, 60, '#29405c') +
    cloud(500, 760, 900, 120, '#e8e6e0', 0.9) +
    cloud(1200, 820, 800, 120, '#f2efe8', 0.9) +
    hills(21, 700, 70, '#1b2c42') +
    cloud(800, 940, 1200, 110, '#f4f1ea', 0.95),
  halo:
    sky('#0d1724', '#22344a', '#3d4c5e') +
    stars(31, 120) +
    halo +
    hills(6, 900, 36, ground) +
    dome(380, 850, 80, ground, false),
  trails:
    sky('#070d18', '#15243d', '#3b3a4c') +
    trails(17, 420) +
    hills(11, 840, 40, ground) +
    dome(500, 790, 105, ground, true),
  comet: sky('#0b1220', '#1f3350', '#8a6a5c') + stars(41, 520) + comet + hills(13, 880, 44, ground),
  planet: sky('#05080f', '#0a101c', '#0d1524') + stars(51, 160, HEIGHT) + ringed,
  eyepieces,
  chart: chart(),
  'cloud-band': sky('#090f1c', '#131f36', '#1c2a42') + milkyWay(19) + milkyWay(23) + stars(61, 1600, HEIGHT),
  'frame-1':
    sky('#040507', '#07090d', '#090b10') +
    stars(71, 700, HEIGHT) +
    cloud(820, 520, 260, 150, '#b45a5a', 0.5) +
    cloud(900, 470, 160, 110, '#d98a6c', 0.4),
  'frame-2':
    sky('#040507', '#06080c', '#080a0e') +
    stars(81, 500, HEIGHT) +
    cloud(780, 500, 320, 60, '#c9b28e', 0.55) +
    cloud(780, 500, 90, 40, '#fff0d0', 0.8),
  'frame-3':
    sky('#040507', '#07080c', '#080a0e') +
    stars(91, 1900, HEIGHT) +
    cloud(800, 500, 120, 120, '#cfe0ff', 0.35),
};

for (const [name, inner] of Object.entries(PICTURES)) {
  const svg = `<svg xmlns="http://www.w3.org/2000/svg" viewBox="0 0 ${WIDTH} ${HEIGHT}" width="${WIDTH}" height="${HEIGHT}">${inner}</svg>`;
  const picture = await sharp(Buffer.from(svg)).resize(1200).webp({ quality: 72 }).toBuffer();
  writeFileSync(`demo/pictures/${name}.webp`, picture);
  console.log(`${name}: ${picture.length} bytes`);
}
