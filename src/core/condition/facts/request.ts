/** What conditions can ask of a request: the moment, and what the browser says. */
import { DEVICES, ENGINES, WEEKDAYS } from '../../site/request';
import type { FactEntry } from './fact';

export const requestFacts = {
  date: {
    label: 'Date',
    of: 'request',
    type: 'date',
    always: true,
    read: () => (_visitor, _item, request) => request.today,
  },
  time: {
    label: 'Time of day',
    of: 'request',
    type: 'time',
    read: () => (_visitor, _item, request) => request.minute,
  },
  weekday: {
    label: 'Weekday',
    of: 'request',
    type: 'choice',
    choices: WEEKDAYS,
    always: true,
    read: () => (_visitor, _item, request) => request.weekday,
  },
  parameter: {
    label: 'Address parameter',
    of: 'request',
    type: 'text',
    subject: 'text',
    fakeable: true,
    private: true,
    whose: true,
    read:
      (name) =>
      (_visitor, _item, { parameters }) =>
        Object.hasOwn(parameters, name) ? (parameters[name] ?? null) : null,
  },
  referrer: {
    label: 'Referring host',
    of: 'request',
    type: 'text',
    fakeable: true,
    private: true,
    read: () => (_visitor, _item, request) => request.referrer,
  },
  device: {
    label: 'Device',
    of: 'request',
    type: 'choice',
    choices: DEVICES,
    fakeable: true,
    read: () => (_visitor, _item, request) => request.device,
  },
  browser: {
    label: 'Browser family',
    of: 'request',
    type: 'choice',
    choices: ENGINES,
    fakeable: true,
    private: true,
    whose: true,
    read: () => (_visitor, _item, request) => request.browser,
  },
  language: {
    label: 'Language',
    of: 'request',
    type: 'language',
    fakeable: true,
    whose: true,
    read: () => (_visitor, _item, request) => request.languages,
  },
  network: {
    label: 'Network address',
    of: 'request',
    type: 'network',
    private: true,
    whose: true,
    read: () => (_visitor, _item, request) => request.network,
  },
} as const satisfies Record<string, FactEntry>;
