/**
 * Keeps an attempt as it is filled in, and hands it in when its time is up. Runs in the learner's browser; everything it does
 * can be done with the form's own buttons.
 */
const PAUSE_MS = 800;
const SECOND_MS = 1000;

const form = document.querySelector<HTMLFormElement>('form.quiz');
if (form) {
  keepAsFilledIn(form);
  countDown(form);
}

function keepAsFilledIn(form: HTMLFormElement): void {
  const told = form.querySelector<HTMLElement>('[data-kept]');
  const words = told?.dataset ?? {};
  const tell = (text: string) => {
    if (told) told.textContent = text;
  };
  let waiting: number | undefined;
  const keep = async () => {
    if (waiting === undefined) return;
    clearTimeout(waiting);
    waiting = undefined;
    const fields = new URLSearchParams();
    for (const [name, value] of new FormData(form)) if (typeof value === 'string') fields.append(name, value);
    fields.set('do', 'keep');
    try {
      // Also while the page is being left.
      const answer = await fetch(form.action, { method: 'POST', body: fields, keepalive: true });
      const note = new URL(answer.url).searchParams.get('note');
      if (note === 'over') location.assign(answer.url);
      else tell((note === 'kept' ? words.kept : words.notKept) ?? '');
    } catch {
      tell(words.offline ?? '');
    }
  };
  form.addEventListener('input', () => {
    clearTimeout(waiting);
    waiting = window.setTimeout(keep, PAUSE_MS);
    tell('…');
  });
  form.addEventListener('submit', () => clearTimeout(waiting));
  document.addEventListener('visibilitychange', () => document.visibilityState === 'hidden' && void keep());
}

function countDown(form: HTMLFormElement): void {
  const clock = form.querySelector<HTMLElement>('[data-seconds]');
  const seconds = Number(clock?.dataset.seconds);
  if (!clock || !Number.isFinite(seconds)) return;
  const end = performance.now() + seconds * SECOND_MS;
  const tick = () => {
    const left = Math.max(0, Math.ceil((end - performance.now()) / SECOND_MS));
    clock.textContent = ` · ${Math.floor(left / 60)}:${String(left % 60).padStart(2, '0')} ${clock.dataset.left}`;
    if (left > 0) return;
    clearInterval(timer);
    const asItIs = document.createElement('input');
    Object.assign(asItIs, { type: 'hidden', name: 'do', value: 'hand in as it is' });
    form.append(asItIs);
    form.submit();
  };
  const timer = setInterval(tick, SECOND_MS);
  tick();
}
