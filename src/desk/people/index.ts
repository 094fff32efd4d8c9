export { PeopleScreen } from './people-screen';
export { PersonScreen } from './person-screen';
