/**
 * Tells the server what of a video was played, so that whoever has seen most of it is done with it. Runs in the learner's
 * browser; without it they say so themselves.
 */
const EVERY_MS = 10_000;

const video = document.querySelector<HTMLVideoElement>('main video');
const done = document.querySelector<HTMLElement>('[data-watch]');
if (video && done?.dataset.watch) tellWhatIsPlayed(video, done.dataset.watch, done);

function tellWhatIsPlayed(video: HTMLVideoElement, address: string, done: HTMLElement): void {
  let sent = '';
  let over = false;
  const tell = async () => {
    const { played, duration } = video;
    const ranges = Array.from(
      { length: played.length },
      (_, at) => `${played.start(at).toFixed(1)}-${played.end(at).toFixed(1)}`,
    ).join(',');
    if (over || ranges === '' || ranges === sent || !Number.isFinite(duration)) return;
    sent = ranges;
    const body = new URLSearchParams({ ranges, seconds: duration.toFixed(1) });
    try {
      // Also while the page is being left.
      const answer = await fetch(address, { method: 'POST', body, keepalive: true });
      if (answer.status !== 200) return;
      over = true;
      const told = document.createElement('p');
      told.className = 'course-done';
      told.setAttribute('role', 'status');
      told.textContent = done.dataset.watched ?? '';
      done.replaceWith(told);
    } catch {
      // Told with the next range.
      sent = '';
    }
  };
  setInterval(() => {
    if (!video.paused) void tell();
  }, EVERY_MS);
  for (const event of ['pause', 'ended'] as const) video.addEventListener(event, () => void tell());
  addEventListener('pagehide', () => void tell());
}
