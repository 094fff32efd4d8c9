export { Found, useFindingText } from './found';
export { FindingsScreen } from './findings-screen';
