export { FieldTextInput } from './bulk-panel';
export { PeopleScreen } from './people-screen';
export { Field, Records, Toggles } from './person-parts';
export { PersonScreen } from './person-screen';
