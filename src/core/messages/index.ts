/** What Trivet itself says to visitors, in the languages that it speaks. */
export { english, type Messages } from './english';
export { byMessages, directionOf, LANGUAGES, languageTag, messagesIn } from './languages';
