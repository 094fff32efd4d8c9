/** Turning an answer into the status and the bytes of a response. */

import type { ComponentProps, ReactElement } from 'react';
import { messagesIn, TURN_AWAYS } from '@/core';
import type { Frame, ListAnswer, PageAnswer } from '@/services';
import { withAnchorsOnce } from './anchors';
import { BeginView, type BeginViewProps, NothingYetView } from './begin-views';
import { HandInPage } from './hand-in';
import { InvitationOverView, InvitedView } from './invited-view';
import { CodeView, ResetView, SignUpView } from './journey-views';
import { markupOf, rendererReady } from './markup';
import { AccountPage, KeysView, SentForm } from './own-views';
import { OwnerLinkView } from './owner-link-view';
import { PassphraseView } from './passphrase-view';
import { PurchasesView, ReceiptPage } from './purchases-views';
import { QuizPage } from './quiz';
import type { Delivery } from './shell';
import { BuyView, OrderView, ShopView } from './shop-views';
import { SignInView } from './sign-in-view';
import { ListView, MessageView, MissingView, PageView, SearchView, TeaserView } from './views';
import { drawIn } from './wording';
import { WouldView } from './would-view';

/** A page with its status. */
export interface RenderedPage {
  readonly status: 200 | 403 | 404;
  readonly html: string;
}

/** A page, or a place to go instead: 303 for a decision, 301 for an address of before. */
export type Rendered = RenderedPage | { readonly status: 301 | 303; readonly location: string };

/** The response for an answer. */
export async function renderAnswer(answer: PageAnswer | ListAnswer, delivery: Delivery): Promise<Rendered> {
  switch (answer.kind) {
    case 'page':
      return {
        status: 200,
        html: await documentOf(answer.frame, <PageView answer={answer} delivery={delivery} />),
      };
    case 'teaser':
      return {
        status: TURN_AWAYS.teaser.status,
        html: await documentOf(answer.frame, <TeaserView answer={answer} delivery={delivery} />),
      };
    case 'message':
      return {
        status: TURN_AWAYS.message.status,
        html: await documentOf(answer.frame, <MessageView answer={answer} delivery={delivery} />),
      };
    case 'missing':
      return {
        status: TURN_AWAYS.missing.status,
        html: await documentOf(answer.frame, <MissingView answer={answer} delivery={delivery} />),
      };
    case 'list':
      return {
        status: 200,
        html: await documentOf(answer.frame, <ListView answer={answer} delivery={delivery} />),
      };
    case 'redirect':
      return { status: TURN_AWAYS.redirect.status, location: answer.to };
    case 'moved':
      return { status: 301, location: answer.to };
    default:
      return answer satisfies never;
  }
}

/** The page for typing a passphrase as bytes. */
export const renderPassphrase = (props: ComponentProps<typeof PassphraseView>): Promise<string> =>
  documentOf(props.frame, <PassphraseView {...props} />);

/** The search page as bytes. */
export const renderSearch = (props: ComponentProps<typeof SearchView>): Promise<string> =>
  documentOf(props.answer.frame, <SearchView {...props} />);

export const renderSignUp = (props: ComponentProps<typeof SignUpView>): Promise<string> =>
  documentOf(props.frame, <SignUpView {...props} />);

export const renderCode = (props: ComponentProps<typeof CodeView>): Promise<string> =>
  documentOf(props.frame, <CodeView {...props} />);

export const renderReset = (props: ComponentProps<typeof ResetView>): Promise<string> =>
  documentOf(props.frame, <ResetView {...props} />);

export const renderAccount = (props: ComponentProps<typeof AccountPage>): Promise<string> =>
  documentOf(props.frame, <AccountPage {...props} />);

export const renderKeys = (props: ComponentProps<typeof KeysView>): Promise<string> =>
  documentOf(props.frame, <KeysView {...props} />);

export const renderForm = (props: ComponentProps<typeof SentForm>): Promise<string> =>
  documentOf(props.frame, <SentForm {...props} />);

/** A hand-in with what its learner handed in. */
export const renderHandIn = (props: ComponentProps<typeof HandInPage>): Promise<string> =>
  documentOf(props.handIn.frame, <HandInPage {...props} />);

/** A quiz with what its learner has done in it. */
export const renderQuiz = (props: ComponentProps<typeof QuizPage>): Promise<string> =>
  documentOf(props.quiz.frame, <QuizPage {...props} />);

/** What a form would have done, on a walk. */
export const renderWould = (props: ComponentProps<typeof WouldView>): Promise<string> =>
  documentOf(props.frame, <WouldView {...props} />);

/** Everything that is sold to somebody. */
export const renderShop = (props: ComponentProps<typeof ShopView>): Promise<string> =>
  documentOf(props.frame, <ShopView {...props} />);

/** Buying a product. */
export const renderBuy = (props: ComponentProps<typeof BuyView>): Promise<string> =>
  documentOf(props.frame, <BuyView {...props} />);

/** An order that is on its way. */
export const renderOrder = (props: ComponentProps<typeof OrderView>): Promise<string> =>
  documentOf(props.frame, <OrderView {...props} />);

/** What somebody bought. */
export const renderPurchases = (props: ComponentProps<typeof PurchasesView>): Promise<string> =>
  documentOf(props.frame, <PurchasesView {...props} />);

export const renderReceipt = (props: ComponentProps<typeof ReceiptPage>): Promise<string> =>
  documentOf(props.frame, <ReceiptPage {...props} />);

/** Where a site begins. */
export const renderBegin = (props: BeginViewProps): Promise<string> =>
  documentOf(null, <BeginView {...props} />);

/** What there is while there is no site. */
export const renderNothingYet = (props: ComponentProps<typeof NothingYetView>): Promise<string> =>
  documentOf(null, <NothingYetView {...props} />);

/** A password chosen by a link that was made on the machine. */
export const renderOwnerLink = (props: ComponentProps<typeof OwnerLinkView>): Promise<string> =>
  documentOf(props.frame, <OwnerLinkView {...props} />);

/** A password chosen by an invitation. */
export const renderInvited = (props: ComponentProps<typeof InvitedView>): Promise<string> =>
  documentOf(props.frame, <InvitedView {...props} />);

/** What an invitation says that is none any more. */
export const renderInvitationOver = (props: ComponentProps<typeof InvitationOverView>): Promise<string> =>
  documentOf(props.frame, <InvitationOverView {...props} />);

/** The sign-in page as bytes. */
export const renderSignIn = (props: ComponentProps<typeof SignInView>): Promise<string> =>
  documentOf(props.frame, <SignInView {...props} />);

/** A document in the language of its frame; before there is a site, in English. */
async function documentOf(frame: Pick<Frame, 'language'> | null, element: ReactElement): Promise<string> {
  await rendererReady();
  const html = drawIn(messagesIn(frame?.language ?? 'en'), () => markupOf(element));
  return withAnchorsOnce(`<!doctype html>${html}`);
}
