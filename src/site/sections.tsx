/** The sections of a page as its visitor gets them. */
import type { FileEntry, SectionView } from '@/services';
import { AccountForm } from './account-form';
import { Outline } from './course';
import { Coarse, Entries, Picture } from './entries';
import { FormField } from './form-field';
import { LockSign } from './lock-sign';
import { Offers } from './offers';
import { sizeInWords } from './size';
import { Threshold } from './threshold';
import { say } from './wording';

export const Sections = ({ sections }: { readonly sections: readonly SectionView[] }) =>
  sections.map((section) => <Section key={section.id} section={section} />);

function Section({ section }: { readonly section: SectionView }) {
  switch (section.kind) {
    case 'text':
    case 'swap':
      return <Prose html={section.html} />;
    case 'picture':
      return (
        <figure className="figure">
          <Picture picture={section.picture} />
          {section.caption && <figcaption>{section.caption}</figcaption>}
        </figure>
      );
    case 'video':
      return (
        <figure className="figure">
          {/* biome-ignore lint/a11y/useMediaCaption: captions where its author has some; what is said in it stands below */}
          <video controls preload="metadata">
            <source src={section.address} type={section.mediaType} />
            {section.captions && (
              <track kind="captions" src={section.captions} srcLang={say().tag} label={say().name} default />
            )}
          </video>
          {section.caption && <figcaption>{section.caption}</figcaption>}
          {section.html !== '' && (
            <details>
              <summary>{say().lists.inWords}</summary>
              <Prose html={section.html} />
            </details>
          )}
        </figure>
      );
    case 'form':
      return (
        <div className="part">
          <Prose html={section.html} />
          <form method="post" action={section.action} className="form">
            {section.fields.map((field, index) => (
              <FormField
                key={field.label}
                field={field}
                name={`f${index}`}
                id={`${section.id}-${index}`}
                value=""
              />
            ))}
            <button className="button justify-self-start" type="submit">
              {section.button}
            </button>
          </form>
        </div>
      );
    case 'call':
      return (
        <div className="call">
          <Prose html={section.html} />
          <a className="button" href={section.address}>
            {section.label}
          </a>
        </div>
      );
    case 'posts':
      if (section.entries.length === 0) return null;
      return (
        <div className="part">
          <Entries entries={section.entries} level={2} />
          {section.more && (
            <p className="more">
              <a href={section.more}>{say().lists.all}</a>
            </p>
          )}
        </div>
      );
    case 'outline':
      return (
        <div className="part">
          <h2>
            <a href={section.address}>{section.title}</a>
          </h2>
          <Outline course={section.course} level={3} />
        </div>
      );
    case 'files':
      return section.files.length === 0 ? null : <Files files={section.files} />;
    case 'follow':
      return (
        <div className="call">
          <Prose html={section.html} />
          {section.action ? (
            <form method="post" action={section.action.address}>
              <button className="button" type="submit">
                {(section.action.follows ? say().steps.leave : say().steps.follow)(section.group)}
              </button>
            </form>
          ) : (
            <a className="button" href={section.signIn}>
              {say().steps.signInToFollowOf(section.group)}
            </a>
          )}
        </div>
      );
    case 'prices':
      return (
        <div className="part">
          <Prose html={section.html} />
          <Offers offers={section.offers} />
        </div>
      );
    case 'account':
      return <AccountForm account={section} problems={{}} />;
    case 'teaser':
      return (
        <aside className="closed" aria-label={section.title}>
          {section.coarse && <Coarse source={section.coarse} />}
          <h2>{section.title}</h2>
          {section.text && <p>{section.text}</p>}
          <Threshold reason={section.reason} step={section.step} />
        </aside>
      );
    case 'locked':
      return (
        <aside className="closed" aria-label={`${section.title}, ${say().frame.locked}`}>
          <h2>
            <LockSign />
            {section.title}
          </h2>
          <Threshold reason={section.reason} step={section.step} />
        </aside>
      );
    case 'message':
      return (
        <aside className="closed">
          <Threshold reason={section.reason} step={section.step} />
        </aside>
      );
    case 'space':
      return <div className="space" aria-hidden="true" />;
    default:
      return section satisfies never;
  }
}

export const Prose = ({ html }: { readonly html: string }) =>
  // biome-ignore lint/security/noDangerouslySetInnerHtml: sanitised where it was rendered
  html === '' ? null : <div className="prose" dangerouslySetInnerHTML={{ __html: html }} />;

function Files({ files }: { readonly files: readonly FileEntry[] }) {
  return (
    <ul className="files">
      {files.map((file) => (
        <li key={file.id}>
          <a href={file.address}>
            {file.picture && (
              <img
                src={file.picture.address}
                alt=""
                width={file.picture.width}
                height={file.picture.height}
                loading="lazy"
              />
            )}
            {file.title}
          </a>{' '}
          <span className="hint">{sizeInWords(file.size)}</span>
        </li>
      ))}
    </ul>
  );
}
