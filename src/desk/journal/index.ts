export { JournalScreen } from './journal-screen';
