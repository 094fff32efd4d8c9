export { FieldTextInput } from './bulk-panel';
export { PastRecords } from './past-records';
export { PeopleScreen } from './people-screen';
export { Field, Toggles } from './person-parts';
export { PersonScreen } from './person-screen';
export { ThroughGroups } from './through-groups';
