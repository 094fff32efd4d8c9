export { SettingsScreen } from './settings-screen';
