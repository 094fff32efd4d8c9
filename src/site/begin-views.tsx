/** Where a site begins: what it is called, who owns it, and what there is at first. A plain form that works without scripts. */
import type { BeginProblems } from '@/services';
import { Bare } from './bare';
import { Field, NewPasswordField } from './field';
import type { Delivery } from './shell';

export interface BeginViewProps {
  readonly delivery: Delivery;
  /** Where the form is sent. */
  readonly action: string;
  readonly timeZones: readonly string[];
  readonly languages: readonly { readonly tag: string; readonly name: string }[];
  readonly sites: readonly { readonly id: string; readonly name: string; readonly about: string }[];
  readonly typed: Readonly<Record<'title' | 'timeZone' | 'language' | 'name' | 'email' | 'with', string>>;
  readonly problems: BeginProblems;
}

export function BeginView({
  delivery,
  action,
  timeZones,
  languages,
  sites,
  typed,
  problems,
}: BeginViewProps) {
  const wrong = Object.values(problems).flat().length;
  return (
    <Bare delivery={delivery} title="Begin">
      <h1>Begin your site</h1>
      <p className="lead">All of it can be changed later, at the desk.</p>
      {wrong > 0 && (
        <p className="problem mt-6" role="alert">
          Nothing was made yet.{' '}
          {problems.form?.join(' ') ?? 'Mend what is marked, and type the password again.'}
        </p>
      )}
      <form method="post" action={action} encType="multipart/form-data" className="begin">
        <fieldset className="grid content-start gap-3">
          <legend className="legend">What it begins with</legend>
          {sites.map(({ id, name, about }) => (
            <label key={id} className="kind">
              <input type="radio" name="with" value={id} defaultChecked={typed.with === id} />
              <span>
                {name}
                <span className="hint block">{about}</span>
              </span>
            </label>
          ))}
          <label className="kind">
            <input type="radio" name="with" value="found" defaultChecked={typed.with === 'found'} />
            <span>
              What you have already
              <span className="hint block">
                A folder of Markdown or HTML, or a site on the web. You choose it next, and see what comes of
                it before anything is made.
              </span>
            </span>
          </label>
          <label className="kind">
            <input type="radio" name="with" value="file" defaultChecked={typed.with === 'file'} />
            <span>
              A site file
              <span className="hint block">
                What was saved at another Trivet: its name, its pages, its gates; and its people, if they were
                saved with it.
              </span>
            </span>
          </label>
          <p className="of-file ml-7">
            <label htmlFor="file" className="sr-only">
              The site file
            </label>
            <input
              id="file"
              name="file"
              type="file"
              accept="application/json,.json"
              aria-invalid={problems.file ? true : undefined}
              aria-describedby={problems.file ? 'file-problem' : undefined}
            />
          </p>
          <Problems id="file-problem" of={problems.file} />
          <Problems id="with-problem" of={problems.with} />
        </fieldset>
        <div className="grid content-start gap-8">
          <div className="of-others">
            <fieldset className="grid gap-5">
              <legend className="legend">The site</legend>
              <Field
                name="title"
                label="What it is called"
                type="text"
                value={typed.title}
                complete="organization"
                problem={problems.title?.[0]}
              />
              <p className="grid gap-1.5">
                <label htmlFor="language">Its language</label>
                <select
                  id="language"
                  name="language"
                  defaultValue={typed.language}
                  aria-invalid={problems.language ? true : undefined}
                >
                  {languages.map(({ tag, name }) => (
                    <option key={tag} value={tag}>
                      {name}
                    </option>
                  ))}
                </select>
                <span className="hint">
                  What Trivet itself says is in it. Ready-made words are English, to be replaced.
                </span>
                <Problems id="language-problem" of={problems.language} />
              </p>
              <p className="grid gap-1.5">
                <label htmlFor="timeZone">Where its days begin</label>
                <select
                  id="timeZone"
                  name="timeZone"
                  defaultValue={typed.timeZone}
                  aria-invalid={problems.timeZone ? true : undefined}
                >
                  {timeZones.map((zone) => (
                    <option key={zone}>{zone}</option>
                  ))}
                </select>
                <Problems id="zone-problem" of={problems.timeZone} />
              </p>
            </fieldset>
          </div>
          <fieldset className="grid gap-5">
            <legend className="legend">You, who own it</legend>
            <Field
              name="name"
              label="Your name"
              type="text"
              value={typed.name}
              complete="name"
              problem={problems.name?.[0]}
            />
            <Field
              name="email"
              label="Mail address"
              type="email"
              value={typed.email}
              complete="email"
              problem={problems.email?.[0]}
            />
            <NewPasswordField problem={problems.password?.[0]} />
          </fieldset>
          <button className="button justify-self-start" type="submit">
            Make the site
          </button>
        </div>
      </form>
    </Bare>
  );
}

const Problems = ({ id, of = [] }: { readonly id: string; readonly of?: readonly string[] | undefined }) =>
  of.length === 0 ? null : (
    <ul id={id} className="problem">
      {of.map((one) => (
        <li key={one}>{one}</li>
      ))}
    </ul>
  );

/** What everybody gets while there is no site: how whoever runs it begins. */
export const NothingYetView = ({
  delivery,
  over,
}: {
  readonly delivery: Delivery;
  readonly over: boolean;
}) => (
  <Bare delivery={delivery} title={over ? 'Too late' : 'Nothing here yet'}>
    <h1>{over ? 'This address was good for a day' : 'Nothing is here yet'}</h1>
    <p className="lead">
      {over
        ? 'Start the server again: it prints another address to begin at.'
        : 'If you run this server, its terminal says at which address you begin. Lost it? Start the server again, and it prints another.'}
    </p>
  </Bare>
);
