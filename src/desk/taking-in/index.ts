export { TakingScreen } from './taking-screen';
