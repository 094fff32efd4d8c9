/**
 * Films the demo's video: the sky turning over the hill, drawn on a canvas and recorded by the browser. Run by hand
 * (`npx tsx demo/make-video.ts`); what it makes is kept in demo/pictures.
 */
import { writeFileSync } from 'node:fs';
import { chromium } from '@playwright/test';

const browser = await chromium.launch({
  executablePath: '/usr/bin/chromium',
  args: ['--no-sandbox', '--disable-gpu'],
});
const page = await browser.newPage();
// The compiler marks functions with their names, by a helper that the page does not have.
await page.addInitScript('globalThis.__name = (named) => named');
await page.goto('about:blank');
const film = await page.evaluate(async () => {
  const canvas = document.createElement('canvas');
  canvas.width = 640;
  canvas.height = 360;
  const draw = canvas.getContext('2d') as CanvasRenderingContext2D;
  const stars = Array.from({ length: 260 }, (_, index) => ({
    angle: (index * 2.399963) % (Math.PI * 2),
    away: 12 + Math.sqrt(index / 260) * 520,
    size: 0.5 + ((index * 7919) % 13) / 9,
  }));
  const frame = (turn: number) => {
    const sky = draw.createLinearGradient(0, 0, 0, 360);
    sky.addColorStop(0, '#0a1526');
    sky.addColorStop(1, '#3a4a66');
    draw.fillStyle = sky;
    draw.fillRect(0, 0, 640, 360);
    for (const star of stars) {
      draw.fillStyle = '#f2efe6';
      draw.beginPath();
      draw.arc(
        400 + star.away * Math.cos(star.angle + turn),
        110 + star.away * Math.sin(star.angle + turn),
        star.size,
        0,
        7,
      );
      draw.fill();
    }
    draw.fillStyle = '#060a12';
    draw.fillRect(0, 310, 640, 50);
    draw.beginPath();
    draw.arc(180, 312, 46, Math.PI, 0);
    draw.fill();
    draw.fillStyle = '#c8743c';
    draw.fillRect(176, 268, 14, 44);
    // It comes out of the night: an encoder's first frame is its worst, and of one colour it is right.
    draw.globalAlpha = Math.max(0, 1 - turn * 14);
    draw.fillStyle = '#0a1526';
    draw.fillRect(0, 0, 640, 360);
    draw.globalAlpha = 1;
  };
  const recorder = new MediaRecorder(canvas.captureStream(25), {
    mimeType: 'video/webm',
    videoBitsPerSecond: 300_000,
  });
  const parts: Blob[] = [];
  recorder.ondataavailable = ({ data }) => parts.push(data);
  const done = new Promise((resolve) => {
    recorder.onstop = resolve;
  });
  recorder.start();
  const begun = performance.now();
  while (performance.now() - begun < 4000) {
    frame((performance.now() - begun) / 9000);
    await new Promise(requestAnimationFrame);
  }
  recorder.stop();
  await done;
  return [...new Uint8Array(await new Blob(parts).arrayBuffer())];
});
await browser.close();
writeFileSync('demo/pictures/turning.webm', Buffer.from(film));
console.log(`turning.webm: ${film.length} bytes`);
