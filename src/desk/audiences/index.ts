export { AudiencesScreen } from './audiences-screen';
